import { afterAll, beforeEach, expect, test } from '@jest/globals';
import type { Database } from '../db/database';
import { recordReceipt } from '../billing/receipts';
import { saveMarks } from '../charging/saveMarks';
import { markupsOfJob, saveMarkups } from '../charging/saveMarkups';
import { postCosts } from '../costs/postCosts';
import { saveJobFacts } from '../jobFile/jobFile';
import { jobFileView } from '../jobFile/jobFileView';
import { restrictJob } from '../jobs/restricted';
import { closeBooks } from '../ledger/closing';
import { act, reading } from '../test/act';
import {
  cleanUp,
  databaseOf,
  differences,
  reportLines,
  savingNothing,
  temporaryDatabase,
  faultsOf,
  TESTER,
  type BookText,
} from '../test/books';
import { exportedBook } from '../test/wholeBook';
import { digestOf } from '../versions/digest';
import { creditDaywork, deleteDraft, issueDraft } from './creditDaywork';
import { dayworkView } from './dayworkView';
import { issueRun, previewRun } from './runDaywork';
import { jobCharging, unbilledJobs } from './unbilled';

afterAll(cleanUp);

/*
 * Job C is charged, material with 20 %, and at most 1,000.00. Job F has a contract. 100.00, 200.00 and 300.00 of material on C: 120.00,
 * 240.00 and 360.00.
 */
const BOOK: BookText = {
  company: 'name,currency,tax_name,tax_percent\nAldergate Cladding,GBP,VAT,20\n',
  customers: 'customer,name\nNORTH,Northbeck Estates\n',
  cost_codes: 'cost_code,description\n200,Panels\n',
  jobs: 'job,name,customer,awarded_on,pricing,charge_ceiling\nC,Repairs,NORTH,2031-01-05,charged,1000.00\nF,Mill,NORTH,2031-01-05,,\nT,Tender,NORTH,2031-01-05,,\n',
  schedule_of_values: 'job,sov_line,description,scheduled_value\nF,1,Panels,1000.00\n',
  daywork_terms: 'job,cost_type,markup_percent\nC,material,20\n',
  costs:
    'dated,job,cost_code,cost_type,reference,amount\n2031-02-10,C,200,material,R1,100.00\n2031-02-11,C,200,material,R2,200.00\n2031-03-05,C,200,material,R3,300.00\n2031-02-12,F,200,material,M1,50.00\n',
};
let books: Database;
beforeEach(async () => {
  books = await databaseOf(BOOK);
});

const idOf = async (job: string, reference: string, show: 'unbilled' | 'others' = 'unbilled') =>
  (await jobCharging(reading(books), job, '2031-12-31', show)).entries.find((it) => it.reference === reference)!.id;
const one = (job: string, entries: readonly number[] | null = null, reference = '') => ({
  job,
  reference,
  shown: 'entries' as const,
  wording: '',
  entries: entries === null ? null : [...entries],
});
async function issue(dated: string, ...invoices: ReturnType<typeof one>[]) {
  const run = { dated, cutOff: dated, invoices };
  const { seen } = await previewRun(reading(books), run);
  return act(books, TESTER, issueRun, { ...run, seen });
}
const refused = (work: () => Promise<unknown>, why: RegExp) => savingNothing(books, () => expect(work()).rejects.toThrow(why));
const balance = async (on: string) => expect(await differences(books, on)).toEqual(['0.00', '0.00', '0.00', '0.00', '0.00']);

test('three invoices of a charged job: one credited in part, one in full and invoiced again; never more than the ceiling', async () => {
  expect((await unbilledJobs(reading(books), '2031-02-28'))[0]).toMatchObject({
    job: 'C',
    entries: 2,
    cost: 30_000,
    charge: 36_000,
  });
  await issue('2031-02-28', one('C'));
  // 120.00 + 240.00, 72.00 tax. 60.00 of it credited with 12.00 of tax: 360.00 are left to pay.
  await act(books, TESTER, creditDaywork, 'C', 'D-1', {
    dated: '2031-03-02',
    amount: 6000,
    creditNote: 'CN-1',
    reason: 'Agreed',
  });
  expect(await dayworkView(reading(books), 'C', 'D-1', '2031-03-31')).toMatchObject({ amount: 36_000, tax: 7200, open: 36_000 });
  await issue('2031-03-31', one('C'));
  await act(books, TESTER, creditDaywork, 'C', 'D-2', {
    dated: '2031-04-01',
    amount: null,
    creditNote: 'CN-2',
    reason: 'Wrong words',
  });
  const again = await issue('2031-04-02', one('C'));
  expect(again.invoices).toEqual([{ job: 'C', reference: 'D-3', payable: 43_200 }]);
  // 300.00 and 360.00 are invoiced; 340.00 are left under 1,000.00. 283.33 with 20 % are 340.00 (339.996), a penny more is 340.01.
  const cost = (amount: number, reference: string) => ({
    dated: '2031-04-05',
    job: 'C',
    section: '',
    costCode: '200',
    costType: 'material' as const,
    party: '',
    reference,
    hours: null,
    amount,
    description: '',
    commitment: '',
    uninstalled: false,
  });
  await act(books, TESTER, postCosts, { lines: [cost(28_333, 'R4'), cost(1, 'R5')], asOf: '2031-04-30' });
  await refused(
    () => previewRun(reading(books), { dated: '2031-04-30', cutOff: '2031-04-30', invoices: [one('C')] }),
    /ceiling.*leave out 0\.01/,
  );
  await issue('2031-04-30', one('C', [await idOf('C', 'R4')]));
  expect((await reportLines(books, 'wip', '2031-04-30'))[0]).toContain(',1000.00,116.66,1000.00,0.00,');
  for (const on of ['2031-02-28', '2031-03-02', '2031-03-31', '2031-04-01', '2031-04-30']) await balance(on);
  const copy = await temporaryDatabase();
  const book = await exportedBook(books);
  expect(await faultsOf(copy, book)).toEqual([]);
  expect(await exportedBook(copy)).toEqual(book);
  expect(await reportLines(copy, 'ageing', '2031-04-30')).toEqual(await reportLines(books, 'ageing', '2031-04-30'));
});

