import { afterAll, beforeEach, expect, test } from '@jest/globals';
import type { Database } from '../db/database';
import type { Reader } from '../db/sql';
import type { TimeLineInput } from '../../wire/weekSheets';
import { act, reading } from '../test/act';
import { cleanUp, differences, faultsOf, LABOUR_TERMS, reportLines, SMALL_BOOK, temporaryDatabase, TESTER } from '../test/books';
import { worked } from '../test/postedBodies';
import { exportedBook } from '../test/wholeBook';
import { auditPage } from '../audit/auditView';
import { lockJob } from '../jobs/jobLife';
import { correctTime, planCorrection } from './correctTime';
import { approveTime, returnTime } from './decideTime';
import { approvedOf, planPosting, postTime, previewPosting } from './postTime';
import { readyTime, timeRate } from './readyTime';
import { timeRemarks } from './timeRemarks';
import { estimateView } from '../screens/jobView';
import { explain } from '../workings/explain';
import { addSheet, saveSheet } from './saveSheet';
import { weekRegister, weekSheet, workedBefore } from './sheetViews';

let database: Database;
beforeEach(async () => {
  database = await temporaryDatabase();
  expect(await faultsOf(database, { ...SMALL_BOOK, ...LABOUR_TERMS })).toEqual([]);
});
afterAll(cleanUp);

const WEEK = '2031-03-03';
const line = (more: Partial<TimeLineInput> = {}): TimeLineInput => ({ ...worked, dated: WEEK, ...more });
const hours = (count: number) => Math.round(count * 10_000);
const add = (...lines: TimeLineInput[]) => act(database, TESTER, addSheet, { week: WEEK, lines }, null);
const view = (sheet: string, on?: string) => weekSheet(reading(database), sheet, on);
const time = (asOf = '2031-03-31') => reportLines(database, 'time-cost', asOf);
const problems = (work: Promise<unknown>) =>
  work.then(
    () => [],
    (error: { message: string; faults: { field: string; message: string }[] }) =>
      error.faults.length > 0 ? error.faults.map((it) => `${it.field}: ${it.message}`) : [error.message],
  );

async function approveAll(sheet: string) {
  const { seen, lines } = await view(sheet);
  const open = lines.filter((it) => it.state === 'submitted').map((it) => it.id);
  await act(database, TESTER, approveTime, sheet, { seen, lines: open }, null);
}

const posting = (sheets: string[], lateOn: string | null = null) =>
  previewPosting(database, '2031-03-31', async (sql) => planPosting(sql, await approvedOf(sql, sheets), lateOn));

async function post(sheets: string[], lateOn: string | null = null) {
  const { seen } = await posting(sheets, lateOn);
  return act(database, TESTER, postTime, { sheets, lateOn, leaveOut: false, seen });
}

