import { addDays, type PlainDate } from '../../core/calendar/plainDate';
import { known, present } from '../../core/errors/known';
import { LedrinError, type Fault } from '../../core/errors/ledrinError';
import { refuse } from '../../core/refusals/refusal';
import { takesRefusal } from '../../core/jobs/takes';
import { weekBy } from '../../core/labour/overtime';
import { TIME_LIFE, timeState } from '../../core/labour/timeLife';
import { movesFrom } from '../../core/life/life';
import { beyondTheDay, timeFaults } from '../../core/labour/timeFaults';
import { seesAllJobs } from '../../core/rights/rights';
import type { TimeLineInput } from '../../wire/weekSheets';
import { DepartmentTable } from '../company/models';
import { openCostCodeIds } from '../costs/costCodes';
import { JOBS_TO_POST_TO } from '../costs/queries';
import type { NewRow } from '../db/fields';
import { nextId, type Reader, type Sql } from '../db/sql';
import { assertNoFaults, faultsOf } from '../acts/refused';
import { assertOfTeam } from '../jobs/restricted';
import { EmployeeTable, TimeLineTable, WageClassTable, WorkKindTable } from '../labour/models';
import { loadTerms } from '../labour/terms';
import type { Command } from '../acts/command';
import { JOBS_OF_TEAM } from '../users/queries';
import type { SignedIn } from '../acts/signedIn';
import { assertUnchanged } from '../versions/staleness';
import { notedLines } from './notedLines';
import { DELETE_LINES, HOURS_OF_DAYS, LAST_SHEET } from './queries';
import { LAST_OF_WEEK, linesOfSheet, shownLine, type LoadedLine } from './sheetViews';

/** The jobs somebody sees, by their ids; null for all. Commands see the whole books and ask here. */
export async function seenJobs(sql: Reader, person: SignedIn | null): Promise<ReadonlySet<number> | null> {
  if (person === null || seesAllJobs(person)) return null;
  return new Set((await sql.all(JOBS_OF_TEAM, [person.name])).map((it) => it.id));
}

/** The lines of a sheet in a week that somebody sees: of their jobs, and of none. */
export async function seenLines(sql: Reader, sheet: string, week: PlainDate, person: SignedIn | null): Promise<LoadedLine[]> {
  const jobs = await seenJobs(sql, person);
  const { rules } = await loadTerms(sql);
  return (await linesOfSheet(sql, sheet)).filter(
    (it) => weekBy(rules, it.dated) === week && (jobs === null || it.jobId === null || jobs.has(it.jobId)),
  );
}

/** A new sheet of a week; gives back its number, the next that is free. */
export async function addSheet(
  command: Command,
  { week, lines }: { week: PlainDate; lines: TimeLineInput[] },
  person: SignedIn | null,
): Promise<{ sheet: string }> {
  if (lines.length === 0)
    throw new LedrinError('bad-input', 'There are no hours on it yet', [{ field: 'lines', message: 'expected hours' }]);
  const sheet = await nextSheet(command.sql);
  await writeLines(command, { sheet, week, lines, first: 1, leave: new Set() }, person);
  command.note(subjectOf(sheet), { week, now: notedLines(lines) });
  return { sheet };
}

export async function nextSheet(sql: Reader): Promise<string> {
  return String(present(await sql.get(LAST_SHEET)).last + 1);
}

/** The number of the next line of a sheet. */
export async function nextLine(sql: Reader, sheet: string): Promise<number> {
  const names = (await linesOfSheet(sql, sheet)).map((it) => (/^\d{1,15}$/.test(it.line) ? Number(it.line) : 0));
  return Math.max(0, ...names) + 1;
}

export const subjectOf = (sheet: string) => `week sheet ${sheet}`;

/** Writes over the lines of a week that are not approved yet; what is approved or posted stays, and so do lines of jobs not seen. */
export async function saveSheet(
  command: Command,
  sheet: string,
  { seen, week, lines }: { seen: string; week: PlainDate; lines: TimeLineInput[] },
  person: SignedIn | null,
): Promise<void> {
  const { sql } = command;
  const there = await seenLines(sql, sheet, week, person);
  await assertUnchangedSheet(command, sheet, there, seen);
  const before = there.filter((it) => movesFrom(TIME_LIFE, timeState(it)).change);
  const open = before.map((it) => it.id);
  await deleteLines(sql, open);
  await writeLines(command, { sheet, week, lines, first: await nextLine(sql, sheet), leave: new Set(open) }, person);
  command.note(subjectOf(sheet), { week, was: notedLines(before.map(shownLine)), now: notedLines(lines) });
}

export function assertUnchangedSheet(command: Command, sheet: string, lines: readonly LoadedLine[], seen: string): Promise<void> {
  if (lines.length === 0) throw new LedrinError('not-found', `There is no time on a sheet ${sheet.slice(0, 40)} any more`);
  return assertUnchanged(command, `Week sheet ${sheet}`, { subject: subjectOf(sheet), now: lines.map(shownLine), seen });
}

interface SheetToWrite {
  sheet: string;
  week: PlainDate;
  lines: readonly TimeLineInput[];
  /** The number of the first line. */
  first: number;
  /** Lines that were there and give way. */
  leave: ReadonlySet<number>;
}

