import { DAY_LIFE, dayState } from '../../core/daySheets/dayLife';
import * as v from 'valibot';
import { crewName } from '../../wire/daySheets';
import { isEnteredDate } from '../../core/calendar/plainDate';
import { brokenSignatures, EMPTY_DAY, ENTRY_KINDS, type DaySheet } from '../../core/daySheets/daySheet';
import { hoursDiffer, keyOfHours, type HoursOf } from '../../core/daySheets/hoursDiffer';
import { PART_TITLES } from '../../core/daySheets/dayWords';
import { known } from '../../core/errors/known';
import { LedrinError, type Fault } from '../../core/errors/ledrinError';
import { hasRight } from '../../core/rights/rights';
import { takesRefusal } from '../../core/jobs/takes';
import { openCostCodeIds } from '../costs/costCodes';
import type { NewRow } from '../db/fields';
import type { Sql } from '../db/sql';
import { assertAllowed, assertNoFaults, assertMove } from '../acts/refused';
import { jobByNumber, type JobIdentity } from '../jobs/jobByNumber';
import { assertOfTeam } from '../jobs/restricted';
import { EmployeeTable, WorkKindTable } from '../labour/models';
import { loadTerms } from '../labour/terms';
import { weekBy } from '../../core/labour/overtime';
import type { Command } from '../acts/command';
import { assertNotFarAhead } from '../ledger/gate';
import type { SignedIn } from '../acts/signedIn';
import { assertUnchanged } from '../versions/staleness';
import {
  dayHead,
  daysOf,
  linesOfDay,
  officeHours,
  noSheet,
  sameHours,
  seenOfDay,
  textOfDay,
  type DayHead,
  type DayKey,
} from './daySheetViews';
import { areUntouched, feedWeek, linesFor, replaceLines } from './feedWeek';
import { DayEntryTable, DaySheetTable, DaySignatureTable } from './models';
import { DELETE_DAY_ENTRIES } from './queries';

export const subjectOfDay = ({ job, dated, crew }: DayKey) => `day sheet ${job} ${dated} ${crew}`;
const LONGEST_LEFT_OUT = 20_000;

/**
 * Writes a day sheet, over what was `seen` of it. The same sent again changes nothing, however often. Throws conflict where
 * somebody else changed it meanwhile: whoever sends brings the two together and sends again.
 */
export async function saveDaySheet(
  command: Command,
  key: DayKey,
  { seen, day, leftOut }: { seen: string; day: DaySheet; leftOut: string },
  person: SignedIn | null,
): Promise<{ seen: string; differs: boolean }> {
  const { sql, actor } = command;
  command.compared();
  const job = await jobOfDay(command, key);
  const head = await dayHead(sql, key);
  const before = head ? known(await daysOf(sql, [head]), head.id) : EMPTY_DAY;
  if (head && seenOfDay(day) === seenOfDay(before) && head.leftOut.includes(leftOut)) return answerOf(sql, head, day);
  if (head) await assertSeen(command, key, before, seen);
  assertNoFaults(signedFaults(before, day));
  const id = head?.id ?? (await insertHead(command, key, job));
  const there = known(new Map((await daysHeads(sql, key)).map((it) => [it.id, it])), id);
  const sheet = await feedWeek(command, there, { before: before.hours, after: day.hours }, person);
  await writeEntries(sql, id, day);
  await sql.update(
    DaySheetTable,
    { id },
    {
      weather: day.weather,
      notes: day.notes,
      sheet,
      written_by: actor.name,
      written_at: actor.at,
      left_out: joined(there.leftOut, leftOut),
    },
  );
  command.note(subjectOfDay(key), head ? { was: before, now: day } : { now: day });
  return answerOf(sql, { ...there, sheet }, day);
}

const daysHeads = async (sql: Sql, key: DayKey) => [await dayHead(sql, key)].flatMap((it) => it ?? []);

async function answerOf(sql: Sql, head: DayHead, day: DaySheet): Promise<{ seen: string; differs: boolean }> {
  return { seen: seenOfDay(day), differs: !sameHours(day.hours, await linesOfDay(sql, head)) };
}

