import { DRAFTS } from './queries';
import { addMonths, lastDay, periodOf } from '../../core/calendar/plainDate';
import { totalProgress, type Progress } from '../../core/progress/workInProgress';
import type { JobBefore, JobDraft, JobFigures, JobList, JobListRow } from '../../wire/jobs';
import type { Reader } from '../db/sql';
import { inSchedule, loadPositions, type LoadedPosition } from '../costs/jobPositions';

/** Figures of one job for the wire. */
export function jobFigures(progress: Progress, received: number, pendingChanges: number): JobFigures {
  return { ...progress, received, pendingChanges };
}

export function jobListRow(job: LoadedPosition, asOf: string): JobListRow {
  return {
    number: job.number,
    name: job.name,
    client: job.client,
    clientName: job.clientName,
    manager: job.manager,
    kind: job.kind,
    department: job.department,
    status: job.status,
    locked: job.locked,
    restricted: job.restricted,
    inSchedule: inSchedule(job, asOf),
    ...jobFigures(job.progress, job.received, job.pendingChanges),
  };
}

/** What jobs in the schedule stood at by the end of the month before, by id; of one job or of all. */
export async function positionsLastMonth(sql: Reader, asOf: string, jobId: number | null): Promise<Map<number, JobBefore>> {
  const lastMonth = lastDay(addMonths(periodOf(asOf), -1));
  const then = (await loadPositions(sql, lastMonth, jobId)).filter((job) => inSchedule(job, lastMonth));
  return new Map(
    then.map(({ id, received, progress: { contractSum, estimate, earned, billed, cost } }) => [
      id,
      { contractSum, estimate, earned, billed, received, cost },
    ]),
  );
}

/** All jobs with their figures as of a date, the totals of those in the schedule, and job drafts: all, or those one person typed. */
export async function jobList(sql: Reader, asOf: string, draftsOf: string | null = null): Promise<JobList> {
  const [positions, before, drafts] = await Promise.all([
    loadPositions(sql, asOf, null),
    positionsLastMonth(sql, asOf, null),
    jobDrafts(sql, draftsOf),
  ]);
  const scheduled = positions.filter((job) => inSchedule(job, asOf));
  const sumOf = (value: (job: LoadedPosition) => number) => scheduled.reduce((sum, job) => sum + value(job), 0);
  return {
    jobs: positions.map((job) => ({ ...jobListRow(job, asOf), before: before.get(job.id) ?? null })),
    totals: jobFigures(
      totalProgress(scheduled.map((job) => job.progress)),
      sumOf((job) => job.received),
      sumOf((job) => job.pendingChanges),
    ),
    drafts,
  };
}

export async function jobDrafts(sql: Reader, by: string | null = null): Promise<JobDraft[]> {
  const rows = await sql.all(DRAFTS, [by]);
  return rows.map((row) => ({ id: row.id, content: JSON.parse(row.content), savedAt: row.saved_at }));
}
