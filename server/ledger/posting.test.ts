import { query } from '../db/query';
import { shape, t } from '../db/fields';
import { act, reading } from '../test/act';
import { afterAll, beforeEach, describe, expect, test } from '@jest/globals';
import type { CostLineInput } from '../../wire/costs';
import { type Database } from '../db/database';
import { cleanUp, differences, everything, faultsOf, reportLines, SMALL_BOOK, temporaryDatabase, TESTER } from '../test/books';
import { saveApplication, setSubmitted, startApplication } from '../billing/applications';
import { certifyApplication, previewCertification } from '../billing/certify';
import { applicationView } from '../billing/applicationView';
import { postingJournals } from './postingViews';
import { postCosts } from '../costs/postCosts';
import { previewCosts } from '../costs/previewCosts';
import { recordReceipt, releaseRetention } from '../billing/receipts';
import { reversePosting } from '../corrections/reversePosting';

const TIES = ['0.00', '0.00', '0.00', '0.00', '0.00'];
let database: Database;

beforeEach(async () => {
  database = await temporaryDatabase();
  expect(await faultsOf(database, SMALL_BOOK)).toEqual([]);
});
afterAll(cleanUp);

const cost = (more: Partial<CostLineInput> = {}): CostLineInput => ({
  dated: '2031-03-12',
  job: 'J1',
  section: 'A',
  costCode: '200',
  costType: 'material',
  party: 'PANEL',
  reference: 'D7',
  hours: null,
  amount: 120_000,
  description: '',
  commitment: '',
  uninstalled: false,
  ...more,
});
const batch = (...lines: CostLineInput[]) => ({ lines, asOf: '2031-03-31' });
const material = async () =>
  (await reportLines(database, 'estimate-vs-actual', '2031-03-31', 'J1')).find((line) => line.startsWith('A,200'));

describe('a batch of costs', () => {
  test('posts entries, journal and audit together, and the books tie', async () => {
    const posted = await act(
      database,
      TESTER,
      postCosts,
      batch(cost(), cost({ dated: '2031-03-20', commitment: 'PO1/1', amount: 20_000 })),
    );
    expect(posted).toMatchObject({ entries: 2, total: 140_000 });
    // Material: 1,800 + 1,400 spent, of the order 200 more is invoiced: open 300. 3,500 passes the budget of 2,900.
    expect(await material()).toBe('A,200,material,2500.00,400.00,2900.00,3200.00,300.00,3500.00,-600.00,0,0,yes');
    expect(await differences(database, '2031-03-31')).toEqual(TIES);
    const audit = await reading(database).get(
      query(shape({ actor: t.text, command: t.text }), 'SELECT actor, command FROM audit ORDER BY id DESC'),
    );
    expect(audit).toEqual({ actor: 'tester', command: 'post-costs' });
  });

  test('is previewed exactly as it will post, and the preview keeps nothing', async () => {
    const before = await everything(database);
    const preview = await previewCosts(
      database,
      TESTER,
      batch(cost(), cost({ costCode: '900', costType: 'other', amount: 100 })),
    );
    expect(await everything(database)).toBe(before);
    // 2,900 revised − (1,800 + 1,200 spent + 500 open) = −600.00.
    expect(preview.lines.map((it) => [it.costCode, it.before, it.after, it.remaining, it.warning])).toEqual([
      ['200', 180_000, 300_000, -60_000, 'Over budget by 600.00, open commitments included'],
      ['900', 7550, 7650, -7650, 'No budget for this line'],
    ]);
    expect(preview.journals[0]!.lines.map((it) => [it.account, it.debit - it.credit])).toEqual([
      ['5020', 120_000],
      ['5050', 100],
      ['2900', -120_100],
    ]);
    await act(database, TESTER, postCosts, batch(cost(), cost({ costCode: '900', costType: 'other', amount: 100 })));
    const [row] = await reportLines(database, 'wip', '2031-03-31');
    expect(row!.split(',')[4]).toBe(
      `${String(preview.jobs[0]!.estimate[1]).slice(0, -2)}.${String(preview.jobs[0]!.estimate[1]).slice(-2)}`,
    );
  });

  test('with a fault in one line posts none of them', async () => {
    const before = await everything(database);
    await expect(
      act(database, TESTER, postCosts, batch(cost(), cost({ job: 'J8' }), cost({ costCode: 'x', commitment: 'PO1/9' }))),
    ).rejects.toMatchObject({
      faults: [{ field: 'lines.1.job' }, { field: 'lines.2.costCode' }, { field: 'lines.2.commitment' }],
    });
    expect(await everything(database)).toBe(before);
  });

  test('is reversed by a posting that names it, and only once', async () => {
    const unreversed = await material();
    const { postingId } = await act(
      database,
      TESTER,
      postCosts,
      batch(cost({ uninstalled: true }), cost({ commitment: 'PO1/1', amount: 5000, hours: 10_000 })),
    );
    const reversal = await act(database, TESTER, reversePosting, postingId, { on: '2031-03-25', reason: 'wrong job' });
    expect(reversal.total).toBe(-125_000);
    expect(await material()).toBe(unreversed);
    expect(await differences(database, '2031-03-31')).toEqual(TIES);
    await expect(act(database, TESTER, reversePosting, postingId, { on: null, reason: 'again' })).rejects.toThrow(
      /reversed already/,
    );
    await expect(act(database, TESTER, reversePosting, reversal.postingId, { on: null, reason: 'back' })).rejects.toThrow(
      /cannot be reversed/,
    );
  });

  test.each([
    ['cost_entry', 'UPDATE cost_entry SET amount = 1'],
    ['journal_line', 'DELETE FROM journal_line'],
    ['posting', 'DELETE FROM posting'],
    ['audit', 'UPDATE audit SET actor = 1'],
    ['a certified application', 'UPDATE application SET gross = 1 WHERE number = 1'],
  ])('what is posted in %s cannot be changed', async (_, sql) => {
    await expect(database.write((inside) => inside.run(sql))).rejects.toMatchObject({
      parent: { message: expect.stringMatching(/never/) },
    });
  });
});