/** What was left out, once, however often it is sent. */
function joined(there: string, more: string): string {
  if (more === '' || there.includes(more)) return there;
  return (there === '' ? more : `${there}\n${more}`).slice(-LONGEST_LEFT_OUT);
}

/** The job, where a day sheet can be written of that day by that crew. */
async function jobOfDay({ sql, actor }: Command, { job: number, dated, crew }: DayKey): Promise<JobIdentity> {
  const faults: Fault[] = [];
  if (!isEnteredDate(dated)) faults.push({ field: 'dated', message: 'expected a date such as 2031-04-30' });
  const named = v.safeParse(crewName, crew);
  if (!named.success) faults.push({ field: 'crew', message: named.issues[0].message });
  else if (named.output !== crew) faults.push({ field: 'crew', message: 'expected no blanks before or after the name' });
  assertNoFaults(faults);
  const job = await jobByNumber(sql, number, 'job');
  assertAllowed([takesRefusal(job, 'daySheets')]);
  await assertOfTeam(sql, actor, [job.id]);
  await assertNotFarAhead(sql, actor, dated, [job.id]);
  return job;
}

function assertSeen(command: Command, key: DayKey, now: DaySheet, seen: string): Promise<void> {
  return assertUnchanged(command, 'This day sheet', { subject: subjectOfDay(key), now: textOfDay(now), seen });
}

function signedFaults(before: DaySheet, after: DaySheet): Fault[] {
  const numbers = new Set(after.signatures.map((it) => it.number));
  const faults: Fault[] = brokenSignatures(before, after).map((part) => ({
    field: `day.${part}`,
    message: `${PART_TITLES[part]}: the client signed this; what is signed stays. Enter the difference as a row of its own`,
  }));
  if (numbers.size < after.signatures.length) faults.push({ field: 'day.signatures', message: 'two signatures have one number' });
  for (const part of ['hours', 'equipment', 'deliveries'] as const)
    after[part].forEach((it, i) => {
      if (it.signature > 0 && (!it.charged || !numbers.has(it.signature)))
        faults.push({ field: `day.${part}.${i}.signature`, message: `there is no signature ${it.signature} of charged entries` });
    });
  return faults;
}

function insertHead({ sql, actor }: Command, { dated, crew }: DayKey, job: JobIdentity): Promise<number> {
  return sql.insert(DaySheetTable, { job_id: job.id, dated, crew, written_by: actor.name, written_at: actor.at });
}

/** Writes the entries anew, and the signatures that are new. */
async function writeEntries(sql: Sql, id: number, day: DaySheet): Promise<void> {
  const employees = new Map((await sql.find(EmployeeTable, {})).map((it) => [it.code, it.id]));
  const kinds = new Map((await sql.find(WorkKindTable, {})).map((it) => [it.code, it.id]));
  const codes = await openCostCodeIds(sql);
  assertNoFaults(
    day.quantities.flatMap((it, i) =>
      codes.has(it.costCode)
        ? []
        : [{ field: `day.quantities.${i}.costCode`, message: `There is no cost code ${it.costCode} open to new use` }],
    ),
  );
  await sql.run(DELETE_DAY_ENTRIES, [id]);
  const named = (from: ReadonlyMap<string, number>, code: unknown) =>
    typeof code === 'string' && code !== '' ? known(from, code) : null;
  const rows = ENTRY_KINDS.flatMap((kind) =>
    (day[kind] as unknown as Record<string, unknown>[]).map((row) => ({
      day_sheet_id: id,
      kind,
      employee_id: named(employees, row.employee),
      section: row.section ?? '',
      cost_code_id: named(codes, row.costCode),
      work_kind_id: named(kinds, row.workKind),
      pay: row.pay ?? null,
      hours: row.hours ?? null,
      quantity: row.quantity ?? null,
      unit: row.unit ?? '',
      headcount: row.headcount ?? null,
      name: row.name ?? '',
      reference: row.reference ?? '',
      description: row.description ?? '',
      photo: row.photo ?? '',
      charged: row.charged === true ? 1 : 0,
      signature: row.signature ?? 0,
    })),
  );
  await sql.insertAll(DayEntryTable, rows as NewRow<typeof DayEntryTable>[]);
  const there = new Set((await sql.find(DaySignatureTable, { day_sheet_id: id })).map((it) => it.number));
  await sql.insertAll(
    DaySignatureTable,
    day.signatures
      .filter((it) => !there.has(it.number))
      .map(({ number, name, office, signedOn, strokes }) => ({
        day_sheet_id: id,
        number,
        name,
        office,
        signed_on: signedOn,
        strokes,
      })),
  );
}

