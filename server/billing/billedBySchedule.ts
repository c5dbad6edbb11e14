import { INSTALMENTS, SCHEDULED_JOBS } from './queries';
import { at } from '../../core/errors/known';
import { screenDate, valueApplication } from '../../core/billing/application';
import { scheduleAt } from '../../core/contract/contract';
import { dueDay, type DueDay, type Instalment } from '../../core/instalments/instalment';
import { scheduledToDate, valueInstalments, type TakenLine, type ValuedSchedule } from '../../core/instalments/valueInstalments';
import { sum } from '../../core/money/cents';
import type { InstalmentsInput } from '../../wire/instalments';
import type { Reader } from '../db/sql';
import type { LoadedBillingJob } from './billingJobs';
import { loadWorkDates } from '../plan/workDates';

type Kept = InstalmentsInput['instalments'][number];

/** The instalments of a job's billing schedule, in their order; none where it is billed without one. */
export async function loadInstalments(sql: Reader, jobId: number): Promise<Kept[]> {
  const rows = await sql.all(INSTALMENTS, [jobId]);
  return rows.map((row) => ({ ...row, stages: JSON.parse(row.stages) as string[] }));
}

/** The lines of a job that instalments are taken from, on a date. */
export function takenLines(job: Pick<LoadedBillingJob, 'sovLines' | 'priceChanges'>, on: string): TakenLine[] {
  return scheduleAt(job.sovLines, job.priceChanges, on).map(({ line, section, scheduledToDate }) => ({
    line,
    section,
    scheduled: scheduledToDate,
    changes: changesOf(job, line, on),
  }));
}

/** What changes approved by a date did to a line, day by day. */
export function changesOf(
  { priceChanges }: Pick<LoadedBillingJob, 'priceChanges'>,
  line: string,
  on: string,
): { on: string; amount: number }[] {
  return priceChanges
    .filter((it) => it.line === line && it.approvedOn <= on)
    .map((it) => ({ on: it.approvedOn, amount: it.amount }));
}

/** A billing schedule valued with the contract of a date. */
export interface LoadedSchedule {
  instalments: readonly Instalment[];
  lines: TakenLine[];
  days: DueDay[];
  valued: ValuedSchedule;
}

/** The billing schedule of a job with the contract as it stood on a date; null where it is billed without one. */
export async function loadSchedule(sql: Reader, job: LoadedBillingJob, on: string): Promise<LoadedSchedule | null> {
  const instalments = await loadInstalments(sql, job.id);
  if (instalments.length === 0) return null;
  const dates = await loadWorkDates(sql, job.id);
  const lines = takenLines(job, on);
  const days = instalments.map((it) => dueDay(it, dates));
  return { instalments, lines, days, valued: valueInstalments(instalments, lines, days) };
}

/** What each SOV line is billed to date by the schedule, on a date; null where the job has none. */
export async function billedBySchedule(sql: Reader, job: LoadedBillingJob, on: string): Promise<Map<string, number> | null> {
  const schedule = await loadSchedule(sql, job, on);
  if (!schedule) return null;
  const toDate = scheduledToDate(schedule.valued, schedule.days, schedule.lines.length, on);
  return new Map(schedule.lines.map((it, i) => [it.line, at(toDate, i)]));
}

/** What the schedule says is billed on a date, less the gross of the last application by then; null where the job has none. */
export async function leftBySchedule(sql: Reader, job: LoadedBillingJob, on: string): Promise<number | null> {
  const billed = await billedBySchedule(sql, job, on);
  return billed && sum([...billed.values()]) - appliedFor(job, on);
}

/** Gross to date of the last application dated by then, as applied for or certified; 0 where there is none. */
export function appliedFor(job: LoadedBillingJob, on: string): number {
  const last = job.applications.filter((it) => it.dated <= on).at(-1);
  return last ? valueApplication(job, last, screenDate(last, on)).gross : 0;
}

/** The jobs that are billed by a schedule. */
export async function scheduledJobs(sql: Reader): Promise<Set<number>> {
  return new Set((await sql.all(SCHEDULED_JOBS)).map((row) => row.id));
}
