import { assertFixedPrice } from '../jobs/fixedPrice';
import { SECTIONS, ADD_SECTION } from './queries';
import { present } from '../../core/errors/known';
import { assertNoFaults } from '../acts/refused';
import { InstalmentStageTable, InstalmentTable } from './models';
import type { Command } from '../acts/command';
import { LAST_DAY } from '../../core/calendar/plainDate';
import { LedrinError, type Fault } from '../../core/errors/ledrinError';
import { dueDay } from '../../core/instalments/instalment';
import { problemWords, valueInstalments } from '../../core/instalments/valueInstalments';
import { displayExact } from '../../core/money/display';
import type { InstalmentsInput } from '../../wire/instalments';
import { nextId, type Reader, type Sql } from '../db/sql';
import { loadBillingJob } from '../billing/billingJobs';
import { loadCompany } from '../company/company';
import { jobByNumber } from '../jobs/jobByNumber';
import { scheduleClosed } from './billingScheduleView';
import { loadInstalments, takenLines } from '../billing/billedBySchedule';
import { loadWorkDates } from '../plan/workDates';
import { assertUnchanged } from '../versions/staleness';

type InstalmentInput = InstalmentsInput['instalments'][number];

/**
 * Saves a job's fixed billing schedule, whole; none of it: the job is billed without one. It comes to the contract sum
 * with all that is approved, and takes from no line more than it has.
 */
export async function saveBillingSchedule(
  command: Command,
  number: string,
  { seen, instalments }: InstalmentsInput,
): Promise<void> {
  const { sql } = command;
  const { id, status, locked } = await jobByNumber(sql, number, 'job');
  if (instalments.length > 0) await assertFixedPrice(sql, id, 'billing schedule', 'instalments');
  const closed = scheduleClosed(status, locked);
  if (closed) throw new LedrinError('refused', `${closed}; its billing schedule stays as it is`);
  await assertUnchanged(command, 'This billing schedule', { subject: number, now: await loadInstalments(sql, id), seen });
  const faults = [...instalments.flatMap(contradictions), ...(await faultsOfValue(sql, id, instalments))];
  assertNoFaults(faults);
  await sql.remove(InstalmentTable, { job_id: id });
  // A stage is a section of the plan from now on, and stays one as long as an instalment waits for it.
  for (const name of new Set(instalments.flatMap((it) => it.stages))) await sql.run(ADD_SECTION, [id, name]);
  await insertInstalments(
    sql,
    instalments.map((it, i) => ({ ...it, jobId: id, number: i + 1 })),
  );
  command.note(number, instalments);
}

/** Inserts instalments with their stages. */
export async function insertInstalments(
  sql: Sql,
  list: readonly (InstalmentInput & { jobId: number; number: number })[],
): Promise<void> {
  const first = await nextId(sql, InstalmentTable);
  await sql.insertAll(
    InstalmentTable,
    list.map((it, i) => ({
      id: first + i,
      job_id: it.jobId,
      number: it.number,
      name: it.name,
      due: it.due,
      day: it.day,
      days: it.days,
      taken_from: it.from,
      rate: it.rate,
      amount: it.amount,
    })),
  );
  await sql.insertAll(
    InstalmentStageTable,
    list.flatMap((it, i) => it.stages.map((section) => ({ instalment_id: first + i, section }))),
  );
}

/** What one instalment says against itself. */
function contradictions(it: InstalmentInput, i: number): Fault[] {
  const at = (field: string, message: string): Fault => ({ field: `instalments.${i}.${field}`, message });
  return [
    ...((it.rate === null) === (it.amount === null)
      ? [at('rate', `${it.name} is a percentage or an amount: enter one of the two`)]
      : []),
    ...(it.due !== 'day' && it.day !== null
      ? [at('day', `${it.name} falls due at the ${it.due} of its stages; take out the day, or make it due on a day`)]
      : []),
    ...(it.due === 'day' && it.days !== 0
      ? [at('days', `${it.name} falls due on a day; days after are counted from a start or a finish`)]
      : []),
    ...(new Set(it.stages).size < it.stages.length ? [at('stages', `${it.name} names a stage twice`)] : []),
    ...(it.from === 'stages' && it.stages.length === 0
      ? [at('stages', `${it.name} is taken from its stages; name them, or take it from the job`)]
      : []),
  ];
}

async function faultsOfValue(sql: Reader, jobId: number, instalments: readonly InstalmentInput[]): Promise<Fault[]> {
  if (instalments.length === 0) return [];
  const { digits } = await loadCompany(sql);
  const known = await sectionsOf(sql, jobId);
  const lines = takenLines(await loadBillingJob(sql, jobId), LAST_DAY);
  const dates = await loadWorkDates(sql, jobId);
  const days = instalments.map((it) => dueDay(it, dates));
  const { instalments: valued, contractSum, total, left } = valueInstalments(instalments, lines, days);
  const faults = instalments.flatMap((it, i): Fault[] => {
    const unknown = it.stages.find((name) => !known.has(name));
    if (unknown !== undefined)
      return [{ field: `instalments.${i}.stages`, message: `The job has no section ${unknown}; add it to the plan first` }];
    const { problem } = present(valued[i]);
    if (!problem) return [];
    const field = problem.kind === 'no-lines' ? 'stages' : it.rate === null ? 'amount' : 'rate';
    return [{ field: `instalments.${i}.${field}`, message: problemWords(problem, digits) }];
  });
  if (left !== 0)
    faults.push({
      field: 'instalments',
      message: `The instalments come to ${displayExact(total, digits)}, the contract sum is ${displayExact(contractSum, digits)}; ${displayExact(Math.abs(left), digits)} ${left > 0 ? 'is still to be scheduled' : 'is too much'}`,
    });
  return faults;
}

async function sectionsOf(sql: Reader, jobId: number): Promise<Set<string>> {
  const rows = await sql.all(SECTIONS, [jobId]);
  return new Set(rows.map((row) => row.name));
}