/** Checks lines and writes them, submitted. Throws bad-input with every fault by line and field. */
export async function writeLines(
  command: Command,
  { sheet, lines, first, ...rest }: SheetToWrite,
  person: SignedIn | null,
): Promise<void> {
  const { sql, actor } = command;
  const checked = await checkLines(sql, lines, { ...rest, person });
  await assertOfTeam(sql, actor, [...new Set(checked.flatMap((it) => it.jobId ?? []))]);
  const id = await nextId(sql, TimeLineTable);
  await sql.insertAll(
    TimeLineTable,
    checked.map((it, i) => lineValues(it, { id: id + i, sheet, line: String(first + i), status: 'submitted' })),
  );
}

export type CheckedLine = TimeLineInput & {
  employeeId: number;
  name: string;
  employeeClass: string;
  jobId: number | null;
  costCodeId: number | null;
  workKindId: number | null;
  departmentId: number | null;
};

/** A line as it is saved while it is not posted. */
export function lineValues(
  it: CheckedLine,
  named: { id: number; sheet: string; line: string; status: 'submitted' | 'approved' },
): NewRow<typeof TimeLineTable> {
  return {
    ...named,
    employee_id: it.employeeId,
    dated: it.dated,
    posted_on: it.dated,
    job_id: it.jobId,
    section: it.section,
    cost_code_id: it.costCodeId,
    work_kind_id: it.workKindId,
    department_id: it.departmentId,
    wage_class: it.wageClass,
    pay: it.pay,
    hours: it.hours,
    units: it.units,
    description: it.description,
    clock: it.clock,
    charge: it.charge,
    returned: '',
  };
}

interface Checking {
  week: PlainDate;
  leave: ReadonlySet<number>;
  person: SignedIn | null;
}

/** Checks lines as they are entered; throws with all faults, by line and field. */
export async function checkLines(sql: Reader, lines: readonly TimeLineInput[], checking: Checking): Promise<CheckedLine[]> {
  const { week, leave, person } = checking;
  const employees = new Map((await sql.find(EmployeeTable, {})).map((it) => [it.code, it]));
  const kinds = new Map((await sql.find(WorkKindTable, {})).map((it) => [it.code, it.id]));
  const departments = new Map((await sql.find(DepartmentTable, { closed: 0 })).map((it) => [it.code, it.id]));
  const classes = new Set((await sql.find(WageClassTable, {})).map((it) => it.code));
  const codes = await openCostCodeIds(sql);
  const seen = await seenJobs(sql, person);
  const jobs = new Map((await sql.all(JOBS_TO_POST_TO)).filter((it) => seen?.has(it.id) ?? true).map((it) => [it.number, it]));
  const last = addDays(week, LAST_OF_WEEK);
  const faults: Fault[] = [];
  if (weekBy((await loadTerms(sql)).rules, week) !== week)
    faults.push({ field: 'week', message: `${week} is not the first day of a week` });
  lines.forEach((line, i) => {
    const add = (field: string, message: string) => faults.push({ field: `lines.${i}.${field}`, message });
    const employee = employees.get(line.employee);
    if (!employee) add('employee', `There is no employee ${line.employee}`);
    else
      for (const { at, message } of timeFaults(
        line,
        { name: employee.name, startsOn: employee.starts_on, endsOn: employee.ends_on },
        false,
      ))
        add(at, message);
    if (line.dated < week || line.dated > last) add('dated', `${line.dated} is not in the week of ${week}`);
    if (line.units !== null && line.units < 0) add('units', 'expected 0 or more');
    if (line.workKind !== '' && !kinds.has(line.workKind)) add('workKind', `There is no kind of work ${line.workKind}`);
    if (line.wageClass !== '' && classes.size > 0 && !classes.has(line.wageClass))
      add('wageClass', `There is no wage class ${line.wageClass}`);
    if (line.department !== '' && !departments.has(line.department))
      add('department', `There is no department ${line.department} open to new use`);
    if (line.costCode !== '' && !codes.has(line.costCode))
      add('costCode', `There is no cost code ${line.costCode} open to new use`);
    if (line.job === '' && (line.charge === 'yes' || line.charge === 'hold'))
      faults.push(
        ...faultsOf([refuse('charge-without-job', 'charge', {})], 0).map((it) => ({ ...it, field: `lines.${i}.${it.field}` })),
      );
    if (line.job === '') return;
    const job = jobs.get(line.job);
    if (!job) add('job', `There is no job ${line.job}${seen === null ? '' : ' among those of your team'}`);
    const jobRefusal = job && takesRefusal(job, 'time');
    if (jobRefusal) for (const it of faultsOf([jobRefusal], 0)) add(it.field, it.message);
  });
  const there = (await sql.all(HOURS_OF_DAYS, [week, last])).filter((it) => !leave.has(it.id));
  const placed = lines.map((line, i) => ({ ...line, i }));
  for (const { line, message } of beyondTheDay(placed, there)) faults.push({ field: `lines.${line.i}.hours`, message });
  assertNoFaults(faults);
  return lines.map((line): CheckedLine => {
    const { id, name, wage_class: employeeClass } = known(employees, line.employee);
    return {
      ...line,
      employeeId: id,
      name,
      employeeClass,
      jobId: line.job === '' ? null : known(jobs, line.job).id,
      costCodeId: line.costCode === '' ? null : known(codes, line.costCode),
      workKindId: line.workKind === '' ? null : known(kinds, line.workKind),
      departmentId: line.department === '' ? null : known(departments, line.department),
    };
  });
}

/** Deletes lines that are not posted, by their ids. */
export async function deleteLines(sql: Sql, ids: readonly number[]): Promise<void> {
  await sql.run(DELETE_LINES, [JSON.stringify(ids)]);
}
