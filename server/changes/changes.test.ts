import { act, reading } from '../test/act';
import { afterAll, beforeEach, describe, expect, test } from '@jest/globals';
import type { ChangeInput, DecideChangeInput } from '../../wire/changes';
import type { Database } from '../db/database';
import { changeRegister, jobChanges, jobTransfers, loadChange } from './changeViews';
import { applicationView } from '../billing/applicationView';
import { jobView } from '../screens/jobView';
import { cleanUp, differences, everything, faultsOf, reportLines, SMALL_BOOK, temporaryDatabase, TESTER } from '../test/books';
import { startApplication } from '../billing/applications';
import { certifyApplication } from '../billing/certify';
import { viewChange } from './changeEffect';
import { deleteChange, saveChange } from './changes';
import { agreeChange, decideChange, issueChange } from './decideChange';
import { transferBudget } from '../budget/transfers';

afterAll(cleanUp);

let database: Database;
beforeEach(async () => {
  database = await temporaryDatabase();
  expect(await faultsOf(database, SMALL_BOOK)).toEqual([]);
});

const plain = { quantity: null, unit: '' };
/** Asks 1,300.00 and 14 days: a new line 4 at 1,500.00, line 1 less by 200.00; 500.00 and 20 h of labour, 300.00 of other cost. */
const change = (more: Partial<ChangeInput> = {}): ChangeInput => ({
  version: 0,
  number: 'C3',
  title: 'Canopy',
  raisedOn: '2031-03-20',
  reference: '',
  reason: 'Asked on site',
  askedBy: 'Mr Hale',
  daysAsked: 14,
  price: [
    { ...plain, line: '4', section: 'B', description: 'Canopy', amount: 150_000 },
    { ...plain, line: '1', section: '', description: '', amount: -20_000 },
  ],
  cost: [
    {
      ...plain,
      section: 'A',
      costCode: '100',
      costType: 'labour',
      sovLine: '4',
      description: 'Fix',
      hours: 200_000,
      amount: 50_000,
    },
    {
      ...plain,
      section: 'B',
      costCode: '900',
      costType: 'other',
      sovLine: '4',
      description: 'Permit',
      hours: null,
      amount: 30_000,
    },
  ],
  ...more,
});
const decision = (more: Partial<DecideChangeInput> = {}): DecideChangeInput => ({
  status: 'approved',
  on: '2031-04-10',
  by: 'Mr Hale',
  note: '',
  agreed: null,
  daysGranted: null,
  ...more,
});
const issued = async () => {
  await act(database, TESTER, saveChange, 'J1', change(), null);
  await act(database, TESTER, issueChange, 'J1', 'C3', '2031-03-22');
};
const wip = async (on: string) => (await reportLines(database, 'wip', on, 'J1'))[0]!.split(',').slice(3, 6);