test('what was shown is issued or nothing: an entry marked otherwise, taken by somebody else, or reversed meanwhile is told', async () => {
  const run = { dated: '2031-03-31', cutOff: '2031-03-31', invoices: [one('C')] };
  const { seen } = await previewRun(reading(books), run);
  await act(books, TESTER, saveMarks, 'C', { entries: [await idOf('C', 'R2')], mark: 'hold' });
  await refused(() => act(books, TESTER, issueRun, { ...run, seen }), /changed since it was previewed/);
  const now = await previewRun(reading(books), run);
  expect([now.invoices[0]!.amount, now.notReady]).toEqual([
    48_000,
    [{ job: 'C', jobName: 'Repairs', entries: 1, charge: 24_000, why: 'held' }],
  ]);
  const [first, third] = [await idOf('C', 'R1'), await idOf('C', 'R3')];
  const mine = { dated: '2031-03-31', cutOff: '2031-03-31', invoices: [one('C', [first, third], 'X')] };
  const mineSeen = (await previewRun(reading(books), mine)).seen;
  await issue('2031-03-31', one('C', [first]));
  await refused(() => act(books, TESTER, issueRun, { ...mine, seen: mineSeen }), /R1 is on invoice D-1 already/);
  await refused(
    () => act(books, TESTER, saveMarks, 'C', { entries: [first], mark: 'no' }),
    /on invoice D-1; credit that in full first/,
  );
});

test('a mark, a markup of an entry and the words of it; markups of the job leave what is invoiced as it is', async () => {
  const id = await idOf('F', 'M1', 'others');
  await act(books, TESTER, saveMarks, 'F', {
    entries: [id],
    mark: 'yes',
    from: '2031-03-01',
    markup: 100_000,
    wording: 'Panel replaced',
  });
  expect((await unbilledJobs(reading(books), '2031-02-28')).map((it) => it.job)).toEqual(['C']);
  const { invoices } = await previewRun(reading(books), { dated: '2031-03-31', cutOff: '2031-03-31', invoices: [one('F')] });
  expect(invoices[0]).toMatchObject({ amount: 5500, lines: [{ words: 'Panel replaced', charge: 5500 }] });
  await issue('2031-03-31', one('C'));
  const seen = digestOf(await markupsOfJob(reading(books), 1));
  await refused(
    () => act(books, TESTER, saveMarkups, 'C', { seen, markups: [{ costType: 'material', markup: 150_000 }] }),
    /would alter what 3 invoiced entries are charged at/,
  );
  await act(books, TESTER, saveMarkups, 'F', { seen: digestOf([]), markups: [{ costType: 'material', markup: 300_000 }] });
  // Its own markup stays.
  expect((await unbilledJobs(reading(books), '2031-03-31')).find((it) => it.job === 'F')).toMatchObject({ charge: 5500 });
});

test('credit beyond the invoice, before it, below what is received, or twice is refused; so is money on what is credited', async () => {
  await issue('2031-02-28', one('C'));
  const credit = (dated: string, amount: number | null, creditNote = 'CN-9') =>
    act(books, TESTER, creditDaywork, 'C', 'D-1', { dated, amount, creditNote, reason: 'r' });
  await act(books, TESTER, recordReceipt, 'C', 'D-1', { dated: '2031-03-10', amount: 40_000, reference: 'B1' });
  await refused(() => credit('2031-03-01', 36_001), /more than the 360\.00 of the invoice/);
  await refused(() => credit('2031-02-27', 100), /before the invoice/);
  await refused(() => credit('2031-03-11', 2668), /400\.00 is received on it/);
  await refused(() => credit('2031-03-11', null), /400\.00 is received on it/);
  await refused(() => credit('2031-03-11', 100, 'D-1'), /There is a document "D-1"/);
  await credit('2031-03-11', 2666);
  // 432.00 less 31.99 is 400.01: a penny is left.
  await act(books, TESTER, recordReceipt, 'C', 'D-1', { dated: '2031-03-12', amount: 1, reference: 'B2' });
  await refused(
    () => act(books, TESTER, recordReceipt, 'C', 'D-1', { dated: '2031-03-12', amount: 1, reference: 'B3' }),
    /more than the 0\.00/,
  );
  await balance('2031-03-12');
});

