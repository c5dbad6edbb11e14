import { addDays } from '../../../../core/calendar/plainDate';
import { isNoTime, readClock } from '../../../../core/labour/clock';
import { withDisplayDates } from '../../../../core/calendar/displayDate';
import { CHARGE_MARKS } from '../../../../core/charging/chargeMark';
import { PAY_CLASSES } from '../../../../core/labour/payClass';
import { beyondTheDay } from '../../../../core/labour/timeFaults';
import { grouped } from '../../../../core/lists/grouped';
import { displayQuantity } from '../../../../core/money/display';
import type { SheetLine, TimeLineInput, TimeLists } from '../../../../wire/weekSheets';
import { rowsUnderKeys } from '../../../kit/draft/useDraftParts';
import { filledBeside } from '../../../kit/grid/filledRow';
import { ROW_KEY, type GridRow } from '../../../kit/grid/gridTypes';
import { readCells } from '../../../kit/grid/rowCodecs';
import { among, oneOf, optional, quantity, words, type Codec, type Faults } from '../../../kit/typed/codecs';

/** The days of a week sheet, as columns. */
export const DAYS = [0, 1, 2, 3, 4, 5, 6].map((i) => `day${i}`);

/** Hours of a day: a number, or start – finish – break. */
export const dayHours: Codec<number> = {
  ...quantity,
  parse: (text) => {
    const read = readClock(text);
    if (read) return { ok: true, value: read.hours };
    return { ok: false, message: `"${text}" is neither hours nor times such as 7:00-16:30-0:30` };
  },
};

/** What is typed for a day as it is saved: the times where there are any, else the hours. */
export function tidyHours(text: string): string {
  if (isNoTime(text)) return '';
  const read = readClock(text);
  return read ? read.clock || displayQuantity(read.hours) : text;
}

const wordsOf = (name: string) =>
  name
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean)
    .sort()
    .join(' ');

/** The code of an employee named by it or by name, in whatever order the words of the name stand; else the text as it is. */
export function employeeCode(text: string, employees: TimeLists['employees']): string {
  const typed = text.trim();
  if (typed === '' || employees.some((it) => it.employee === typed)) return typed;
  const named = employees.filter(
    (it) => wordsOf(it.name) === wordsOf(typed) || it.employee.toLowerCase() === typed.toLowerCase(),
  );
  return named.length === 1 ? (named[0]?.employee ?? typed) : typed;
}

export function sheetCodecs(lists: TimeLists) {
  const listed = (codes: readonly string[], what: string) => optional(among(new Set(codes), what), '');
  return {
    employee: among(new Set(lists.employees.map((it) => it.employee)), 'employee'),
    job: listed(
      lists.jobs.map((it) => it.number),
      'job that takes time',
    ),
    section: words(),
    costCode: listed(
      lists.costCodes.map((it) => it.code),
      'cost code',
    ),
    workKind: listed(
      lists.workKinds.map((it) => it.workKind),
      'kind of work',
    ),
    department: listed(
      lists.departments.map((it) => it.code),
      'department',
    ),
    wageClass: words(),
    pay: optional(oneOf(PAY_CLASSES), null),
    units: optional(quantity, null),
    description: words(),
    charge: optional(oneOf(CHARGE_MARKS), ''),
  };
}
export type SheetCodecs = ReturnType<typeof sheetCodecs>;

export const isTyped = filledBeside('returned');

export interface ReadSheet {
  lines: TimeLineInput[];
  /** The row and the day each line came from. */
  places: { row: number; day: string }[];
  faults: Faults;
}

