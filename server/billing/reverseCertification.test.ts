import { afterAll, beforeEach, expect, test } from '@jest/globals';
import type { Database } from '../db/database';
import { act, reading } from '../test/act';
import {
  besides,
  cleanUp,
  differences,
  faultsOf,
  folderText,
  reportLines,
  SMALL_BOOK,
  temporaryDatabase,
  temporaryFolder,
  TESTER,
} from '../test/books';
import { join } from 'node:path';
import { writeBook } from '../book/writeBook';
import { InvoiceTable } from './models';
import { closeBooks } from '../ledger/closing';
import { reversePosting } from '../corrections/reversePosting';
import { applicationView } from './applicationView';
import { deleteApplication, setSubmitted, startApplication } from './applications';
import { certifyApplication } from './certify';
import { recordReceipt, releaseRetention } from './receipts';
import { reverseCertification } from './reverseCertification';

const TIES = ['0.00', '0.00', '0.00', '0.00', '0.00'];
const LATE = '2031-04-30';
let database: Database;
beforeEach(async () => {
  database = await temporaryDatabase();
  expect(await faultsOf(database, SMALL_BOOK)).toEqual([]);
});
afterAll(cleanUp);

const certify = (work: number | null) =>
  act(database, TESTER, certifyApplication, 'J1', 3, {
    version: null,
    on: '2031-04-01',
    lines: work === null ? [] : [{ line: '1', work, materials: 0 }],
  });
const uncertify = () => act(database, TESTER, reverseCertification, 'J1', 3, 'certified the wrong one');
const reports = async () => [
  await reportLines(database, 'wip', LATE),
  await reportLines(database, 'ageing', LATE),
  await reportLines(database, 'trial-balance', LATE),
];

test('a reversed certification leaves every report as before, and the application to be certified again', async () => {
  const before = await reports();
  await certify(250_000);
  const certified = await reports();
  expect(certified).not.toEqual(before);
  await uncertify();
  expect(await reports()).toEqual(before);
  expect(await differences(database, LATE)).toEqual(TIES);
  const view = await applicationView(reading(database), 'J1', 3, LATE);
  expect([view.status, view.postingId, view.refused.certify, view.refused.uncertify]).toEqual([
    'submitted',
    null,
    null,
    'Application 3 is submitted; only a certified one has a certification to reverse',
  ]);
  expect(view.reversed).toMatchObject([{ certifiedOn: '2031-04-01', reason: 'certified the wrong one' }]);
  // The journals of what was taken back go out and in with the book: the turnover of tie-out as well.
  const folder = join(temporaryFolder(), 'out');
  await writeBook(reading(database), folder, besides(database));
  expect(folderText(folder)['reversed_certifications.csv']).toMatch(/^J1,3,1,.*,2031-04-01,.*,certified the wrong one$/m);
  const copy = await temporaryDatabase();
  expect(await faultsOf(copy, folderText(folder))).toEqual([]);
  expect(await reportLines(copy, 'tie-out', LATE)).toEqual(await reportLines(database, 'tie-out', LATE));
  await copy.close();
  await certify(250_000);
  expect(await reports()).toEqual(certified);
});

test('it stays where something rests on it, and says what', async () => {
  const why = () =>
    uncertify().then(
      () => '',
      (error: Error) => error.message,
    );
  await certify(null);
  await act(database, TESTER, startApplication, 'J1', { dated: LATE, reference: '', bySchedule: false });
  expect(await why()).toMatch(/application 4 follows it/);
  expect((await applicationView(reading(database), 'J1', 3, LATE)).refused.uncertify).toBe(await why());
  await act(database, TESTER, deleteApplication, 'J1', 4);
  // Certified on 1 April: in closed books, which no other day goes round.
  await act(database, TESTER, closeBooks, { to: '2031-04-01', reason: '' });
  expect(await why()).toMatch(/1 Apr 2031, when it was certified, is in the books that are closed up to 1 Apr 2031/);
  expect((await applicationView(reading(database), 'J1', 3, LATE)).refused.uncertify).toBe(await why());
  await act(database, TESTER, closeBooks, { to: null, reason: 'early' });
  const release = await act(database, TESTER, releaseRetention, 'J1', { dated: LATE, amount: 100, reference: 'Half' });
  expect(await why()).toMatch(/retention was released/);
  await act(database, TESTER, reversePosting, release, { on: LATE, reason: 'too early' });
  await act(database, TESTER, recordReceipt, 'J1', '3', { dated: LATE, amount: 100, reference: '' });
  expect(await why()).toMatch(/money was received/);
  await expect(act(database, TESTER, reverseCertification, 'J1', 2, 'x')).rejects.toThrow(/application 3 follows it/);
});