test('a sheet goes from submitted over returned and approved to posted, and what was right stays', async () => {
  const { sheet } = await add(
    line({ hours: hours(9.5), clock: '07:00-17:00-0:30' }),
    line({ employee: 'E2', job: '', section: '', costCode: '', hours: hours(4) }),
  );
  expect(sheet).toBe('1');
  let { seen, lines } = await view(sheet);
  const [ann, ben] = lines;
  await act(database, TESTER, returnTime, sheet, { seen, lines: [ben!.id], reason: 'Not on site that day' }, null);
  ({ seen, lines } = await view(sheet));
  expect(lines.map((it) => [it.state, it.returned])).toEqual([
    ['submitted', ''],
    ['returned', 'Not on site that day'],
  ]);
  expect(await problems(act(database, TESTER, approveTime, sheet, { seen, lines: [ben!.id] }, null))).toEqual([
    'status: Line 2 is returned; only a submitted line can be approved',
  ]);
  await act(database, TESTER, approveTime, sheet, { seen, lines: [ann!.id] }, null);
  // The second of two who approve the same sheet is told.
  expect(await problems(act(database, TESTER, approveTime, sheet, { seen, lines: [ann!.id] }, null))).toEqual([
    'seen: it has changed since',
  ]);
  // What is put right is sent again; the approved line stays as it is, with its number.
  ({ seen } = await view(sheet));
  const right = line({ employee: 'E2', dated: '2031-03-04', hours: hours(4), job: '', section: '', costCode: '' });
  await act(database, TESTER, saveSheet, sheet, { seen, week: WEEK, lines: [right] }, null);
  ({ lines } = await view(sheet));
  expect(lines.map((it) => [it.line, it.dated, it.state, it.clock])).toEqual([
    ['1', WEEK, 'approved', '07:00-17:00-0:30'],
    ['2', '2031-03-04', 'submitted', ''],
  ]);
  await approveAll(sheet);
  const seenBefore = await posting([sheet]);
  expect([seenBefore.pay, seenBefore.burden, seenBefore.classes.overtime, seenBefore.entries]).toEqual([
    30_263,
    6292,
    hours(1.5),
    3,
  ]);
  // 8 × 22.50 and 1.5 × 22.50 × 1.5 with 39.20 and 7.36; 4 × 18.00 with 16.36 without a job: docs/rules.md §10.
  expect(seenBefore.journals.flatMap((it) => it.lines.map((one) => [it.dated, one.account, one.debit - one.credit]))).toEqual([
    [WEEK, '5010', 27_719],
    [WEEK, '2800', -23_063],
    [WEEK, '6090', -4656],
    ['2031-03-04', '6010', 8836],
    ['2031-03-04', '2800', -7200],
    ['2031-03-04', '6090', -1636],
  ]);
  expect(seenBefore.lines.map((it) => [it.job, it.costCode, it.after - it.before])).toEqual([['J1', '100', 27_719]]);
  await post([sheet]);
  expect(await time()).toEqual([
    `1,1,E1,${WEEK},J1,A,100,,fitter,regular,8,,22.5000,employee,180.00,39.20,219.20,regular`,
    `1,1,E1,${WEEK},J1,A,100,,fitter,overtime,1.5,,22.5000,employee,50.63,7.36,57.99,OT`,
    '1,2,E2,2031-03-04,,,,,mate,regular,4,,18.0000,class,72.00,16.36,88.36,regular',
    'TOTAL,,,,,,,,,,13.5,,,,302.63,62.92,365.55,',
  ]);
  expect(await differences(database, '2031-12-31')).toEqual(['0.00', '0.00', '0.00', '0.00', '0.00']);
  // One act is one document, with a journal a day.
  const documents = `SELECT p.reference, count(j.id) AS journals FROM posting p JOIN journal j ON j.posting_id = p.id WHERE p.kind = 'time' GROUP BY p.id`;
  expect(await reading(database).anyRows(documents)).toEqual([{ reference: '1', journals: 2 }]);
  // Pressed twice, it is posted once.
  expect(
    await problems(act(database, TESTER, postTime, { sheets: [sheet], lateOn: null, leaveOut: false, seen: seenBefore.seen })),
  ).toEqual(['seen: it has changed since']);
  const rate = await timeRate(reading(database), { sheet: '1', line: '2', pay: 'regular' });
  expect([rate.rate, rate.rung, rate.looked.filter((it) => it.found).map((it) => it.outcome)]).toEqual([
    180_000,
    'class',
    ['taken'],
  ]);
  const copy = await temporaryDatabase();
  const book = await exportedBook(database);
  expect(await faultsOf(copy, book)).toEqual([]);
  expect(await exportedBook(copy)).toEqual(book);
});

test('what people worked on in the four weeks before is there to be proposed, the newest first, with their teams', async () => {
  await add(
    line({ hours: hours(8) }),
    line({ dated: '2031-03-04', costCode: '200', hours: hours(2) }),
    line({ job: '', section: '', costCode: '' }),
  );
  const of = async (on: string) =>
    (await workedBefore(reading(database), on)).tasks.map((it) => `${it.employee} ${it.job}/${it.costCode}`);
  expect(await of('2031-03-12')).toEqual(['E1 J1/200', 'E1 J1/100']);
  // Of the week itself nothing, nor of five weeks ago.
  expect([await of('2031-03-05'), await of('2031-04-07')]).toEqual([[], []]);
  expect((await workedBefore(reading(database), WEEK)).teams).toEqual([]);
});