describe('an application from start to paid', () => {
  test('worked by hand: certified for less, the rest asked for again', async () => {
    const certified = { version: null, on: '2031-04-05', lines: [{ line: '1', work: 450_000, materials: 0 }] };
    const shown = await database.read((sql) => previewCertification(sql, 'J1', 3, certified));
    const postingId = await act(database, TESTER, certifyApplication, 'J1', 3, certified);
    // What was shown before is what was posted, and what the application comes to now.
    expect([shown.journal]).toEqual(await postingJournals(reading(database), postingId));
    expect(shown.summary).toEqual((await applicationView(reading(database), 'J1', 3, '2031-04-30')).summary);
    expect(shown.summary).toMatchObject({ gross: 675_000, due: 137_750, payable: 165_300 });
    // Certified 4,500 + 2,000 + 250 = 6,750.00; net 6,412.50; less 5,035.00 = 1,377.50; tax 275.50.
    const three = Object.fromEntries(
      (await reportLines(database, 'application-summary', '2031-04-30', 'J1', 3)).map((line) => line.split(',')),
    );
    expect(three).toMatchObject({
      gross_to_date: '6750.00',
      retention: '337.50',
      due: '1377.50',
      tax: '275.50',
      payable: '1653.00',
      retention_released: '100.00',
      balance_to_complete: '4487.50',
    });
    expect(await act(database, TESTER, startApplication, 'J1', { dated: '2031-04-30', reference: 'A4', bySchedule: false })).toBe(
      4,
    );
    // It opens with the certified figures; line 1 goes on to 5,000.00.
    await act(database, TESTER, saveApplication, 'J1', 4, {
      version: null,
      dated: '2031-04-30',
      reference: 'A4',
      lines: [
        { line: '1', work: 500_000, materials: 0 },
        { line: '2', work: 200_000, materials: 0 },
        { line: '3', work: 25_000, materials: 10_000 },
      ],
    });
    await act(database, TESTER, setSubmitted, 'J1', 4, true);
    await act(database, TESTER, certifyApplication, 'J1', 4, { version: null, on: '2031-05-06', lines: [] });
    // 500 more on line 1 and 100 on site: 600.00 less 5 % = 570.00, with tax 684.00.
    await act(database, TESTER, recordReceipt, 'J1', '4', { dated: '2031-05-20', amount: 68_400, reference: 'B4' });
    await expect(
      act(database, TESTER, recordReceipt, 'J1', '4', { dated: '2031-05-21', amount: 1, reference: '' }),
    ).rejects.toThrow(/more than the 0.00 outstanding/);
    expect(await differences(database, '2031-05-31')).toEqual(TIES);
    expect((await reportLines(database, 'ageing', '2031-05-31')).map((line) => line.split(',').slice(2, 3)[0])).toEqual([
      '2',
      'Part release',
      '3',
      '4',
      '',
    ]);
  });

  test('overbilling a line is refused with its figure, and nothing is kept', async () => {
    await act(database, TESTER, setSubmitted, 'J1', 3, false);
    const before = await everything(database);
    await expect(
      act(database, TESTER, saveApplication, 'J1', 3, {
        version: null,
        dated: '2031-03-31',
        reference: '',
        lines: [{ line: '2', work: 390_000, materials: 11_050 }],
      }),
    ).rejects.toMatchObject({
      message: 'Line 2 would pass its scheduled value by 10.50. Bill 4,000.00 or less to date',
      faults: [{ field: 'lines.0.materials' }],
    });
    expect(await everything(database)).toBe(before);
  });

  test('a line billed before is stated again, if at nothing; one that is not named stays as it was saved', async () => {
    await act(database, TESTER, setSubmitted, 'J1', 3, false);
    await act(database, TESTER, saveApplication, 'J1', 3, {
      version: null,
      dated: '2031-03-31',
      reference: '',
      lines: [
        { line: '1', work: 500_000, materials: 0 },
        { line: '2', work: 0, materials: 0 },
      ],
    });
    const rows = await reading(database).anyRows(
      'SELECT s.line, l.work FROM application_line l JOIN sov_line s ON s.id = l.sov_line_id JOIN application a ON a.id = l.application_id WHERE a.number = 3 ORDER BY s.line',
    );
    expect(rows).toEqual([
      { line: '1', work: 500_000 },
      { line: '2', work: 0 },
      { line: '3', work: 25_000 },
    ]);
  });

  test.each([
    [
      'certified twice',
      () => act(database, TESTER, certifyApplication, 'J1', 2, { version: null, on: '2031-04-05', lines: [] }),
      /only a submitted one/,
    ],
    [
      'certified before its date',
      () => act(database, TESTER, certifyApplication, 'J1', 3, { version: null, on: '2031-03-30', lines: [] }),
      /before the application/,
    ],
    [
      'started while one waits',
      () => act(database, TESTER, startApplication, 'J1', { dated: '2031-04-30', reference: '', bySchedule: false }),
      /Application 3 is submitted/,
    ],
    [
      'started on a tender',
      () => act(database, TESTER, startApplication, 'J2', { dated: '2031-04-30', reference: '', bySchedule: false }),
      /tender/,
    ],
    [
      'certified below what was released',
      () =>
        act(database, TESTER, certifyApplication, 'J1', 3, {
          version: null,
          on: '2031-04-05',
          lines: [
            { line: '1', work: 0, materials: 0 },
            { line: '2', work: 0, materials: 0 },
          ],
        }),
      /below the 100.00 already released/,
    ],
    [
      'released beyond what is held',
      () => act(database, TESTER, releaseRetention, 'J1', { dated: '2031-04-30', amount: 16_501, reference: 'R' }),
      /more than the 165.00 held/,
    ],
    [
      'received before certification',
      () => act(database, TESTER, recordReceipt, 'J1', '2', { dated: '2031-02-27', amount: 1, reference: '' }),
      /before the invoice was certified/,
    ],
  ])('is refused: %s', async (_, act, message) => {
    const before = await everything(database);
    await expect(act()).rejects.toThrow(message);
    expect(await everything(database)).toBe(before);
  });

  test('a release taken back leaves nothing open and all retention held', async () => {
    await act(database, TESTER, releaseRetention, 'J1', { dated: '2031-04-01', amount: 16_500, reference: 'Rest' });
    const posting = await reading(database).get(
      query(shape({ id: t.whole }), `SELECT posting_id AS id FROM retention_release WHERE reference = 'Rest'`),
    );
    await act(database, TESTER, reversePosting, posting!.id, { on: '2031-04-02', reason: 'not agreed' });
    expect((await reportLines(database, 'ageing', '2031-04-30')).map((line) => line.split(',').slice(2, 3)[0])).toEqual([
      '2',
      'Part release',
      '',
    ]);
    expect((await reportLines(database, 'ageing', '2031-04-30'))[0]!.split(',')[10]).toBe('165.00');
    expect(await differences(database, '2031-04-30')).toEqual(TIES);
  });

  test('a receipt taken back opens the invoice again', async () => {
    const posting = await act(database, TESTER, recordReceipt, 'J1', '2', {
      dated: '2031-04-01',
      amount: 196_400,
      reference: '',
    });
    await act(database, TESTER, reversePosting, posting, { on: null, reason: 'bounced' });
    expect((await reportLines(database, 'ageing', '2031-04-30'))[0]!.split(',')[11]).toBe('2129.00');
    expect(await differences(database, '2031-04-30')).toEqual(TIES);
  });
});