describe('a change order', () => {
  test('shows what it would do before it goes out, and does nothing by that', async () => {
    await act(database, TESTER, saveChange, 'J1', change(), null);
    const before = await everything(database);
    // Estimate: labour by forecast 2,250 ÷ 60 % = 3,750; material 2,900; unbudgeted 75.50: 6,725.50. With it 500.00 and 300.00 more.
    // Contract 11,000 → 12,300: profit 4,274.50 → 4,774.50. Margin 38.8591 % → 38.8171 %.
    const { effect } = await viewChange(database, 'J1', 'C3', '2031-04-30');
    expect(effect).toEqual({
      contractSum: [1_100_000, 1_230_000],
      estimate: [672_550, 752_550],
      profit: [427_450, 477_450],
      margin: [388_591, 388_171],
      finish: [null, null],
    });
    // Looked at from a day before it was raised (20 March), both sides are of the day it was: what is between is no effect of it.
    const [early, onTheDay] = [
      await viewChange(database, 'J1', 'C3', '2031-02-28'),
      await viewChange(database, 'J1', 'C3', '2031-03-20'),
    ];
    expect(early.effect).toEqual(onTheDay.effect);
    expect(early.effect!.estimate[1] - early.effect!.estimate[0]).toBe(80_000);
    expect(await everything(database)).toBe(before);
    expect((await jobView(reading(database), 'J1', '2031-04-30')).sov.map((it) => it.line)).toEqual(['1', '2', '3']);
  });

  test('approved for less counts from its day and not before, spread to the penny; the next application offers its lines', async () => {
    await issued();
    // 1,000.00 of 1,300.00: 1,500 ÷ 1,300 × 1,000 = 1,153.846… and −153.846…: 1,153.85 and −153.85.
    await act(database, TESTER, decideChange, 'J1', 'C3', decision({ agreed: 100_000, daysGranted: 10 }));
    expect((await wip('2031-04-09')).slice(0, 2)).toEqual(['11000.00', '6725.50']);
    expect((await wip('2031-04-10')).slice(0, 2)).toEqual(['12000.00', '7525.50']);
    const sov = (await jobView(reading(database), 'J1', '2031-04-30')).sov;
    expect(sov.map((it) => [it.line, it.changes, it.scheduledToDate])).toEqual([
      ['1', -15_385, 584_615],
      ['2', 0, 400_000],
      ['3', 100_000, 100_000],
      ['4', 115_385, 115_385],
    ]);
    expect((await jobChanges(reading(database), 'J1', '2031-04-09')).at(-1)).toMatchObject({
      status: 'issued',
      price: 130_000,
      decidedBy: '',
    });
    expect((await jobChanges(reading(database), 'J1', '2031-04-10')).at(-1)).toMatchObject({
      status: 'approved',
      asked: 130_000,
      price: 100_000,
      daysGranted: 10,
      decidedBy: 'Mr Hale',
    });
    await act(database, TESTER, certifyApplication, 'J1', 3, { version: null, on: '2031-04-15', lines: [] });
    expect((await applicationView(reading(database), 'J1', 3, '2031-04-30')).lines.map((it) => it.line)).toEqual(['1', '2', '3']);
    await act(database, TESTER, startApplication, 'J1', { dated: '2031-04-30', reference: '', bySchedule: false });
    const next = await applicationView(reading(database), 'J1', 4, '2031-04-30');
    expect(next.lines.map((it) => [it.line, it.scheduled])).toEqual(sov.map((it) => [it.line, it.scheduledToDate]));
    expect(await differences(database, '2031-04-30')).toEqual(['0.00', '0.00', '0.00', '0.00', '0.00']);
  });

  test('agreed already, it is raised, issued and approved in one step, or not at all', async () => {
    const before = await everything(database);
    const agreed = { change: change(), was: null, on: '2031-04-10', by: 'Mr Hale' };
    await expect(act(database, TESTER, agreeChange, 'J1', { ...agreed, on: '2031-03-01' })).rejects.toThrow(
      /before it was raised/,
    );
    expect(await everything(database)).toBe(before);
    await act(database, TESTER, agreeChange, 'J1', agreed);
    expect((await jobChanges(reading(database), 'J1', '2031-04-10')).at(-1)).toMatchObject({
      status: 'approved',
      price: 130_000,
      decidedBy: 'Mr Hale',
      decidedOn: '2031-04-10',
    });
  });

  test('decided, it is altered by another change only; approving behind an application is refused', async () => {
    await act(database, TESTER, saveChange, 'J1', change(), null);
    await expect(act(database, TESTER, decideChange, 'J1', 'C3', decision())).rejects.toThrow(/C3 is a draft; only an issued/);
    await act(database, TESTER, issueChange, 'J1', 'C3', '2031-03-22');
    const before = await everything(database);
    for (const [attempt, field] of [
      [decision({ on: '2031-03-31' }), 'on'],
      [decision({ on: '2031-03-21' }), 'on'],
      [decision({ agreed: 130_001 }), 'agreed'],
      [decision({ agreed: -1 }), 'agreed'],
    ] as const)
      await expect(act(database, TESTER, decideChange, 'J1', 'C3', attempt)).rejects.toMatchObject({ faults: [{ field }] });
    await expect(act(database, TESTER, saveChange, 'J1', change({ version: 1 }), 'C3')).rejects.toThrow(
      /only a draft can be changed; raise another/,
    );
    expect(await everything(database)).toBe(before);
    await act(database, TESTER, decideChange, 'J1', 'C3', decision());
    await expect(act(database, TESTER, saveChange, 'J1', change({ version: 1 }), 'C3')).rejects.toThrow(
      /only a draft can be (changed; raise another change order|deleted)/,
    );
    await expect(act(database, TESTER, deleteChange, 'J1', 'C3')).rejects.toThrow(
      /only a draft can be (changed; raise another change order|deleted)/,
    );
    await expect(database.write((sql) => sql.run('UPDATE change_order_line SET amount = 1'))).rejects.toThrow();
  });

  test('rejected or withdrawn, it is in no report; a draft thrown away takes its new line with it', async () => {
    await issued();
    const now = await wip('2031-04-30');
    await act(database, TESTER, decideChange, 'J1', 'C3', decision({ status: 'withdrawn', note: 'Done by others' }));
    expect(await wip('2031-04-30')).toEqual(now);
    expect((await jobView(reading(database), 'J1', '2031-04-30')).pendingChanges).toBe(70_000);
    await act(
      database,
      TESTER,
      saveChange,
      'J1',
      change({ number: 'C4', price: [{ ...plain, line: '9', section: '', description: 'New', amount: 5 }] }),
      null,
    );
    await act(database, TESTER, deleteChange, 'J1', 'C4');
    expect(await reading(database).anyRows(`SELECT line FROM sov_line WHERE line IN ('4', '9')`)).toEqual([{ line: '4' }]);
  });

  test('saved by two, the second is told; faults name row and field', async () => {
    await act(database, TESTER, saveChange, 'J1', change(), null);
    expect(await act(database, TESTER, saveChange, 'J1', change({ version: 1, number: 'C5', title: 'Canopies' }), 'C3')).toBe(2);
    await expect(act(database, TESTER, saveChange, 'J1', change({ version: 1, number: 'C5' }), 'C5')).rejects.toThrow(
      /^tester saved C5 at 09:00/,
    );
    const { price, cost } = change();
    const bad = change({
      number: 'C1',
      price: [price[0]!, price[0]!, { ...price[0]!, line: '8', description: '' }],
      cost: [{ ...cost[0]!, costCode: '777', sovLine: '99' }],
    });
    await expect(act(database, TESTER, saveChange, 'J1', bad, null)).rejects.toMatchObject({
      faults: ['price.1.line', 'price.2.description', 'cost.0.costCode', 'cost.0.sovLine', 'number'].map((field) => ({ field })),
    });
    expect((await loadChange(reading(database), 'J1', 'C5')).priceLines.map((it) => [it.line, it.isNew])).toEqual([
      ['4', true],
      ['1', false],
    ]);
  });

  test('the register tells age, price at risk and what is already spent on what is not agreed', async () => {
    await issued();
    // 75.50 was spent on A/900 without budget; C4 names that line for 60.00: all of these are spent already.
    await act(
      database,
      TESTER,
      saveChange,
      'J1',
      change({ number: 'C4', price: [], cost: [{ ...change().cost[1]!, section: 'A', sovLine: '', amount: 6_000 }] }),
      null,
    );
    expect(
      (await changeRegister(reading(database), '2031-04-30')).map((it) => [it.number, it.status, it.age, it.price, it.spent]),
    ).toEqual([
      ['C1', 'approved', null, 100_000, 0],
      ['C2', 'issued', null, 70_000, 0],
      ['C3', 'issued', 39, 130_000, 0],
      ['C4', 'draft', null, 0, 6_000],
    ]);
  });
});