test('each wrong cell is answered at its place, and nothing is saved', async () => {
  expect(
    await problems(
      add(
        line({ employee: 'E9' }),
        line({ employee: 'E2', dated: '2031-04-02' }),
        line({ hours: hours(25) }),
        line({ job: 'J9', costCode: '' }),
        line({ costCode: '999', workKind: 'dig', hours: 0, dated: '2031-03-05' }),
      ),
    ),
  ).toEqual([
    'lines.0.employee: There is no employee E9',
    'lines.1.dated: 2031-04-02 is after Ben Birch left, 2031-03-31',
    'lines.1.dated: 2031-04-02 is not in the week of 2031-03-03',
    'lines.3.costCode: missing required cell: time on a job needs its cost code',
    'lines.3.job: There is no job J9',
    'lines.4.hours: expected more than 0',
    'lines.4.workKind: There is no kind of work dig',
    'lines.4.costCode: There is no cost code 999 open to new use',
    'lines.2.hours: more than 24 hours of E1 on 2031-03-03',
    'lines.3.hours: more than 24 hours of E1 on 2031-03-03',
  ]);
  expect(
    await problems(act(database, TESTER, addSheet, { week: '2031-03-05', lines: [line({ dated: '2031-03-06' })] }, null)),
  ).toEqual(['week: 2031-03-05 is not the first day of a week']);
  // 90,000,000,000 pieces at 3.20.
  const { sheet: large } = await add(line({ costCode: '200', hours: 0, units: 900_000_000_000_000 - 1 }));
  await approveAll(large);
  expect((await readyTime(reading(database))).sheets[0]?.missing.map((it) => it.message)).toEqual([
    'the cost of Ann Ash on 2031-03-03 is larger than an amount may be',
  ]);
  const empty = await weekRegister(reading(database), '2031-03-05');
  expect([empty.week, empty.sheets.length, empty.missing.map((it) => it.name)]).toEqual([WEEK, 1, ['Ben Birch']]);
});

test('what is unusual about lines is said as they are entered, once a task and once a person, and refused by nothing', async () => {
  const lines = [
    line(),
    line({ section: 'shed' }),
    line({ section: 'shed', dated: '2031-03-04' }),
    line({ costCode: '200' }),
    line({ employee: 'E2', workKind: 'weld', wageClass: 'welder', job: '', section: '', costCode: '' }),
  ];
  const said = (await timeRemarks(reading(database), lines, '2031-03-03', null)).map((it) => `${it.line} ${it.message}`);
  expect(said).toEqual([
    '1 J1 · shed · 100: job J1 has no section shed',
    '3 J1 · A · 200 has no budget for labour',
    '4 there is no pay rate for Ben Birch on 3 Mar 2031',
    '2 4 Mar 2031 is after today',
  ]);
  expect(await problems(add(...lines.slice(0, 4)))).toEqual([]);
});

test('missing rates are listed before a week is posted, and a job locked between typing and posting takes nothing', async () => {
  const { sheet } = await add(line(), line({ employee: 'E2', workKind: 'weld', wageClass: 'welder' }));
  await approveAll(sheet);
  const ready = await readyTime(reading(database));
  expect(ready.sheets.map((it) => [it.sheet, it.hours.approved, it.missing.map((one) => one.message)])).toEqual([
    ['1', hours(16), ['there is no pay rate for Ben Birch on 2031-03-03']],
  ]);
  expect((await posting([sheet])).missing).toHaveLength(1);
  const { seen } = await posting([sheet]);
  expect(await problems(act(database, TESTER, postTime, { sheets: [sheet], lateOn: null, leaveOut: false, seen }))).toEqual([
    '1/2: there is no pay rate for Ben Birch on 2031-03-03',
  ]);
  // Left out, it stays approved; what is posted is Ann's line alone: 8 h at 22.50, and burdens.
  const plan = (sql: Reader) => approvedOf(sql, [sheet]).then((lines) => planPosting(sql, lines, null, true));
  const without = await previewPosting(database, '2031-03-31', plan);
  expect([without.entries, without.pay, without.missing.length, without.leftOut]).toEqual([1, 18_000, 1, true]);
  await act(database, TESTER, postTime, { sheets: [sheet], lateOn: null, leaveOut: true, seen: without.seen });
  expect((await view(sheet)).lines.map((it) => [it.employee, it.state])).toEqual([
    ['E1', 'posted'],
    ['E2', 'approved'],
  ]);
  const other = (await add(line({ dated: '2031-03-04' }))).sheet;
  await approveAll(other);
  const shown = await posting([other]);
  await act(database, TESTER, lockJob, 'J1', true, 'dispute');
  expect(
    await problems(act(database, TESTER, postTime, { sheets: [other], lateOn: null, leaveOut: false, seen: shown.seen })),
  ).toEqual([expect.stringContaining('J1 is locked')]);
  expect(await problems(add(line({ dated: '2031-03-05' })))).toEqual([expect.stringContaining('J1 is locked')]);
  expect((await view(other)).lines.map((it) => it.state)).toEqual(['approved']);
});