/** Reads the rows of a week that begins on `week`: each filled day is a line. Faults by `row.column`. */
export function readSheet(rows: readonly GridRow[], codecs: SheetCodecs, week: string): ReadSheet {
  const read: ReadSheet = { lines: [], places: [], faults: new Map() };
  const dates = DAYS.map((_, i) => addDays(week, i));
  rows.forEach((typed, row) => {
    if (!isTyped(typed)) return;
    const { section, ...cells } = readCells(codecs, typed, read.faults, `${row}.`);
    const days = DAYS.filter((it) => (typed[it] ?? '').trim() !== '' && !isNoTime(typed[it] ?? ''));
    const fault = (column: string, message: string) => void read.faults.set(`${row}.${column}`, message);
    if (cells.job !== '' && cells.costCode === '') fault('costCode', 'Time on a job needs its cost code');
    if (cells.job === '' && (cells.charge === 'yes' || cells.charge === 'hold')) fault('charge', 'Only time on a job is charged');
    if (cells.job !== '' && cells.department !== '') fault('department', 'Time on a job counts in the department of the job');
    if (days.length === 0) fault(DAYS[0] ?? '', 'Expected the hours of a day');
    if (cells.units !== null && days.length > 1) fault('units', 'Units are of one day; use a row for each day');
    for (const day of days) {
      const clock = readClock(typed[day] ?? '');
      if (!clock) {
        fault(day, `"${typed[day]}" is neither hours nor times such as 7:00-16:30-0:30`);
        continue;
      }
      read.lines.push({ ...cells, section, dated: dates[DAYS.indexOf(day)] ?? week, ...clock });
      read.places.push({ row, day });
    }
  });
  const placed = read.lines.map((line, i) => ({ ...line, at: read.places[i] }));
  for (const { line, message } of beyondTheDay(placed, []))
    if (line.at) read.faults.set(`${line.at.row}.${line.at.day}`, withDisplayDates(message));
  return read;
}

/** What lines of one row share. */
export const rowKey = (it: TimeLineInput) =>
  JSON.stringify([
    it.employee,
    it.job,
    it.section,
    it.costCode,
    it.workKind,
    it.department,
    it.wageClass,
    it.pay,
    it.units,
    it.description,
    it.charge,
  ]);

/** Lines that stand in one row: one of a day at most. */
export function rowsOfLines<Line extends TimeLineInput>(
  lines: readonly Line[],
  keyOf: (line: Line) => string = rowKey,
): Line[][] {
  return [...grouped(lines, keyOf).values()].flatMap((of) => {
    const rows: Line[][] = [];
    for (const line of of) {
      const free = rows.find((row) => line.units === null && row.every((it) => it.dated !== line.dated));
      if (free) free.push(line);
      else rows.push([line]);
    }
    return rows;
  });
}

/** Lines as rows to type on, each under a key that it has whenever these lines are opened again. */
export function keyedRows(
  lines: readonly (TimeLineInput & Partial<Pick<SheetLine, 'returned'>>)[],
  codecs: SheetCodecs,
  week: string,
): GridRow[] {
  return rowsUnderKeys(
    rowsOfLines(lines),
    ([first]) => (first ? rowKey(first) : ''),
    (of) => typedRow(of, codecs, week),
  );
}

/** The row of lines as it is typed. */
export function typedRow(
  lines: readonly (TimeLineInput & Partial<Pick<SheetLine, 'returned'>>)[],
  codecs: SheetCodecs,
  week: string,
): GridRow {
  const [first] = lines;
  if (!first) return {};
  const days = DAYS.map((day, i) => {
    const line = lines.find((it) => it.dated === addDays(week, i));
    return [day, line ? line.clock || displayQuantity(line.hours) : ''] as const;
  });
  const returned = lines.map((it) => it.returned ?? '').find((it) => it !== '') ?? '';
  return {
    ...Object.fromEntries(
      Object.entries(codecs).map(([key, codec]) => [key, (codec as Codec<unknown>).format(first[key as keyof SheetCodecs])]),
    ),
    ...Object.fromEntries(days),
    ...(returned === '' ? {} : { returned }),
  };
}

/** A row without its hours, such as last week's. */
export function withoutHours(row: GridRow): GridRow {
  return { ...row, [ROW_KEY]: '', returned: '', units: '', ...Object.fromEntries(DAYS.map((it) => [it, ''])) };
}
