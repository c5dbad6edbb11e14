import { afterAll, expect, test } from '@jest/globals';
import type { Role } from '../../core/rights/rights';
import type { TimeLineInput } from '../../wire/weekSheets';
import type { SignedIn } from '../acts/signedIn';
import type { Database } from '../db/database';
import { act, reading } from '../test/act';
import { cleanUp, databaseOf, differences, everything, LABOUR_TERMS, reportLines, SMALL_BOOK, TESTER } from '../test/books';
import { worked } from '../test/postedBodies';
import { approveTime } from './decideTime';
import { planHours, postHours } from './postHours';
import { approvedOf, planPosting, postTime, previewPosting } from './postTime';
import { addSheet } from './saveSheet';
import { weekSheet } from './sheetViews';
import { weekCost } from './weekCost';

afterAll(cleanUp);

const WEEK = '2031-03-03';
const ASOF = '2031-03-31';
const line = (more: Partial<TimeLineInput> = {}): TimeLineInput => ({ ...worked, dated: WEEK, ...more });
/** 9.5 hours of Ann on the mill, of which 1.5 overtime, and 4 of Ben in the yard. */
const LINES = [line({ hours: 95_000 }), line({ employee: 'E2', job: '', section: '', costCode: '', hours: 40_000 })];
const book = () => databaseOf({ ...SMALL_BOOK, ...LABOUR_TERMS });
const preview = (database: Database, lines: TimeLineInput[], person: SignedIn | null = null) =>
  previewPosting(database, ASOF, async (sql) => (await planHours(sql, { week: WEEK, lines, lateOn: null }, person)).planned);
const post = (database: Database, lines: TimeLineInput[], seen: string, person: SignedIn | null = null) =>
  act(database, TESTER, postHours, { week: WEEK, lines, lateOn: null, seen }, person);
const reports = async (database: Database) => [
  await reportLines(database, 'time-cost', ASOF),
  await reportLines(database, 'wip', ASOF),
  await reportLines(database, 'trial-balance', ASOF),
];
const named = (name: string, role: Role) => ({ name, role }) as SignedIn;

test('hours entered, approved and posted in one act cost what they do in three, to the penny and as previewed', async () => {
  const [one, three] = [await book(), await book()];
  const before = await everything(one);
  const shown = await preview(one, LINES);
  expect(await everything(one)).toBe(before);
  // Ann 8 × 22.50 + 1.5 × 33.75 = 230.63 and 18 % of 9.5 × 22.50, 38.48, and 0.85 an hour, 8.08; Ben 4 × 18.00 = 72.00, 12.96 and 3.40.
  expect([shown.pay, shown.burden, shown.hours, shown.missing]).toEqual([30_263, 6292, 135_000, []]);
  const { sheet, total } = await post(one, LINES, shown.seen);
  expect([sheet, total]).toEqual(['1', 36_555]);
  const added = await act(three, TESTER, addSheet, { week: WEEK, lines: LINES }, null);
  const { seen, lines } = await weekSheet(reading(three), added.sheet, undefined);
  await act(three, TESTER, approveTime, added.sheet, { seen, lines: lines.map((it) => it.id) }, null);
  const plan = await previewPosting(three, ASOF, async (sql) => planPosting(sql, await approvedOf(sql, ['1']), null));
  await act(three, TESTER, postTime, { sheets: ['1'], lateOn: null, leaveOut: false, seen: plan.seen });
  expect(await reports(one)).toEqual(await reports(three));
  expect((await weekSheet(reading(one), '1', undefined)).lines.every((it) => it.state === 'posted')).toBe(true);
  expect(await differences(one, ASOF)).toEqual(['0.00', '0.00', '0.00', '0.00', '0.00']);
});

test('a sheet in between changes nothing of the preview; hours of the same day in between do, and nothing is half saved', async () => {
  const database = await book();
  const { seen } = await preview(database, LINES);
  await act(
    database,
    TESTER,
    addSheet,
    { week: WEEK, lines: [line({ employee: 'E2', dated: '2031-03-05', hours: 10_000 })] },
    null,
  );
  const other = [line({ hours: 10_000 })];
  const { sheet } = await post(database, LINES, seen);
  expect(sheet).toBe('2');
  // Eight hours of the day are used up: another hour of it is overtime, which nobody was shown.
  const free = await preview(await book(), other);
  const before = await everything(database);
  await expect(post(database, other, free.seen)).rejects.toThrow(/Preview it again/);
  expect(await everything(database)).toBe(before);
});

test('own time is posted by nobody but the owner, an hour without a rate by nobody', async () => {
  const database = await book();
  const { seen } = await preview(database, LINES);
  await expect(preview(database, LINES, named('Ann Ash', 'accountant'))).rejects.toThrow(/Line 1 is your own time/);
  await expect(post(database, LINES, seen, named('Ann Ash', 'accountant'))).rejects.toThrow(/Line 1 is your own time/);
  const unpriced = [line({ employee: 'E2', wageClass: 'rigger', hours: 10_000 })];
  const shown = await preview(database, unpriced);
  expect(shown.missing).toHaveLength(1);
  await expect(post(database, unpriced, shown.seen)).rejects.toMatchObject({ code: 'bad-input' });
  await post(database, LINES, seen, named('Ann Ash', 'owner'));
});

test('what the week will cost is known before it is approved: what is posted, what waits, line by line, and what has no rate', async () => {
  const database = await book();
  const { seen } = await preview(database, [LINES[1]!]);
  await post(database, [LINES[1]!], seen);
  const waits = [LINES[0]!, line({ employee: 'E2', wageClass: 'rigger', dated: '2031-03-04', hours: 10_000 })];
  await act(database, TESTER, addSheet, { week: WEEK, lines: waits }, null);
  const found = await weekCost(reading(database), '2031-03-06');
  // Ben's 88.36 are posted; Ann's 230.63, 38.48 and 8.08 wait; a rigger has no rate.
  expect(found).toMatchObject({ posted: 8836, toCome: 27_719, unpriced: 1 });
  expect(found.lines.map((it) => it.cost)).toEqual([27_719]);
  expect(await weekCost(reading(database), '2031-03-10')).toEqual({ posted: 0, toCome: 0, unpriced: 0, lines: [] });
});