test('a posted sheet is corrected in the next month: both are shown, and the day is cut again', async () => {
  const { sheet } = await add(line({ hours: hours(9.5) }), line({ employee: 'E2', hours: hours(8) }));
  await approveAll(sheet);
  await post([sheet]);
  // She worked 10 hours, one of them on code 200: 8 regular, and of the 2 more one on each line in their order.
  const correction = {
    week: WEEK,
    employees: ['E1'],
    reason: 'Hours of the deck',
    lateOn: '2031-04-01',
    lines: [line({ hours: hours(9) }), line({ costCode: '200', hours: hours(1) })],
  };
  const plan = await previewPosting(
    database,
    '2031-04-30',
    async (sql) => (await planCorrection(sql, sheet, correction, null)).planned,
  );
  expect([plan.missing, plan.hours, plan.late]).toEqual([[], hours(0.5), 5]);
  expect(await act(database, TESTER, correctTime, sheet, { ...correction, seen: plan.seen }, null)).toEqual({ sheet: '2' });
  // 1 h of overtime: 33.75, and 18 % of 22.50 and 0.85 are 4.90.
  expect((await time('2031-04-30')).at(-1)).toBe('TOTAL,,,,,,,,,,0,,,,0.00,0.00,0.00,');
  const lines = await reportLines(database, 'time-cost', '2031-03-31');
  expect(lines.slice(2)).toEqual([
    `1,2,E2,${WEEK},J1,A,100,,mate,regular,8,,18.0000,class,144.00,32.72,176.72,regular`,
    `2,1,E1,${WEEK},J1,A,100,,fitter,regular,-8,,22.5000,employee,-180.00,-39.20,-219.20,regular`,
    `2,2,E1,${WEEK},J1,A,100,,fitter,overtime,-1.5,,22.5000,employee,-50.63,-7.36,-57.99,OT`,
    `2,3,E1,${WEEK},J1,A,100,,fitter,regular,8,,22.5000,employee,180.00,39.20,219.20,regular`,
    `2,3,E1,${WEEK},J1,A,100,,fitter,overtime,1,,22.5000,employee,33.75,4.90,38.65,OT`,
    `2,4,E1,${WEEK},J1,A,200,,fitter,overtime,1,,22.5000,employee,33.75,4.90,38.65,OT`,
    expect.stringContaining('TOTAL'),
  ]);
  const [first, second] = [await view(sheet), await view('2')];
  expect([first.correctedBy, second.corrects, second.lines.map((it) => it.postedOn)]).toEqual([
    ['2'],
    ['1'],
    Array(5).fill('2031-04-01'),
  ]);
  expect(await differences(database, '2031-12-31')).toEqual(['0.00', '0.00', '0.00', '0.00', '0.00']);
  expect(await problems(act(database, TESTER, correctTime, sheet, { ...correction, seen: 'x' }, null))).toEqual([
    'employees: expected people with posted time on the sheet',
  ]);
  const copy = await temporaryDatabase();
  const book = await exportedBook(database);
  expect(await faultsOf(copy, book)).toEqual([]);
  expect(await exportedBook(copy)).toEqual(book);
});

test('sheets posted together are cut in their order, whichever was put right last', async () => {
  const first = (await add(line({ hours: hours(5) }))).sheet;
  const second = (await add(line({ hours: hours(5), costCode: '200' }))).sheet;
  // Put right, the first one's line is the newest row: it comes first all the same.
  const { seen } = await view(first);
  await act(database, TESTER, saveSheet, first, { seen, week: WEEK, lines: [line({ hours: hours(6) })] }, null);
  for (const sheet of [second, first]) await approveAll(sheet);
  await post([second, first]);
  // 8 h of the day are regular: all 6 of the first, 2 of the second.
  expect((await time()).slice(0, -1).map((it) => [0, 9, 10].map((i) => it.split(',')[i]).join(' '))).toEqual([
    '1 regular 6',
    '2 regular 2',
    '2 overtime 3',
  ]);
});

