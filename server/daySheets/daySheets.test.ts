import fc from 'fast-check';
import { afterAll, beforeEach, expect, test } from '@jest/globals';
import { EMPTY_DAY, withSignature, type DaySheet } from '../../core/daySheets/daySheet';
import type { LedrinError } from '../../core/errors/ledrinError';
import type { Database } from '../db/database';
import type { Received } from '../http/upload';
import { installedOn } from '../labour/quantities';
import { jobByNumber } from '../jobs/jobByNumber';
import { lockJob } from '../jobs/jobLife';
import { act, reading } from '../test/act';
import {
  besides,
  cleanUp,
  faultsOf,
  folderText,
  LABOUR_TERMS,
  SMALL_BOOK,
  temporaryDatabase,
  temporaryFolder,
  TESTER,
} from '../test/books';
import { workedDay } from '../test/workedDay';
import { approveTime, returnTime } from '../weekSheets/decideTime';
import { approvedOf, planPosting, postTime, previewPosting } from '../weekSheets/postTime';
import { deleteLines, saveSheet } from '../weekSheets/saveSheet';
import { weekSheet } from '../weekSheets/sheetViews';
import { writeBook } from '../book/writeBook';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { hashOf } from '../attachments/contents';
import { documentOfDay, documentOfDaywork, documentOfWeek } from './dayDocument';
import { dayPdf, dayworkPdf } from './dayPdf';
import { addDayPhoto, dayPhoto } from './dayPhotos';
import { dayRegister } from './dayRegister';
import { daySheet } from './daySheetViews';
import { keyOfHours } from '../../core/daySheets/hoursDiffer';
import { linesFor } from './feedWeek';
import { phonePack } from './phonePack';
import { printed } from './printed';
import { deleteDaySheet, saveDaySheet, takeDayHours } from './saveDaySheet';

let database: Database;
beforeEach(async () => {
  database = await temporaryDatabase();
  expect(await faultsOf(database, { ...SMALL_BOOK, ...LABOUR_TERMS })).toEqual([]);
});
afterAll(cleanUp);

/** Tuesday of the week of Monday, 3 March 2031. */
const KEY = { job: 'J1', dated: '2031-03-04', crew: 'Ann Ash' };
const save = (day: DaySheet, seen = '', key = KEY, leftOut = '') =>
  act(database, TESTER, saveDaySheet, key, { seen, day, leftOut }, null);
const view = (key = KEY) => daySheet(reading(database), key);
const week = (sheet: string) => weekSheet(reading(database), sheet, undefined);
const withHours = (...hours: number[]): DaySheet => ({
  ...workedDay,
  hours: hours.map((it, i) => ({ ...workedDay.hours[0]!, employee: `E${i + 1}`, hours: it * 10_000 })),
});
const said = (work: Promise<unknown>) =>
  work.then(
    () => [],
    (error: LedrinError) => (error.faults.length > 0 ? error.faults.map((it) => `${it.field}: ${it.message}`) : [error.message]),
  );

test('a day feeds the week sheet of its crew; sent twenty times it is there once', async () => {
  const sent = withHours(8, 9.5);
  for (let i = 0; i < 20; i++) expect(await save(sent)).toEqual({ seen: (await view()).seen, differs: false });
  const there = await view();
  expect(there.day).toEqual(sent);
  const { lines } = await week(there.weekSheet);
  expect(lines.map((it) => [it.employee, it.dated, it.job, it.costCode, it.hours, it.state])).toEqual([
    ['E1', '2031-03-04', 'J1', '100', 80_000, 'submitted'],
    ['E2', '2031-03-04', 'J1', '100', 95_000, 'submitted'],
  ]);
  // The next day of the crew goes into the same week sheet, another crew's into one of its own.
  const next = { ...KEY, dated: '2031-03-05' };
  await save(withHours(4), '', next);
  await save({ ...withHours(3), hours: [{ ...sent.hours[1]!, hours: 30_000 }] }, '', {
    ...KEY,
    dated: '2031-03-06',
    crew: 'Ben Birch',
  });
  expect((await view(next)).weekSheet).toBe(there.weekSheet);
  expect((await view({ ...KEY, dated: '2031-03-06', crew: 'Ben Birch' })).weekSheet).not.toBe(there.weekSheet);
  // Changed and sent again, its lines are written over; without hours they go.
  await save(withHours(7), there.seen);
  expect((await week(there.weekSheet)).lines.map((it) => [it.dated, it.hours])).toEqual([
    ['2031-03-05', 40_000],
    ['2031-03-04', 70_000],
  ]);
  await save({ ...sent, hours: [] }, (await view()).seen);
  expect((await week(there.weekSheet)).lines).toHaveLength(1);
});

