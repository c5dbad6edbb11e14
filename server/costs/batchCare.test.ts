import { afterAll, beforeEach, expect, test } from '@jest/globals';
import type { CostLineInput } from '../../wire/costs';
import { type Database } from '../db/database';
import { reversePosting } from '../corrections/reversePosting';
import { act, reading } from '../test/act';
import { cleanUp, differences, faultsOf, reportLines, SMALL_BOOK, temporaryDatabase, TESTER } from '../test/books';
import { budgetedLines } from './budgetedLines';
import { costLedgerPage } from './costLedger';
import { postCosts } from './postCosts';
import { previewCosts } from './previewCosts';

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

test('is shown with what is unusual in it, by line', async () => {
  const { postingId } = await act(database, TESTER, postCosts, batch(cost({ reference: 'DN-881' })));
  const strange = batch(cost({ reference: 'DN-881' }), cost({ reference: 'DN-882', section: 'West', dated: '2016-02-01' }));
  const { unusual } = await previewCosts(database, TESTER, strange);
  expect(unusual.map((it) => [it.line, it.field])).toEqual([
    [0, 'reference'],
    [1, 'dated'],
    [1, 'section'],
  ]);
  // A reference of two letters is found too; lines of one document differ, and one that does not is said.
  await act(database, TESTER, postCosts, batch(cost({ reference: 'R2', party: '' })));
  const again = batch(
    cost({ reference: 'R2', party: '' }),
    cost({ reference: 'R3' }),
    cost({ reference: 'R3', amount: 1 }),
    cost({ reference: 'R3' }),
  );
  expect((await previewCosts(database, TESTER, again)).unusual.map((it) => [it.line, it.message])).toEqual([
    [0, expect.stringMatching(/^R2 is posted already, as document \d+$/)],
    [3, 'R3 of PANEL appears twice with 1,200.00'],
  ]);
  // Taken back, it may be entered again.
  await act(database, TESTER, reversePosting, postingId, { on: null, reason: 'wrong' });
  expect((await previewCosts(database, TESTER, batch(cost({ reference: 'DN-881' })))).unusual).toEqual([]);
});

test('is reversed each line on its own day, where no day is given: every month stands as before', async () => {
  const by = async () =>
    Promise.all(['2031-01-31', '2031-02-28', '2031-03-31'].map((day) => reportLines(database, 'estimate-vs-actual', day, 'J1')));
  const before = await by();
  const lines = [cost({ dated: '2031-01-20' }), cost({ dated: '2031-02-20', hours: 5000 }), cost({ amount: -700 })];
  const { postingId } = await act(database, TESTER, postCosts, batch(...lines));
  expect(await by()).not.toEqual(before);
  const reversal = await act(database, TESTER, reversePosting, postingId, { on: null, reason: 'posted twice' });
  expect(await by()).toEqual(before);
  expect(await differences(database, '2031-02-28')).toEqual(TIES);
  const { rows } = await costLedgerPage(reading(database), { asOf: '2031-03-31', posting: reversal.postingId });
  expect(rows.map((it) => [it.postedOn, it.amount, it.reverses, it.reversedBy])).toEqual([
    ['2031-01-20', -120_000, postingId, null],
    ['2031-02-20', -120_000, postingId, null],
    ['2031-03-12', 700, postingId, null],
  ]);
  const [first] = (await costLedgerPage(reading(database), { asOf: '2031-03-31', posting: postingId })).rows;
  expect([first!.reverses, first!.reversedBy]).toEqual([null, reversal.postingId]);
});

test('the budgeted lines of jobs are there to propose from, with the unit their budget is counted in', async () => {
  const more =
    'job,section,cost_code,cost_type,quantity,unit,amount\nJ2,B,200,material,40,m2,900.00\nJ2,B,200,material,2,pallets,90.00\n';
  expect(await faultsOf(database, { budget: more })).toEqual([]);
  expect(
    await faultsOf(database, { budget: 'job,section,cost_code,cost_type,quantity,unit,amount\nJ2,,100,material,8,m2,80.00\n' }),
  ).toEqual([]);
  expect(await budgetedLines(reading(database), 'J1,J2,J9', '2031-03-31')).toEqual([
    { job: 'J1', section: 'A', costCode: '100', costType: 'labour', unit: '' },
    { job: 'J1', section: 'A', costCode: '200', costType: 'material', unit: '' },
    { job: 'J2', section: '', costCode: '100', costType: 'material', unit: 'm2' },
    // Counted in two units, it has none.
    { job: 'J2', section: 'B', costCode: '200', costType: 'material', unit: '' },
  ]);
});

test('what is left of a line by quantity is shown before the batch is posted, with its unit; of a line that is not counted, nothing', async () => {
  const budget = 'job,section,cost_code,cost_type,quantity,unit,amount\nJ2,B,200,material,40,m2,900.00\n';
  expect(await faultsOf(database, { budget })).toEqual([]);
  const lines = [cost({ job: 'J2', section: 'B', quantity: 300_000 }), cost({ reference: 'D8' })];
  const { lines: after } = await previewCosts(database, TESTER, batch(...lines));
  expect(after.map((it) => [it.section, it.quantityLeft])).toEqual([
    ['B', { left: 100_000, unit: 'm2' }],
    ['A', null],
  ]);
  const more = await previewCosts(database, TESTER, batch(cost({ job: 'J2', section: 'B', quantity: 450_000 })));
  expect(more.lines[0]?.quantityLeft).toEqual({ left: -50_000, unit: 'm2' });
});
