import { addDays } from '../../core/calendar/plainDate';
import type { DaySheet } from '../../core/daySheets/daySheet';
import { LedrinError } from '../../core/errors/ledrinError';
import { weekBy } from '../../core/labour/overtime';
import type { TimeLineInput } from '../../wire/weekSheets';
import type { Sql } from '../db/sql';
import { loadTerms } from '../labour/terms';
import type { Command } from '../acts/command';
import type { SignedIn } from '../acts/signedIn';
import { checkLines, deleteLines, nextLine, nextSheet, writeLines } from '../weekSheets/saveSheet';
import { LAST_OF_WEEK, type LoadedLine } from '../weekSheets/sheetViews';
import { linesOfDay, sameHours, type DayHead } from './daySheetViews';
import { WEEK_SHEET_OF_CREW } from './queries';

/** Hours of a day sheet as lines of a week sheet. */
export function linesFor({ job, dated }: Pick<DayHead, 'job' | 'dated'>, hours: DaySheet['hours']): TimeLineInput[] {
  return hours.map(({ employee, section, costCode, workKind, pay, hours: worked, description, charged, signature }) => ({
    employee,
    dated,
    job,
    section,
    costCode,
    workKind,
    department: '',
    wageClass: '',
    pay,
    hours: worked,
    units: null,
    description,
    clock: '',
    // Until the client has signed for it, it waits.
    charge: !charged ? '' : signature > 0 ? 'yes' : 'hold',
  }));
}

/** Whether the office has left the lines of a day as the day sheet put them, and nothing of them is approved. */
export function areUntouched(before: DaySheet['hours'], lines: readonly LoadedLine[]): boolean {
  return lines.every((it) => it.status === 'submitted') && sameHours(before, lines);
}

/**
 * Puts the hours of a day sheet into the week sheet of its crew; gives back its number, '' where there are no hours. Where the
 * office has changed or approved what was there, its lines stay, and the two differ until somebody decides.
 */
export async function feedWeek(
  command: Command,
  head: DayHead,
  { before, after }: { before: DaySheet['hours']; after: DaySheet['hours'] },
  person: SignedIn | null,
): Promise<string> {
  const { sql } = command;
  const lines = await linesOfDay(sql, head);
  const week = weekBy((await loadTerms(sql)).rules, head.dated);
  const leave = new Set(lines.map((it) => it.id));
  const input = linesFor(head, after);
  // Also where they stay out of the week sheet: nobody is said to work 25 hours.
  await checkedHours(() => checkLines(sql, input, { week, leave, person }));
  if (
    !areUntouched(before, lines) ||
    (head.sheet !== '' && sameHours(before, lines) && JSON.stringify(before) === JSON.stringify(after))
  )
    return head.sheet;
  return replaceLines(command, head, { lines, input, week }, person);
}

interface Replaced {
  lines: readonly LoadedLine[];
  input: readonly TimeLineInput[];
  week: string;
}

/** Writes lines in place of those of the day. */
export async function replaceLines(
  command: Command,
  head: DayHead,
  { lines, input, week }: Replaced,
  person: SignedIn | null,
): Promise<string> {
  const { sql } = command;
  await deleteLines(
    sql,
    lines.map((it) => it.id),
  );
  if (input.length === 0) return '';
  const sheet = head.sheet || (await sheetOfCrew(sql, head, week));
  const first = await nextLine(sql, sheet);
  await checkedHours(() => writeLines(command, { sheet, week, lines: input, first, leave: new Set() }, person));
  return sheet;
}

/** One week sheet a crew, job and week. */
async function sheetOfCrew(sql: Sql, { jobId, crew }: DayHead, week: string): Promise<string> {
  const found = await sql.get(WEEK_SHEET_OF_CREW, [jobId, crew, week, addDays(week, LAST_OF_WEEK)]);
  return found?.sheet ?? nextSheet(sql);
}

/** Faults of lines of time, at the hours of the day sheet. */
async function checkedHours<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    if (!(error instanceof LedrinError)) throw error;
    const faults = error.faults.map(({ field, message }) => ({ field: field.replace(/^lines\./, 'day.hours.'), message }));
    throw new LedrinError(error.code, error.message, faults);
  }
}
