import { addDays } from '../../core/calendar/plainDate';
import { at } from '../../core/errors/known';
import { LedrinError } from '../../core/errors/ledrinError';
import { takes } from '../../core/jobs/takes';
import { WEEKS_BEFORE } from '../../core/labour/likelyTasks';
import { weekBy, type OvertimeRule } from '../../core/labour/overtime';
import { timeState } from '../../core/labour/timeLife';
import { PAY_CLASSES } from '../../core/labour/payClass';
import { inNameOrder, inSheetOrder } from '../../core/labour/sheets';
import { grouped } from '../../core/lists/grouped';
import type {
  DayHours,
  SheetLine,
  SheetRow,
  TaskHours,
  TimeLists,
  WeekRegister,
  WeekSheetView,
  WorkedBeforeView,
} from '../../wire/weekSheets';
import { DEPARTMENT_LIST } from '../company/queries';
import type { RowOf } from '../db/fields';
import type { Reader } from '../db/sql';
import { jobByNumber } from '../jobs/jobByNumber';
import { JobTable } from '../jobs/models';
import { labourTasks } from '../labour/labourTasks';
import { EmployeeTable, WorkKindTable } from '../labour/models';
import { loadTerms } from '../labour/terms';
import { digestOf } from '../versions/digest';
import { withReminders } from './reminders';
import {
  CODES_FOR_TIME,
  EMPLOYEES_OF_TEAMS,
  HOURS_OF_DAYS,
  JOBS_FOR_TIME,
  LINES_OF_DAYS,
  LINES_OF_SHEET,
  OPEN_LINES_BEFORE,
  TASKS_OF_DAYS,
  WAITING_HOURS,
} from './queries';

export type LoadedLine = RowOf<typeof LINES_OF_SHEET>;

export const LAST_OF_WEEK = 6;

export function shownLine(it: LoadedLine): SheetLine {
  return {
    id: it.id,
    line: it.line,
    employee: it.employee,
    dated: it.dated,
    postedOn: it.postedOn,
    job: it.job,
    section: it.section,
    costCode: it.costCode,
    workKind: it.workKind,
    department: it.department,
    wageClass: it.wageClass,
    pay: it.pay,
    hours: it.hours,
    units: it.units,
    description: it.description,
    clock: it.clock,
    charge: it.charge,
    state: timeState(it),
    returned: it.returned,
    reverses: it.reverses,
    reversedBy: it.reversedBy,
    split: it.split === 1,
  };
}

/** What a page was shown of lines: whatever changes of them since is noticed. */
export function seenOf(lines: readonly LoadedLine[]): string {
  return digestOf(lines.map(shownLine));
}

export async function linesOfSheet(sql: Reader, sheet: string): Promise<LoadedLine[]> {
  const rank = (it: LoadedLine) => (it.pay === null ? -1 : PAY_CLASSES.indexOf(it.pay));
  return (await sql.all(LINES_OF_SHEET, [sheet])).sort((a, b) => inSheetOrder(a, b) || rank(a) - rank(b));
}

export async function weekSheet(sql: Reader, sheet: string, on: string | undefined): Promise<WeekSheetView> {
  const all = await linesOfSheet(sql, sheet);
  if (all.length === 0) throw new LedrinError('not-found', `There is no time on a sheet ${sheet.slice(0, 40)}`);
  const { rules } = await loadTerms(sql);
  const weeks = [...new Set(all.map((it) => weekBy(rules, it.dated)))].sort();
  const asked = on === undefined ? undefined : weekBy(rules, on);
  const week = asked !== undefined && weeks.includes(asked) ? asked : at(weeks, 0);
  const lines = all.filter((it) => weekBy(rules, it.dated) === week);
  return {
    sheet,
    seen: seenOf(lines),
    weeks,
    week,
    lines: lines.map(shownLine),
    corrects: sheetsIn(lines.map((it) => it.reverses)),
    correctedBy: sheetsIn(lines.map((it) => it.reversedBy)),
  };
}

/** The sheets that names such as 7/1/regular are of. */
function sheetsIn(names: readonly (string | null)[]): string[] {
  const sheets = names.flatMap((it) => (it === null ? [] : [it.split('/').slice(0, -2).join('/')]));
  return [...new Set(sheets)].sort(inNameOrder);
}

export function sheetRows(lines: readonly LoadedLine[], rules: readonly OvertimeRule[]): SheetRow[] {
  return [...grouped(lines, (it) => `${it.sheet}\n${weekBy(rules, it.dated)}`).values()]
    .map((of): SheetRow => {
      const hours = { submitted: 0, returned: 0, approved: 0, posted: 0 };
      for (const it of of) hours[timeState(it)] += it.hours;
      const { sheet, dated } = at(of, 0);
      return { sheet, week: weekBy(rules, dated), employees: [...new Set(of.map((it) => it.name))].sort(), hours };
    })
    .sort((a, b) => (a.week < b.week ? -1 : a.week > b.week ? 1 : inNameOrder(a.sheet, b.sheet)));
}