test('a change that did not see another is told, and nothing of either is lost', async () => {
  const { seen } = await save(withHours(8));
  await save({ ...withHours(8), notes: 'From the office' }, seen);
  expect(await said(save({ ...withHours(9) }, seen))).toEqual(['seen: it has changed since']);
  expect((await view()).day.notes).toBe('From the office');
  // Brought together and sent with what it saw, and with what was left out; said once, however often it is sent.
  const together = { ...withHours(9), notes: 'From the office' };
  for (let i = 0; i < 2; i++) await save(together, (await view()).seen, KEY, 'Notes, on the phone: Late start');
  expect([(await view()).leftOut, (await view()).day.hours[0]!.hours]).toEqual(['Notes, on the phone: Late start', 90_000]);
});

test('hours the office changed or approved stay beside what the site says, until somebody decides', async () => {
  let { seen } = await save(withHours(8));
  const { weekSheet: sheet } = await view();
  let of = await week(sheet);
  const [plain] = linesFor(KEY, workedDay.hours);
  await act(database, TESTER, saveSheet, sheet, { seen: of.seen, week: of.week, lines: [{ ...plain!, hours: 60_000 }] }, null);
  expect(await view()).toMatchObject({ differs: true, weekHours: [{ hours: 60_000 }], day: { hours: [{ hours: 80_000 }] } });
  // The site says more: it is saved, and the week sheet is the office's.
  expect(await save(withHours(9), seen)).toMatchObject({ differs: true });
  expect((await week(sheet)).lines.map((it) => it.hours)).toEqual([60_000]);
  ({ seen } = await view());
  const rows = (await view()).differences.map(keyOfHours);
  expect((await view()).differences.map((it) => [it.employee, it.site, it.office, it.fixed])).toEqual([
    ['E1', 90_000, 60_000, null],
  ]);
  expect(await said(act(database, TESTER, takeDayHours, KEY, { seen, rows: ['other'] }, null))).toEqual([
    'rows: expected rows that differ',
  ]);
  await act(database, TESTER, takeDayHours, KEY, { seen, rows }, null);
  expect([(await view()).differs, (await week(sheet)).lines.map((it) => it.hours)]).toEqual([false, [90_000]]);
  // Approved, and posted by the overtime rule as 8 + 1: still what the day sheet says, and no longer the site's to change.
  of = await week(sheet);
  await act(database, TESTER, approveTime, sheet, { seen: of.seen, lines: of.lines.map((it) => it.id) }, null);
  ({ seen } = await save(withHours(10), (await view()).seen));
  expect(await said(act(database, TESTER, takeDayHours, KEY, { seen, rows }, null))).toEqual([
    `Hours of this day are approved; return them on week sheet ${sheet} first`,
  ]);
  ({ seen } = await save(withHours(9), seen));
  const preview = await previewPosting(database, '2031-03-31', async (sql) =>
    planPosting(sql, await approvedOf(sql, [sheet]), null),
  );
  await act(database, TESTER, postTime, { sheets: [sheet], lateOn: null, leaveOut: false, seen: preview.seen });
  expect((await view()).weekHours.map((it) => [it.pay, it.hours, it.state])).toEqual([
    ['regular', 80_000, 'posted'],
    ['overtime', 10_000, 'posted'],
  ]);
  expect((await view()).differs).toBe(false);
  expect(await save(withHours(10), seen)).toMatchObject({ differs: true });
  expect(await said(act(database, TESTER, deleteDaySheet, KEY, (await view()).seen, null))).toEqual([
    'status: The day sheet is taken over; only one that no client signed, and of which the office has changed or approved no hours, can be deleted',
  ]);
});

test('what cannot be is answered at its field, and nothing of the day is saved', async () => {
  const bad = withHours(8, 25);
  bad.hours[0]!.costCode = '999';
  expect(await said(save(bad))).toEqual([
    'day.hours.0.costCode: There is no cost code 999 open to new use',
    'day.hours.1.hours: more than 24 hours of E2 on 2031-03-04',
  ]);
  expect(await said(save({ ...workedDay, quantities: [{ ...workedDay.quantities[0]!, costCode: 'none' }] }))).toEqual([
    'day.quantities.0.costCode: There is no cost code none open to new use',
  ]);
  expect(await said(save(workedDay, '', { ...KEY, dated: '2031-02-30' }))).toEqual(['dated: expected a date such as 2031-04-30']);
  expect(await said(save(workedDay, '', { ...KEY, dated: '2199-03-04' }))).toEqual([
    expect.stringMatching(/^dated: 4 Mar 2199 is more than a year after/),
  ]);
  expect(await said(save(workedDay, '', { ...KEY, crew: '..' }))).toEqual(['crew: expected the name of a crew']);
  expect(await said(save(withHours(8, 8), '', { ...KEY, dated: '2031-04-01' }))).toEqual([
    'day.hours.1.dated: 2031-04-01 is after Ben Birch left, 2031-03-31',
  ]);
  await act(database, TESTER, lockJob, 'J1', true, 'Final account');
  expect(await said(save(workedDay))).toEqual([expect.stringMatching(/^job: .*locked/)]);
  expect(await said(view())).toEqual(['Job J1 has no day sheet of 2031-03-04 by Ann Ash']);
});