test('a draft of a book is issued under the ceiling, or deleted, and its entries are free again', async () => {
  const draft = await databaseOf({
    ...BOOK,
    costs: `${BOOK.costs!.replace('reference,amount\n', 'reference,amount,daywork_invoice\n').replace('R1,100.00', 'R1,100.00,DR-1').replace('R3,300.00', 'R3,300.00,DR-2').replace('R2,200.00', 'R2,200.00,').replace('M1,50.00', 'M1,50.00,')}`,
    daywork_invoices:
      'job,invoice,dated,cut_off,status\nC,DR-1,2031-02-28,2031-02-28,draft\nC,DR-2,2031-03-31,2031-03-31,draft\n',
  });
  books = draft;
  expect((await unbilledJobs(reading(books), '2031-03-31'))[0]).toMatchObject({ entries: 1, charge: 24_000 });
  // At 30 % a draft of 20 % would be charged otherwise than all else. Free again, R3 is charged at 390.00, beside the 260.00 of R2.
  const markup = async (percent: number) =>
    act(books, TESTER, saveMarkups, 'C', {
      seen: digestOf(await markupsOfJob(reading(books), 1)),
      markups: [{ costType: 'material', markup: percent * 10_000 }],
    });
  await markup(30);
  await refused(() => act(books, TESTER, issueDraft, 'C', 'DR-1'), /delete the draft, and invoice its entries again/);
  await act(books, TESTER, deleteDraft, 'C', 'DR-2');
  expect((await unbilledJobs(reading(books), '2031-03-31'))[0]).toMatchObject({ entries: 2, charge: 26_000 + 39_000 });
  await markup(20);
  await act(books, TESTER, issueDraft, 'C', 'DR-1');
  await refused(() => act(books, TESTER, deleteDraft, 'C', 'DR-1'), /is issued; credit it instead/);
  expect((await unbilledJobs(reading(books), '2031-03-31'))[0]).toMatchObject({ entries: 2, charge: 60_000, invoiced: 12_000 });
  await balance('2031-03-31');
});

test('a restricted job is invoiced, credited and marked by its team alone', async () => {
  const seen = digestOf(await markupsOfJob(reading(books), 1));
  await act(books, TESTER, restrictJob, 'C', true, 'Not for all');
  const stranger = { ...TESTER, name: 'Ann Ash', role: 'accountant' as const };
  const team = /Job C is restricted/;
  await refused(() => act(books, stranger, saveMarkups, 'C', { seen, markups: [] }), team);
  const run = { dated: '2031-03-31', cutOff: '2031-03-31', invoices: [one('C')], seen: '' };
  await refused(() => act(books, stranger, issueRun, run), team);
});

test('closed books keep what was charged then; a job made a charged one charges all its cost', async () => {
  await act(books, TESTER, closeBooks, { to: '2031-02-28', reason: '' });
  const before = await reportLines(books, 'wip', '2031-02-28');
  await refused(
    async () => act(books, TESTER, saveMarks, 'C', { entries: [await idOf('C', 'R1')], mark: 'no' }),
    /books are closed up to/,
  );
  const id = await idOf('F', 'M1', 'others');
  await act(books, TESTER, saveMarks, 'F', { entries: [id], mark: 'yes' });
  expect(await reportLines(books, 'wip', '2031-02-28')).toEqual(before);
  expect((await unbilledJobs(reading(books), '2031-03-01')).find((it) => it.job === 'F')).toMatchObject({
    charge: 5000,
    oldest: '2031-03-01',
  });
  const facts = async (job: string) => {
    const view = await jobFileView(reading(books), job);
    return { ...view.facts, seen: view.seen.facts };
  };
  const ceiling = { ...(await facts('C')), ceiling: 200_000 };
  await refused(() => act(books, TESTER, saveJobFacts, 'C', ceiling), /closed up to/);
  await act(books, TESTER, closeBooks, { to: null, reason: 'A job was priced wrongly' });
  await act(books, TESTER, saveJobFacts, 'C', ceiling);
  const charged = { ...(await facts('F')), pricing: 'charged' as const };
  await refused(() => act(books, TESTER, saveJobFacts, 'F', charged), /has a schedule of values/);
  await act(books, TESTER, saveJobFacts, 'T', { ...(await facts('T')), pricing: 'charged' as const });
  expect((await jobFileView(reading(books), 'T')).facts.pricing).toBe('charged');
});
