import { afterAll, beforeEach, expect, test } from '@jest/globals';
import type { Database } from '../db/database';
import { act, reading } from '../test/act';
import { cleanUp, differences, faultsOf, reportLines, SMALL_BOOK, temporaryDatabase, TESTER } from '../test/books';
import { reversePosting } from '../ledger/reverse';
import { applicationView } from './applicationView';
import { deleteApplication, startApplication } from './applications';
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
    ...{ version: null, on: '2031-04-01' },
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
  expect([view.status, view.postingId, view.can.certify, view.can.uncertify]).toEqual(['submitted', null, true, false]);
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
  expect((await applicationView(reading(database), 'J1', 3, LATE)).certificationStays).toBe(await why());
  await act(database, TESTER, deleteApplication, 'J1', 4);
  const release = await act(database, TESTER, releaseRetention, 'J1', { dated: LATE, amount: 100, reference: 'Half' });
  expect(await why()).toMatch(/retention was released/);
  await act(database, TESTER, reversePosting, release, { on: LATE, reason: 'too early' });
  await act(database, TESTER, recordReceipt, 'J1', '3', { dated: LATE, amount: 100, reference: '' });
  expect(await why()).toMatch(/money was received/);
  await expect(act(database, TESTER, reverseCertification, 'J1', 2, 'x')).rejects.toThrow(/application 3 follows it/);
});