test('what the client signed stays: the entries under a signature and the signature itself', async () => {
  const signed = withSignature(workedDay, {
    name: 'Mr Hale',
    office: 'Hale and Sons',
    signedOn: '2031-03-04',
    strokes: '1,1 20,5;30,30',
  });
  const { seen } = await save(signed);
  expect(await said(save({ ...signed, hours: withHours(9).hours }, seen))).toEqual([
    expect.stringMatching(/^day.hours: Hours: the client signed/),
  ]);
  expect(await said(save({ ...signed, signatures: [] }, seen))).toContainEqual(expect.stringMatching(/^day.signatures: /));
  expect(await said(act(database, TESTER, deleteDaySheet, KEY, seen, null))).toEqual([
    'status: The day sheet is signed; only one that no client signed, and of which the office has changed or approved no hours, can be deleted',
  ]);
  await save({ ...signed, notes: 'More' }, seen);
  const daywork = await documentOfDaywork(reading(database), KEY, 1);
  expect((await dayworkPdf(daywork, 1)).subarray(0, 5).toString()).toBe('%PDF-');
  await expect(documentOfDaywork(reading(database), KEY, 0)).rejects.toThrow('Nothing of this day sheet is marked');
});

test('pictures come by their SHA-256, once, and only those the sheet names; they go into the PDF and the book', async () => {
  const png = Buffer.from(
    'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
    'base64',
  );
  const photo = hashOf(png);
  const { files } = besides(database);
  const send = (content: Buffer) => {
    const folder = temporaryFolder();
    writeFileSync(join(folder, 'p.png'), content);
    const received: Received = {
      folder,
      fields: {},
      files: [{ name: 'p.png', path: join(folder, 'p.png'), mediaType: 'image/png', size: 1 }],
    };
    return act(database, TESTER, addDayPhoto, KEY, received, files);
  };
  expect(await said(send(png))).toEqual(['Job J1 has no day sheet of 2031-03-04 by Ann Ash']);
  await save({ ...workedDay, photos: [{ photo, description: 'East parapet' }] });
  expect((await view()).arrived).toEqual([]);
  for (let i = 0; i < 3; i++) await send(png);
  expect((await view()).arrived).toEqual([photo]);
  expect(await said(send(Buffer.from('<svg/>')))).toEqual(['file: expected a picture, JPEG or PNG']);
  expect(await said(send(Buffer.concat([png, Buffer.from('x')])))).toEqual([expect.stringMatching(/does not name this picture/)]);
  expect((await dayPhoto(reading(database), photo, files)).type).toBe('image/png');
  const week = await documentOfWeek(reading(database), 'J1', '2031-03-06', files);
  expect([Object.keys(week.pictures), week.sheets.length, week.from]).toEqual([[photo], 1, '2031-03-03']);
  expect((await dayPdf(await documentOfDay(reading(database), KEY, files))).subarray(0, 5).toString()).toBe('%PDF-');
  // A picture that is none inside does not stop the rest.
  const broken = { ...week, pictures: { [photo]: `data:image/png;base64,${Buffer.from('\x89PNG').toString('base64')}` } };
  const workers = { run: (_name: string, document: typeof week) => dayPdf(document) };
  await expect(dayPdf(broken)).rejects.toThrow();
  expect((await printed(workers as never, broken)).subarray(0, 5).toString()).toBe('%PDF-');
  const folder = temporaryFolder();
  await writeBook(reading(database), folder, besides(database));
  expect(folderText(folder)['day_entries.csv']).toContain(photo);
});