interface Opened {
  head: DayHead;
  day: DaySheet;
}

/** The sheet as it was seen. Throws not-found, or conflict. */
async function openSeen(command: Command, key: DayKey, seen: string): Promise<Opened> {
  const head = await dayHead(command.sql, key);
  if (!head) {
    command.compared();
    throw noSheet(key);
  }
  const day = known(await daysOf(command.sql, [head]), head.id);
  await assertSeen(command, key, day, seen);
  return { head, day };
}

/** Deletes a day sheet with its hours in the week sheet: of a wrong day or job. Not once a client signed, or hours of it are approved. */
export async function deleteDaySheet(command: Command, key: DayKey, seen: string, person: SignedIn | null): Promise<void> {
  const { sql } = command;
  const { head, day } = await openSeen(command, key, seen);
  const lines = await linesOfDay(sql, head);
  assertMove(DAY_LIFE, 'delete', 'The day sheet', dayState(day, areUntouched(day.hours, lines)));
  if (person && head.writtenBy !== person.name && !hasRight(person, 'approve-time'))
    throw new LedrinError('not-allowed', `${head.writtenBy} wrote this day sheet; ask them, or the manager, to delete it`);
  await replaceLines(command, head, { lines, input: [], week: head.dated }, person);
  await sql.run(DELETE_DAY_ENTRIES, [head.id]);
  await sql.remove(DaySheetTable, { id: head.id });
  command.note(subjectOfDay(key), { was: day });
}

/**
 * Puts hours of the day sheet into its week sheet, over what the office has there: of the rows that are named, and no others. What is
 * approved is returned first, what is posted corrected.
 */
export async function takeDayHours(
  command: Command,
  key: DayKey,
  { seen, rows }: { seen: string; rows: readonly string[] },
  person: SignedIn | null,
): Promise<void> {
  const { sql } = command;
  const { head, day } = await openSeen(command, key, seen);
  const there = await linesOfDay(sql, head);
  const toTakeOver = hoursDiffer(day.hours, officeHours(there)).filter((it) => rows.includes(keyOfHours(it)));
  if (toTakeOver.length < new Set(rows).size || rows.length === 0)
    throw new LedrinError('bad-input', 'Choose rows in which the site and the week sheet differ', [
      { field: 'rows', message: 'expected rows that differ' },
    ]);
  const fixed = toTakeOver.find((it) => it.fixed !== null)?.fixed;
  if (fixed)
    throw new LedrinError(
      'refused',
      fixed === 'posted'
        ? `Hours of this day are posted; correct week sheet ${head.sheet} instead`
        : `Hours of this day are approved; return them on week sheet ${head.sheet} first`,
    );
  const isTaken = (it: HoursOf) => rows.includes(keyOfHours(it));
  const lines = there.filter((it) => isTaken({ ...it, pay: it.split === 1 ? null : it.pay }));
  const week = weekBy((await loadTerms(sql)).rules, head.dated);
  const sheet = await replaceLines(command, head, { lines, input: linesFor(head, day.hours.filter(isTaken)), week }, person);
  await sql.update(DaySheetTable, { id: head.id }, { sheet: sheet || head.sheet });
  command.note(subjectOfDay(key), { linesTaken: toTakeOver.length });
}