describe('a transfer of budget', () => {
  const line = { section: 'A', hours: null };
  const lines = (amount: number, back: number) => [
    { ...line, costCode: '200', costType: 'material' as const, amount },
    { ...line, costCode: '100', costType: 'labour' as const, amount: back, hours: 20_000 },
  ];

  test('comes to nothing, has a reason, and moves the estimate of both lines from its day on', async () => {
    await expect(
      act(database, TESTER, transferBudget, 'J1', { dated: '2031-04-05', reason: 'r', lines: lines(-10_000, 9_999) }),
    ).rejects.toThrow(/out by −0.01/);
    expect(
      await act(database, TESTER, transferBudget, 'J1', {
        dated: '2031-04-05',
        reason: 'Crew does it',
        lines: lines(-10_000, 10_000),
      }),
    ).toBe(1);
    const row = async (on: string, type: string) =>
      (await reportLines(database, 'estimate-vs-actual', on, 'J1')).find((it) => it.includes(`,${type},`))!.split(',');
    // Labour by forecast of 28 February, 3,750.00, and 100.00 moved since; material 2,900.00 less 100.00.
    expect((await row('2031-04-05', 'labour')).slice(3)).toEqual([
      '3600.00',
      '100.00',
      '3700.00',
      '2250.00',
      '0.00',
      '3850.00',
      '-150.00',
      '122',
      '90',
      'yes',
    ]);
    expect((await row('2031-04-05', 'material')).slice(3, 9)).toEqual([
      '2500.00',
      '300.00',
      '2800.00',
      '1800.00',
      '500.00',
      '2800.00',
    ]);
    expect((await row('2031-04-04', 'labour'))[4]).toBe('0.00');
    expect(await jobTransfers(reading(database), 'J1', '2031-04-30')).toMatchObject([
      {
        number: 1,
        dated: '2031-04-05',
        reason: 'Crew does it',
        actor: 'tester',
        lines: [{ amount: -10_000 }, { amount: 10_000, hours: 20_000 }],
      },
    ]);
    await expect(database.write((sql) => sql.run('UPDATE budget_transfer_line SET amount = 1'))).rejects.toThrow();
  });

  test('before the award, on an unknown code or a locked job it is refused', async () => {
    await expect(
      act(database, TESTER, transferBudget, 'J1', {
        dated: '2031-01-04',
        reason: 'r',
        lines: [{ ...lines(5, -5)[0]!, costCode: '9' }, lines(5, -5)[1]!],
      }),
    ).rejects.toMatchObject({ faults: [{ field: 'lines.0.costCode' }, { field: 'dated' }] });
    await database.write((sql) => sql.run('UPDATE job SET locked = 1'));
    await expect(
      act(database, TESTER, transferBudget, 'J1', { dated: '2031-04-05', reason: 'r', lines: lines(5, -5) }),
    ).rejects.toThrow(/locked/);
    await expect(act(database, TESTER, saveChange, 'J1', change(), null)).rejects.toThrow(/locked/);
  });

  test.each([
    [
      'that does not net to zero',
      '1,2031-04-05,r,A,200,material,5\nJ1,1,2031-04-05,r,A,100,labour,-4',
      'budget_transfers:3:amount',
    ],
    ['of two days', '1,2031-04-05,r,A,200,material,5\nJ1,1,2031-04-06,r,A,100,labour,-5', 'budget_transfers:3:dated'],
  ])('in a book, one %s is a fault', async (_what, rows, fault) => {
    const book = {
      ...SMALL_BOOK,
      budget_transfers: `job,transfer,dated,reason,section,cost_code,cost_type,amount\nJ1,${rows}\n`,
    };
    expect(await faultsOf(await temporaryDatabase(), book)).toEqual([fault]);
  });
});