test('the register shows days by job and flags weekdays without a sheet; the phone takes tasks, crew and the last days along', async () => {
  // The job says no day its work begins on: the first day sheet does.
  await save(withHours(8, 9.5));
  const { jobs } = await dayRegister(reading(database), '2031-03-09', '2031-03-07');
  const [j1] = jobs.filter((it) => it.job === 'J1');
  expect(j1!.days.map((it) => [it.dated.slice(8), it.missing, it.sheets.length])).toEqual([
    ['03', false, 0],
    ['04', false, 1],
    ['05', true, 0],
    ['06', true, 0],
    ['07', false, 0],
    ['08', false, 0],
    ['09', false, 0],
  ]);
  // Two people, 17.5 h, one incident; to be signed: their hours and the lift.
  expect(j1!.days[1]!.sheets[0]).toEqual({
    crew: 'Ann Ash',
    people: 2,
    hours: 175_000,
    incidents: 1,
    unsigned: 3,
    differs: false,
  });
  const pack = await phonePack(reading(database), '2031-03-10', { name: 'Ann Ash' });
  const job = pack.jobs.find((it) => it.number === 'J1')!;
  expect([job.crew, pack.usualHours, pack.sheets.map((it) => it.dated)]).toEqual([['E1', 'E2'], 80_000, ['2031-03-04']]);
  expect(job.tasks.map((it) => [it.section, it.costCode])).toContainEqual(['A', '100']);
  // 17.5 h for 12.5 m2 are 1.4 h each; in another unit nothing is measured.
  const installed = await installedOn(reading(database), await jobByNumber(reading(database), 'J1', 'job'), '2031-03-04');
  expect(installed({ section: 'A', costCode: '100', unit: 'm2' })).toEqual({
    quantity: 125_000,
    hours: 175_000,
    perUnit: 14_000,
  });
  expect(installed({ section: 'A', costCode: '100', unit: 'm' })).toBeNull();
  await act(database, TESTER, deleteDaySheet, KEY, (await view()).seen, null);
  expect((await dayRegister(reading(database), '2031-03-09', '2031-03-07')).jobs).toEqual([]);
});

test('whatever site and office do in turn, what is approved is as the office approved it, and the two differ where they say so', async () => {
  const step = fc.oneof(
    fc.record({ does: fc.constant('say' as const), hours: fc.integer({ min: 1, max: 20 }) }),
    fc.record({ does: fc.constant('change' as const), hours: fc.integer({ min: 1, max: 20 }) }),
    fc.record({
      does: fc.constantFrom('approve' as const, 'return' as const, 'take' as const, 'again' as const),
      hours: fc.constant(0),
    }),
  );
  await fc.assert(
    fc.asyncProperty(fc.array(step, { minLength: 2, maxLength: 9 }), fc.integer({ min: 1, max: 20 }), async (steps, first) => {
      const key = { ...KEY, crew: `crew ${(runs += 1)}`, dated: `2031-03-${String(10 + (runs % 20)).padStart(2, '0')}` };
      const day = (hours: number): DaySheet => ({
        ...EMPTY_DAY,
        hours: [{ ...workedDay.hours[0]!, charged: false, hours: hours * 1000 }],
      });
      await save(day(first), '', key);
      for (const { does, hours } of steps) {
        const before = await view(key);
        const sheet = await weekSheet(reading(database), before.weekSheet, key.dated);
        const ids = sheet.lines.map((it) => it.id);
        const decided = { seen: sheet.seen, lines: ids };
        const [line] = linesFor(key, day(hours).hours);
        if (does === 'say') await save(day(hours), before.seen, key);
        if (does === 'again') await save(before.day, before.seen, key);
        if (does === 'change')
          await said(
            act(database, TESTER, saveSheet, before.weekSheet, { seen: sheet.seen, week: sheet.week, lines: [line!] }, null),
          );
        if (does === 'approve') await said(act(database, TESTER, approveTime, before.weekSheet, decided, null));
        if (does === 'return') await said(act(database, TESTER, returnTime, before.weekSheet, { ...decided, reason: 'r' }, null));
        if (does === 'take')
          await said(
            act(database, TESTER, takeDayHours, key, { seen: before.seen, rows: before.differences.map(keyOfHours) }, null),
          );
        const after = await view(key);
        const fixed = before.weekHours.filter((it) => it.state === 'approved');
        if (does !== 'return') expect(after.weekHours).toEqual(expect.arrayContaining(fixed));
        if (does === 'again') expect(after).toEqual(before);
        expect(after.day).toEqual(does === 'say' ? day(hours) : before.day);
        const [here, there] = [after.day.hours, after.weekHours].map((rows) => rows.reduce((sum, it) => sum + it.hours, 0));
        expect(after.differs).toBe(here !== there);
      }
      // The day is free for the next run.
      const last = await view(key);
      const lines = (await weekSheet(reading(database), last.weekSheet, key.dated)).lines.map((it) => it.id);
      await database.write((sql) => deleteLines(sql, lines));
    }),
    { numRuns: 12 },
  );
});
let runs = 0;
