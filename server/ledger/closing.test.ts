import { afterAll, beforeEach, expect, test } from '@jest/globals';
import { firstOpenDay } from '../../core/ledger/openDay';
import type { Database } from '../db/database';
import { act, reading } from '../test/act';
import { cleanUp, everything, faultsOf, LABOUR_TERMS, SMALL_BOOK, temporaryDatabase, TESTER, TIME_HEAD } from '../test/books';
import { certifyApplication } from '../billing/certify';
import { recordReceipt, releaseRetention } from '../billing/receipts';
import { transferBudget } from '../budget/transfers';
import { decideChange } from '../changes/decideChange';
import { correctCosts } from '../corrections/correctCosts';
import { install } from '../corrections/installations';
import { postCosts } from '../costs/postCosts';
import { saveForecast } from '../forecasts/forecasts';
import { approvedOf, planPosting } from '../weekSheets/postTime';
import { closeBooks, closing } from './closing';
import { reversePosting } from '../corrections/reversePosting';

let database: Database;
const sql = () => reading(database);
beforeEach(async () => {
  database = await temporaryDatabase();
  expect(await faultsOf(database, { ...SMALL_BOOK, ...LABOUR_TERMS })).toEqual([]);
});
afterAll(cleanUp);

const close = (to: string | null, reason = '') => act(database, TESTER, closeBooks, { to, reason });
const said = (work: Promise<unknown>) =>
  work.then(
    () => 'done',
    (error: { message: string }) => error.message,
  );

test('the books are closed up to a day, further without a word, and opened again with a reason, in the trail', async () => {
  await close('2031-01-31');
  await close('2031-02-28', 'reviewed');
  expect(await said(close('2031-02-28'))).toMatch(/closed up to 28 Feb 2031 already/);
  expect(await said(close('2031-01-31'))).toMatch(/Enter why the books are opened again/);
  // The newest document is of 20 March; what is to come is not closed.
  expect(await said(close('2031-12-31'))).toMatch(/is still to come; choose/);
  await close('2031-01-31', 'an invoice was forgotten');
  expect(await closing(sql())).toMatchObject({ closedTo: '2031-01-31', reason: 'an invoice was forgotten', by: TESTER.name });
  await close(null, 'from the beginning');
  expect([
    firstOpenDay('2031-01-31', '2031-01-31'),
    firstOpenDay('2031-02-01', '2031-01-31'),
    firstOpenDay('2030-01-01', null),
  ]).toEqual(['2031-02-01', '2031-02-01', '2030-01-01']);
});

test('nothing counts on a closed day, whatever it is; on the first open one it does', async () => {
  await close('2031-03-31');
  const before = await everything(database);
  const opening = (await sql().anyRows(`SELECT id FROM posting WHERE kind = 'opening-cost'`))[0]?.id as number;
  const cost = {
    dated: '2031-03-31',
    job: 'J1',
    section: 'A',
    costCode: '100',
    costType: 'labour' as const,
    party: '',
    reference: 'T9',
    commitment: '',
    hours: 1,
    amount: 100,
    description: '',
    uninstalled: false,
    postedOn: null,
  };
  const at = { section: 'A', costCode: '100', costType: 'labour' as const };
  const refused = [
    () => act(database, TESTER, postCosts, { lines: [cost], shown: null } as never),
    () => act(database, TESTER, certifyApplication, 'J1', 3, { version: null, on: '2031-03-31', lines: [] }),
    () => act(database, TESTER, recordReceipt, 'J1', '2', { dated: '2031-03-31', amount: 1, reference: 'B9' }),
    () => act(database, TESTER, releaseRetention, 'J1', { dated: '2031-03-31', amount: 1, reference: 'R9' }),
    () => act(database, TESTER, reversePosting, opening, { on: '2031-03-31', reason: 'r' }),
    () => act(database, TESTER, install, { on: '2031-03-31', parts: [{ entry: 1, amount: null, quantity: null }] }),
    () => act(database, TESTER, correctCosts, { entries: [1], on: '2031-03-31', to: null, reason: 'r' } as never),
    () =>
      act(database, TESTER, transferBudget, 'J1', {
        dated: '2031-03-31',
        reason: 'r',
        lines: [
          { ...at, amount: 1, hours: null },
          { ...at, costType: 'material' as const, amount: -1, hours: null },
        ],
      }),
    () => act(database, TESTER, saveForecast, 'J1', { on: '2031-03-31', lines: [], seen: '' } as never),
    () =>
      act(database, TESTER, decideChange, 'J1', 'C2', {
        status: 'approved' as const,
        on: '2031-03-31',
        by: 'Mr Hale',
        note: '',
        agreed: null,
        daysGranted: null,
      }),
  ];
  for (const work of refused) expect(await said(work())).toMatch(/closed up to 31 Mar 2031; choose 1 Apr 2031 or a later day/);
  expect(await everything(database)).toBe(before);
  await act(database, TESTER, certifyApplication, 'J1', 3, { version: null, on: '2031-04-01', lines: [] });
});

test('corrected on its own day, what was posted in closed books is corrected on the first open one', async () => {
  await close('2031-02-15');
  // Entries 1 to 5 of costs.csv: 15 Jan, 28 Jan, 10 Feb, 18 Feb and 20 Feb.
  const { postingId } = await act(database, TESTER, correctCosts, {
    entries: [1, 4],
    on: null,
    to: null,
    reason: 'twice',
  } as never);
  const posted = await sql().anyRows(`SELECT posted_on FROM cost_entry WHERE posting_id = ${postingId} ORDER BY id`);
  expect(posted.map((it) => it.posted_on)).toEqual(['2031-02-16', '2031-02-18']);
});

test('time of closed days counts on the first open one when it is posted', async () => {
  expect(await faultsOf(database, { time: `${TIME_HEAD}7,1,E1,2031-03-03,,J1,A,100,,,,8,,approved,\n` })).toEqual([]);
  await close('2031-03-15');
  const { parts } = await planPosting(sql(), await approvedOf(sql(), ['7']), null);
  expect(parts.map((it) => it.postedOn)).toEqual(['2031-03-16']);
});

test('a book brings nothing into closed days; each row says so at its column', async () => {
  await close('2031-04-15');
  const book = {
    costs:
      'dated,job,section,cost_code,cost_type,reference,amount,posted_on\n2031-04-10,J1,A,100,material,N1,5.00,\n2031-04-10,J1,A,100,material,N2,5.00,2031-04-16\n',
    receipts: 'dated,job,application,amount,reference\n2031-04-01,J1,2,1.00,B9\n',
    retention_releases: 'job,dated,amount,reference\nJ1,2031-04-15,1.00,R9\n',
    forecasts: 'job,as_of,section,cost_code,cost_type,method,value\nJ1,2031-04-02,A,100,labour,percent,60\n',
    time: `${TIME_HEAD}7,1,E1,2031-04-03,,J1,A,100,,,,8,,,\n7,2,E1,2031-04-04,,J1,A,100,,,,8,,submitted,\n`,
  };
  expect(await faultsOf(database, book)).toEqual([
    'costs:2:dated',
    'time:2:dated',
    'retention_releases:2:dated',
    'receipts:2:dated',
    'forecasts:2:as_of',
  ]);
});
