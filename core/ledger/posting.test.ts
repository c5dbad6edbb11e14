import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { COST_TYPES } from '../costs/costType';
import { ACCOUNT_TYPES, ACCOUNTS, JOB_COST_ACCOUNTS } from './accounts';
import { journal } from './journal';
import { tieOut } from './tieOut';
import { trialBalance } from './trialBalance';
import { costJournals } from '../costs/costBatch';
import { POSTING_KINDS, postingOfKind, POSTINGS } from './posting';
import { foreignAccounts } from './foreignAccounts';
import { receiptJournal } from '../billing/receipt';
import { retentionReleaseJournal } from '../billing/retentionRelease';

const balance = (lines: readonly { debit: number; credit: number }[]) => lines.reduce((sum, it) => sum + it.debit - it.credit, 0);

describe('a journal', () => {
  test('nets each account, leaves out what is nothing, and puts credits on their side', () => {
    expect(
      journal('2031-04-30', [
        ['bank', 500],
        ['receivable', -300],
        ['receivable', -200],
        ['payable', 0],
      ]),
    ).toEqual({
      dated: '2031-04-30',
      lines: [
        { account: '1000', debit: 500, credit: 0 },
        { account: '1100', debit: 0, credit: 500 },
      ],
    });
  });

  test('that does not balance is never made', () => {
    expect(() => journal('2031-04-30', [['bank', 1]])).toThrow(/does not balance/);
  });

  test('of costs: one a day, by cost type, against clearing', () => {
    const journals = costJournals([
      { postedOn: '2031-04-02', costType: 'material', amount: 700 },
      { postedOn: '2031-04-01', costType: 'labour', amount: 300 },
      { postedOn: '2031-04-02', costType: 'labour', amount: -100 },
      { postedOn: '2031-04-03', costType: 'other', amount: 0 },
    ]);
    // The credit of 1.00 stands apart from the cost of the same day, on its own account and on clearing.
    expect(journals.map((it) => [it.dated, it.lines.map((line) => [line.account, line.debit - line.credit])])).toEqual([
      [
        '2031-04-01',
        [
          ['5010', 300],
          ['2900', -300],
        ],
      ],
      [
        '2031-04-02',
        [
          ['5020', 700],
          ['5010', -100],
          ['2900', 100],
          ['2900', -700],
        ],
      ],
    ]);
  });

  test('of every kind of posting balances, each line on one side only', () => {
    const costs = fc.array(
      fc.record({
        postedOn: fc.constantFrom('2031-04-01', '2031-04-02'),
        costType: fc.constantFrom(...COST_TYPES),
        amount: fc.integer({ min: -1e9, max: 1e9 }),
      }),
      { maxLength: 30 },
    );
    fc.assert(
      fc.property(costs, fc.integer({ min: -1e9, max: 1e9 }), fc.nat(1e8), (its, amount, tax) => {
        for (const one of [
          ...costJournals(its),
          receiptJournal('2031-04-01', amount),
          retentionReleaseJournal('2031-04-01', amount, tax),
        ]) {
          expect(balance(one.lines)).toBe(0);
          for (const line of one.lines) expect(Math.min(line.debit, line.credit)).toBe(0);
        }
      }),
    );
  });
});

test('the chart is in order: codes rise, and accounts of one type stand together', () => {
  const chart = Object.values(ACCOUNTS);
  expect(chart.map((it) => it.code)).toEqual(chart.map((it) => it.code).sort());
  expect([...new Set(chart.map((it) => it.type))]).toEqual([...ACCOUNT_TYPES]);
  expect(chart.filter((it, i) => chart[i - 1]?.type !== it.type)).toHaveLength(ACCOUNT_TYPES.length);
});

test('a posting that cannot be taken back says why, and what to do instead', () => {
  const fixed = Object.entries(POSTINGS).filter(([, it]) => it.irreversible !== null);
  expect(fixed.map(([kind]) => kind)).toEqual(['cost-move', 'time', 'application', 'daywork-invoice', 'credit-note', 'reversal']);
});

test('a kind of posting keeps to its own accounts; a reversal to those of what it reverses', () => {
  const toBank = [receiptJournal('2031-04-01', 100)];
  expect(POSTING_KINDS.filter((it) => foreignAccounts(it, toBank).length === 0)).toEqual(['receipt', 'reversal']);
  expect(foreignAccounts('cost-batch', toBank)).toEqual(['1000', '1100']);
});

test('a trial balance puts each balance on its side, by account', () => {
  expect(
    trialBalance([
      { account: '5010', balance: 300 },
      { account: '2900', balance: -300 },
      { account: '1000', balance: 0 },
    ]),
  ).toEqual([
    { account: '1000', name: 'Bank', debit: 0, credit: 0 },
    { account: '2900', name: 'Job cost clearing', debit: 0, credit: 300 },
    { account: '5010', name: 'Job cost, labour', debit: 300, credit: 0 },
  ]);
});

test('a proof that fails shows by how much', () => {
  // Cost of 10.00, of which the accounts have 4.00 labour and 3.00 material; a bill of 5.00 unpaid, a credit; debits 16.00, credits 15.00.
  const rows = tieOut({ 'job-cost': 1000, 'accounts-receivable': 500, 'retention-receivable': 0, 'accounts-payable': 500 }, [
    { account: '5010', debit: 600, credit: 200 },
    { account: '5020', debit: 300, credit: 0 },
    { account: '1100', debit: 500, credit: 0 },
    { account: '2100', debit: 200, credit: 700 },
    { account: '2900', debit: 0, credit: 600 },
  ]);
  expect(rows.map((row) => [row.subledger, row.ledger, row.difference])).toEqual([
    [1000, 700, 300],
    [500, 500, 0],
    [0, 0, 0],
    [500, 500, 0],
    [1600, 1500, 100],
  ]);
});

test('every cost type posts to an account of costs', () => {
  expect(Object.values(JOB_COST_ACCOUNTS).filter((it) => !POSTINGS['cost-batch'].accounts.includes(it))).toEqual([]);
});

test('each kind of posting says enough of itself for the gate and for reversals', () => {
  for (const kind of POSTING_KINDS) {
    const { title, takes, writes, accounts, irreversible } = postingOfKind(kind);
    expect([kind, title.length > 3]).toEqual([kind, true]);
    // What can be reversed is reversed by what it writes; what follows another posting says nothing of its own.
    if (irreversible === null) expect([kind, writes === null]).toEqual([kind, false]);
    if (writes === null) expect([kind, takes, accounts]).toEqual([kind, null, null]);
    // Opening cost comes with a book, of jobs in any state; whatever else is posted asks its jobs.
    else expect([kind, takes === null]).toEqual([kind, kind === 'opening-cost']);
  }
});

test('money is posted to the bank by a receipt alone', () => {
  const toBank = POSTING_KINDS.filter((kind) => postingOfKind(kind).accounts?.includes('bank'));
  expect(toBank).toEqual(['receipt']);
});