test('hours of somebody else: one is reversed, the other has them, and a sheet in between does not undo the preview', async () => {
  const { sheet } = await add(line({ hours: hours(4), pay: 'overtime' }));
  await approveAll(sheet);
  await post([sheet]);
  expect((await view(sheet)).lines.map((it) => [it.pay, it.split])).toEqual([['overtime', false]]);
  const correction = {
    week: WEEK,
    employees: ['E1'],
    reason: 'It was Ben',
    lateOn: null,
    lines: [line({ employee: 'E2', hours: hours(4), pay: 'overtime' })],
  };
  const { seen } = await previewPosting(
    database,
    '2031-03-31',
    async (sql) => (await planCorrection(sql, sheet, correction, null)).planned,
  );
  await add(line({ employee: 'E2', dated: '2031-03-06', hours: hours(1) }));
  expect(await act(database, TESTER, correctTime, sheet, { ...correction, seen }, null)).toEqual({ sheet: '3' });
  // 4 × 22.50 × 1.5 = 135.00 turned, 4 × 18.00 × 1.5 = 108.00.
  expect(await reportLines(database, 'payroll', '2031-03-31')).toEqual([
    'E1,OT,J1,0,22.5000,0.00',
    'E2,OT,J1,4,18.0000,108.00',
    'TOTAL,,,4,,108.00',
  ]);
});

test('a changed sheet leaves in the trail what it was and is; an emptied one too, and its number is not given again', async () => {
  const { sheet } = await add(line({ hours: hours(9.5) }));
  let { seen } = await view(sheet);
  await act(database, TESTER, saveSheet, sheet, { seen, week: WEEK, lines: [line({ hours: hours(8) })] }, null);
  ({ seen } = await view(sheet));
  await act(database, TESTER, saveSheet, sheet, { seen, week: WEEK, lines: [] }, null);
  const { rows } = await auditPage(reading(database), { subject: `week sheet ${sheet}` });
  const key = 'E1, 3 Mar 2031, J1 · A · 100';
  expect(rows.map((it) => it.detail)).toMatchObject([
    { was: { [key]: { hours: 80_000 } }, now: {} },
    { was: { [key]: { hours: 95_000 } }, now: { [key]: { hours: 80_000 } } },
    { now: { [key]: { hours: 95_000 } } },
  ]);
  expect((await add(line())).sheet).toBe(String(Number(sheet) + 1));
});

test('the hours of a line in its newest month are explained by week sheet, those before by month', async () => {
  const { sheet } = await add(line({ hours: hours(8) }), line({ dated: '2031-03-04', hours: hours(2) }));
  await approveAll(sheet);
  await post([sheet]);
  const sql = reading(database);
  const { lines } = await estimateView(sql, 'J1', '2031-03-31');
  const own = lines.find((it) => it.costCode === '100' && it.costType === 'labour' && it.section === 'A')!;
  const { operands, result } = await explain(sql, { figure: 'lineHoursActual', job: 'J1', line: own.id }, '2031-03-31');
  expect(operands.at(-1)).toMatchObject({
    label: `Mar 2031, week sheet ${sheet}`,
    value: hours(10),
    to: { place: 'week-sheet', document: sheet },
  });
  expect(operands.reduce((sum, it) => sum + Number(it.value), 0)).toBe(result);
});

test('overhead can be of a department, which a line of a job cannot; it goes out with the book and stays when it is corrected', async () => {
  expect(await faultsOf(database, { departments: 'department,name,closed\nROOF,Roofing,\nOLD,Old,yes\n' })).toEqual([]);
  const overhead = line({ job: '', section: '', costCode: '', department: 'ROOF', hours: hours(2) });
  expect(
    await problems(add(line({ department: 'ROOF' }), { ...overhead, department: 'OLD' }, { ...overhead, department: 'X' })),
  ).toEqual([
    'lines.0.department: time on a job counts in the department of job J1; leave it empty',
    'lines.1.department: There is no department OLD open to new use',
    'lines.2.department: There is no department X open to new use',
  ]);
  const { sheet } = await add(overhead);
  await approveAll(sheet);
  await post([sheet]);
  const week = await view(sheet);
  expect(week.lines.map((it) => [it.department, it.state])).toEqual([['ROOF', 'posted']]);
  const correction = { week: WEEK, employees: ['E1'], lines: [{ ...overhead, hours: hours(3) }], reason: 'three', lateOn: null };
  const { planned } = await planCorrection(reading(database), sheet, correction, null);
  const seen = (await previewPosting(database, '2031-03-31', () => Promise.resolve(planned))).seen;
  const { sheet: next } = await act(database, TESTER, correctTime, sheet, { ...correction, seen }, null);
  expect((await view(next)).lines.map((it) => [it.department, it.hours])).toEqual([
    ['ROOF', hours(-2)],
    ['ROOF', hours(3)],
  ]);
  const book = await exportedBook(database);
  expect((book['time.csv'] ?? book.time ?? '').split('\n').filter((it) => it.includes('ROOF'))).toHaveLength(3);
});
