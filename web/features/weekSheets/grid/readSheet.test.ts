import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { addDays } from '../../../../core/calendar/plainDate';
import { readClock } from '../../../../core/labour/clock';
import type { TimeLists, TimeLineInput } from '../../../../wire/weekSheets';
import { employeeCode, readSheet, rowsOfLines, sheetCodecs, tidyHours, typedRow } from './readSheet';
import { sheetColumns } from './sheetColumns';
import { classWords, splitHours } from './splitHours';

const WEEK = '2031-03-03';
const lists: TimeLists = {
  employees: ['E1', 'E2'].map((employee) => ({ employee, name: employee, wageClass: '', startsOn: null, endsOn: null })),
  jobs: [{ number: 'J1', name: 'Roof', sections: ['A'], workKind: '' }],
  costCodes: [{ code: '100', description: 'Decks' }],
  workKinds: [],
  departments: [],
  rules: [{ from: '2031-01-01', dailyAfter: 80_000, doubleAfter: 100_000, weeklyAfter: 400_000, weekStarts: 'monday' }],
  me: null,
};
const codecs = sheetCodecs(lists);
const row = { employee: 'E1', job: 'J1', section: 'A', costCode: '100' };

test('times are read as hours: a finish before the start is on the next day, the break is taken off', () => {
  // 7:00 to 16:30 are 9.5 h, less half an hour; 22:00 to 6:00 are 8; 7 to 7:20 are a third of an hour.
  expect(['7-16:30-0:30', '22-6', '0700 – 0720', '8', '16-7:00-16'].map((it) => readClock(it)?.hours ?? null)).toEqual([
    ...[90_000, 80_000, 3333, 80_000],
    null,
  ]);
  // As people have them: a decimal comma, hours and minutes, half an hour without its nought, a unit.
  expect(['7,5', '8:30', '.5', '7.5h', '8:60', '1,250.5'].map((it) => readClock(it)?.hours ?? null)).toEqual([
    ...[75_000, 85_000, 5000, 75_000],
    ...[null, null],
  ]);
  expect(['0', '0.00', '0:00'].map(tidyHours)).toEqual(['', '', '']);
  expect(['7-16:30-0:30', '8', 'lots'].map(tidyHours)).toEqual(['07:00-16:30-0:30', '8', 'lots']);
});

test('a week as people have it: employees by name, nought for a day without work', () => {
  const people = [
    { ...lists.employees[0]!, name: 'Ann Ash' },
    { ...lists.employees[1]!, name: 'Ben Ash' },
  ];
  expect(['E2', 'e2', 'ben ash', 'Ash, Ann', 'Ash', ''].map((it) => employeeCode(it, people))).toEqual([
    'E2',
    'E2',
    'E2',
    'E1',
    'Ash',
    '',
  ]);
  const { lines, faults } = readSheet([{ ...row, day0: '8:30', day1: '0', day2: '0.0' }], codecs, WEEK);
  expect([lines.map((it) => [it.dated, it.hours]), faults.size]).toEqual([[[WEEK, 85_000]], 0]);
});

test('the job of the row above is proposed until hours stand in the row: such a row without a job is overhead', () => {
  const rowsNow = () => [row];
  const before = { tasks: new Map(), teams: new Map() };
  const columns = sheetColumns(lists, codecs, [], { week: WEEK, rowsNow, before, further: false, clocked: [] });
  const proposed = (typed: Record<string, string>) => columns.find((it) => it.key === 'job')?.proposes?.(typed, 1);
  expect([proposed({}), proposed({ employee: 'E2' }), proposed({ employee: 'E2', day3: '8' })]).toEqual(['J1', 'J1', null]);
});

test('each filled day is a line; what is wrong says so in its cell', () => {
  const { lines, places, faults } = readSheet(
    [
      { ...row, day0: '8', day2: '7-16-0:30' },
      { employee: 'E9', job: 'J1', day1: 'lots' },
      {},
      { ...row, employee: 'E2', day0: '20', units: '4', day1: '1' },
      { ...row, employee: 'E2', day0: '5' },
    ],
    codecs,
    WEEK,
  );
  expect(lines.map((it) => [it.employee, it.dated, it.hours, it.clock])).toEqual([
    ['E1', WEEK, 80_000, ''],
    ['E1', '2031-03-05', 85_000, '07:00-16:00-0:30'],
    ['E2', WEEK, 200_000, ''],
    ['E2', '2031-03-04', 10_000, ''],
    ['E2', WEEK, 50_000, ''],
  ]);
  expect(places.at(-1)).toEqual({ row: 4, day: 'day0' });
  expect([...faults.keys()]).toEqual(['1.employee', '1.costCode', '1.day1', '3.units', '4.day0']);
});

test('lines stand in rows and are read back the same', () => {
  const line = fc.record({
    employee: fc.constantFrom('E1', 'E2'),
    dated: fc.nat(6).map((i) => addDays(WEEK, i)),
    job: fc.constantFrom('', 'J1'),
    section: fc.constantFrom('', 'A'),
    costCode: fc.constant('100'),
    department: fc.constant('' as const),
    workKind: fc.constant(''),
    wageClass: fc.constant(''),
    pay: fc.constantFrom(null, 'overtime' as const),
    hours: fc.integer({ min: 1, max: 9 }).map((it) => it * 2500),
    units: fc.constantFrom(null, null, 40_000),
    description: fc.constantFrom('', 'Wet'),
    clock: fc.constant(''),
    charge: fc.constantFrom('' as const, 'yes' as const, 'hold' as const),
  });
  const sorted = (lines: readonly TimeLineInput[]) =>
    lines.map((it) => JSON.stringify(Object.entries(it).sort(([a], [b]) => (a < b ? -1 : 1)))).sort();
  fc.assert(
    fc.property(fc.array(line, { maxLength: 12 }), (lines) => {
      const rows = rowsOfLines(lines).map((of) => typedRow(of, codecs, WEEK));
      expect(sorted(readSheet(rows, codecs, WEEK).lines)).toEqual(sorted(lines));
    }),
  );
});

test('what is posted of somebody counts first when what is typed is split', () => {
  const { lines } = readSheet([{ ...row, day0: '9', day1: '4' }], codecs, WEEK);
  const task = { hasUnits: false, job: 'J1', section: '', costCode: '100' };
  const posted = [{ sheet: '1', employee: 'E1', dated: WEEK, pay: 'regular' as const, hours: 60_000, posted: true, ...task }];
  // 6 h of the day are there: 2 more are regular, 2 overtime up to 10, and the 5 beyond double.
  expect(splitHours(lines, posted, lists.rules, '').map(classWords)).toEqual(['2 + 2 overtime + 5 double', '4']);
  // The same where sheet 1 is entered and not posted yet: both are posted together, in the order of their sheets.
  const waiting = posted.map((it) => ({ ...it, pay: null, posted: false }));
  expect(splitHours(lines, waiting, lists.rules, '2').map(classWords)).toEqual(['2 + 2 overtime + 5 double', '4']);
  expect(splitHours(lines, waiting, lists.rules, '0').map(classWords)[0]).not.toBe('2 + 2 overtime + 5 double');
});