test('a receipt that was reversed on its own day does not bar it; certified again, it is the same invoice', async () => {
  await certify(null);
  const receipt = await act(database, TESTER, recordReceipt, 'J1', '3', { dated: '2031-04-10', amount: 100, reference: 'slip' });
  await act(database, TESTER, reversePosting, receipt, { on: '2031-04-12', reason: 'a slip' });
  // Between the two days money is received on it: un-certified, it would be owed to nobody.
  await expect(uncertify()).rejects.toThrow(/money was received on it on 10 Apr 2031/);
  const again = await act(database, TESTER, recordReceipt, 'J1', '3', { dated: '2031-04-12', amount: 100, reference: 'slip' });
  await act(database, TESTER, recordReceipt, 'J1', '3', { dated: '2031-04-10', amount: -100, reference: 'slip' });
  expect(again).toBeGreaterThan(receipt);
  await uncertify();
  for (const day of ['2031-04-01', '2031-04-10', '2031-04-11', '2031-04-12', LATE])
    expect([day, await differences(database, day)]).toEqual([day, TIES]);
  const copied = async () => {
    const folder = join(temporaryFolder(), 'out');
    await writeBook(reading(database), folder, besides(database));
    const copy = await temporaryDatabase();
    expect(await faultsOf(copy, folderText(folder))).toEqual([]);
    expect([await reportLines(copy, 'ageing', LATE), await reportLines(copy, 'trial-balance', LATE)]).toEqual(
      (await reports()).slice(1),
    );
    await copy.close();
  };
  await copied();
  await act(database, TESTER, certifyApplication, 'J1', 3, { version: null, on: '2031-04-20', lines: [] });
  expect(await differences(database, LATE)).toEqual(TIES);
  await copied();
});

test('invoices are numbered without gaps: one whose certification is reversed keeps its number, and its draft is not deleted', async () => {
  const numbers = async () => (await reading(database).find(InvoiceTable, {}, ['number'])).map((it) => [it.number, it.reference]);
  // The book's own, in the order they were posted: certified 5 and 28 Feb, released 15 Mar.
  const before = await numbers();
  expect(before.map(([number]) => number)).toEqual(before.map((_, i) => i + 1));
  await certify(null);
  const next = before.length + 1;
  expect((await numbers()).at(-1)).toEqual([next, '3']);
  await uncertify();
  await act(database, TESTER, setSubmitted, 'J1', 3, false);
  await expect(act(database, TESTER, deleteApplication, 'J1', 3)).rejects.toThrow(
    new RegExp(`already has invoice number ${next} and`),
  );
  await act(database, TESTER, releaseRetention, 'J1', { dated: LATE, amount: 100, reference: 'Half' });
  await act(database, TESTER, setSubmitted, 'J1', 3, true);
  await certify(null);
  expect((await numbers()).slice(-2)).toEqual([
    [next, '3'],
    [next + 1, 'Half'],
  ]);
  const folder = join(temporaryFolder(), 'out');
  await writeBook(reading(database), folder, besides(database));
  const copy = await temporaryDatabase();
  expect(await faultsOf(copy, folderText(folder))).toEqual([]);
  expect((await reading(copy).find(InvoiceTable, {}, ['number'])).map((it) => [it.number, it.reference])).toEqual(
    await numbers(),
  );
  const twice = folderText(folder);
  const again = await temporaryDatabase();
  const releases = twice['retention_releases.csv']!.replace(/,\d+\n$/, `,${next}\n`);
  expect(await faultsOf(again, { ...twice, 'retention_releases.csv': releases })).toEqual([
    'retention_releases:3:invoice_number',
  ]);
});