/** Who is employed in a week, by its first day, and has no hours in it. */
export async function missingIn(sql: Reader, week: string): Promise<{ employee: string; name: string }[]> {
  const last = addDays(week, LAST_OF_WEEK);
  const there = new Set((await sql.all(HOURS_OF_DAYS, [week, last])).map((it) => it.employee));
  return (await sql.find(EmployeeTable, {}, ['name']))
    .filter((it) => (it.starts_on ?? '') <= last && (it.ends_on ?? last) >= week && !there.has(it.code))
    .map((it) => ({ employee: it.code, name: it.name }));
}

/** The sheets of the week a day lies in, who is missing, and what earlier weeks still have open. */
export async function weekRegister(sql: Reader, on: string): Promise<WeekRegister> {
  const { rules } = await loadTerms(sql);
  const week = weekBy(rules, on);
  return {
    week,
    sheets: sheetRows(await sql.all(LINES_OF_DAYS, [week, addDays(week, LAST_OF_WEEK)]), rules),
    missing: await withReminders(sql, week, await missingIn(sql, week)),
    earlier: sheetRows(await sql.all(OPEN_LINES_BEFORE, [week]), rules),
  };
}

export async function timeLists(sql: Reader, person: { name: string } | null): Promise<TimeLists> {
  const employees = await sql.find(EmployeeTable, {}, ['name']);
  const jobs = await sql.all(JOBS_FOR_TIME);
  return {
    employees: employees.map((it) => ({
      employee: it.code,
      name: it.name,
      wageClass: it.wage_class,
      startsOn: it.starts_on,
      endsOn: it.ends_on,
    })),
    jobs: jobs
      .filter((it) => takes(it, 'time'))
      .map(({ number, name, workKind, sections }) => ({ number, name, workKind, sections: JSON.parse(sections) as string[] })),
    costCodes: await sql.all(CODES_FOR_TIME),
    workKinds: (await sql.find(WorkKindTable, {}, ['code'])).map((it) => ({ workKind: it.code, description: it.description })),
    departments: await sql.all(DEPARTMENT_LIST),
    rules: (await loadTerms(sql)).rules,
    me: employees.find((it) => it.name === person?.name)?.code ?? null,
  };
}

/** Hours of everybody in the week a day lies in, one row a sheet, day and class. */
export async function hoursOfWeek(sql: Reader, on: string): Promise<{ hours: DayHours[] }> {
  const week = weekBy((await loadTerms(sql)).rules, on);
  // Weeks that begin on another day reach back before this one.
  const lines = await sql.all(HOURS_OF_DAYS, [addDays(week, -LAST_OF_WEEK), addDays(week, LAST_OF_WEEK)]);
  const ofTask = ({ sheet, line, employee, dated, pay, posted, hasUnits, job, section, costCode }: (typeof lines)[number]) =>
    // What is not posted is cut line by line, in the order of its sheet.
    JSON.stringify([sheet, posted ? '' : line, employee, dated, pay, posted, hasUnits, job, section, costCode]);
  return {
    hours: [...grouped(lines.sort(inSheetOrder), ofTask).values()].map((of): DayHours => {
      const { sheet, employee, dated, pay, posted, hasUnits, job, section, costCode } = at(of, 0);
      return {
        sheet,
        employee,
        dated,
        pay,
        posted: posted === 1,
        hasUnits: hasUnits === 1,
        job,
        section,
        costCode,
        hours: of.reduce((sum, it) => sum + it.hours, 0),
      };
    }),
  };
}

/** What people worked on in the weeks before the week a day lies in, and whose teams they are on. */
export async function workedBefore(sql: Reader, on: string): Promise<WorkedBeforeView> {
  const week = weekBy((await loadTerms(sql)).rules, on);
  return {
    tasks: await sql.all(TASKS_OF_DAYS, [addDays(week, -7 * WEEKS_BEFORE), addDays(week, -1)]),
    teams: await sql.all(EMPLOYEES_OF_TEAMS),
  };
}

/** Hours of the tasks of jobs, without money. */
export async function taskHours(sql: Reader, numbers: string, asOf: string): Promise<{ tasks: TaskHours[] }> {
  const tasks: TaskHours[] = [];
  for (const { number } of await sql.find(JobTable, { number: numbers.split(',') }, ['number'])) {
    const job = await jobByNumber(sql, number, 'job');
    const waiting = await sql.all(WAITING_HOURS, [job.id]);
    for (const { section, costCode, description, progress } of await labourTasks(sql, job, asOf))
      tasks.push({
        job: number,
        section,
        costCode,
        description,
        budgeted: progress.budgeted,
        used: progress.used,
        waiting: waiting
          .filter((it) => it.section === section && it.costCode === costCode)
          .map(({ sheet, hours }) => ({ sheet, hours })),
      });
  }
  return { tasks };
}
