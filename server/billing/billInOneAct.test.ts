import { afterAll, expect, test } from '@jest/globals';
import type { Database } from '../db/database';
import { act, reading } from '../test/act';
import { cleanUp, databaseOf, differences, everything, reportLines, SMALL_BOOK, TESTER, type BookText } from '../test/books';
import { offersOfJob } from '../test/offersOfJob';
import { tryOffers } from '../test/tryOffers';
import { applicationView } from './applicationView';
import { setSubmitted } from './applications';
import { billApplication, certifyApplication, previewBill } from './certify';

afterAll(cleanUp);

const ON = '2031-04-01';
const LATE = '2031-04-30';
/** The third application of the small book, still a draft: 7,250.00 to date, 5,000.00 of it certified before. */
const DRAFT: BookText = {
  ...SMALL_BOOK,
  applications: SMALL_BOOK.applications!.replace('J1,3,2031-03-31,submitted,', 'J1,3,2031-03-31,draft,'),
};
const NEVER: BookText = { ...DRAFT, customers: 'customer,name,terms_days,never_certifies\nNORTH,Northbeck Estates,14,yes\n' };
const bill = (database: Database, version: number | null = null) =>
  act(database, TESTER, billApplication, 'J1', 3, { version, on: ON });
const reports = async (database: Database) => [
  await reportLines(database, 'wip', LATE),
  await reportLines(database, 'ageing', LATE),
  await reportLines(database, 'trial-balance', LATE),
];

test('billed in one act is what submitting and certifying as applied for come to, with the number and journal that were shown', async () => {
  const [one, two] = [await databaseOf(NEVER), await databaseOf(DRAFT)];
  const before = await everything(one);
  const shown = await previewBill(reading(one), 'J1', 3, { version: null, on: ON });
  expect(await everything(one)).toBe(before);
  // Two applications and a release are invoiced already; 14 days from 1 April.
  expect([shown.invoice, shown.dueOn]).toEqual([4, '2031-04-15']);
  await bill(one);
  await act(two, TESTER, setSubmitted, 'J1', 3, true);
  await act(two, TESTER, certifyApplication, 'J1', 3, { version: null, on: ON, lines: [] });
  expect(await reports(one)).toEqual(await reports(two));
  const view = await applicationView(reading(one), 'J1', 3, LATE);
  expect([view.status, view.certifiedOn, view.journal, view.summary]).toEqual([
    ...['certified', ON],
    shown.journal,
    shown.summary,
  ]);
  expect(await differences(one, LATE)).toEqual(['0.00', '0.00', '0.00', '0.00', '0.00']);
});

test('a client who certifies is not billed so; what the page offers is accepted, and what it does not is refused as it says', async () => {
  const certifies = await databaseOf(DRAFT);
  await expect(bill(certifies)).rejects.toThrow(/certifies what is applied for; submit the application/);
  await tryOffers(certifies, TESTER, await offersOfJob(certifies, 'J1', ON));
  const never = await databaseOf(NEVER);
  await tryOffers(never, TESTER, await offersOfJob(never, 'J1', ON));
  await bill(never);
  await tryOffers(never, TESTER, await offersOfJob(never, 'J1', ON));
  await expect(bill(never)).rejects.toThrow(/only a draft is billed in one act/);
});

test('what somebody else saved meanwhile is not billed unseen, and nothing of it is half done', async () => {
  const database = await databaseOf(NEVER);
  const { version } = await applicationView(reading(database), 'J1', 3, LATE);
  const before = await everything(database);
  await expect(bill(database, version + 1)).rejects.toThrow(/application 3/i);
  // Before its own valuation day.
  await expect(act(database, TESTER, billApplication, 'J1', 3, { version, on: '2031-03-30' })).rejects.toThrow(/30 Mar 2031/);
  expect(await everything(database)).toBe(before);
});
