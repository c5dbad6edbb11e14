import { shape, t, type RowOf } from '../db/fields';
import type { PlainDate } from '../../core/calendar/plainDate';
import { estimateAtCompletion, hoursAtCompletion } from '../../core/forecast/estimateAtCompletion';
import { WHOLE } from '../../core/money/rate';
import { multiplyDivide } from '../../core/money/round';
import {
  isFinished,
  workInProgress,
  type JobPosition,
  type Progress,
  type RevenueMethod,
} from '../../core/progress/workInProgress';
import type { Reader } from '../db/sql';
import { loadCostLines, type LoadedCostLine } from '../costs/costLineStates';

/** A job as of a date: who it is, its position, and its row of the work-in-progress schedule. */
export interface LoadedPosition {
  id: number;
  number: string;
  name: string;
  client: string;
  clientName: string;
  manager: string;
  status: string;
  locked: boolean;
  awardedOn: string | null;
  finishedOn: string | null;
  position: JobPosition;
  progress: Progress;
  /** Money received by the date, tax taken out: on the scale of the contract. */
  received: number;
  /** Price of change orders not yet approved nor rejected by the date; never in the contract sum. */
  pendingChanges: number;
}

const JobRow = shape({
  id: t.whole,
  number: t.text,
  name: t.text,
  client: t.text,
  client_name: t.text,
  manager: t.text,
  status: t.text,
  locked: t.flag,
  awarded_on: t.orNull(t.day),
  finished_on: t.orNull(t.day),
  revenue_method: t.oneOf<RevenueMethod>(),
  contract_sum: t.cents,
  billed: t.cents,
  applied: t.cents,
  uninstalled: t.cents,
  received: t.cents,
  pending: t.cents,
  tax_rate: t.rate,
});
type JobRow = RowOf<typeof JobRow>;

/** Each job's figures that need no cost line, in one pass. */
const JOB_FIGURES = `SELECT job.id, job.number, job.name, c.code AS client, c.name AS client_name, job.manager, job.status, job.locked, job.awarded_on, job.finished_on, job.revenue_method, job.tax_rate,
  coalesce((SELECT sum(scheduled_value) FROM sov_line WHERE job_id = job.id), 0)
    + coalesce((SELECT sum(amount) FROM approved_change_line WHERE job_id = job.id AND side = 'price' AND decided_on <= $1), 0) AS contract_sum,
  coalesce((SELECT sum(l.amount) FROM change_order o JOIN change_order_line l ON l.change_order_id = o.id
        WHERE o.job_id = job.id AND l.side = 'price' AND o.raised_on <= $1 AND (o.status IN ('draft', 'issued') OR o.decided_on > $1)), 0) AS pending,
  coalesce((SELECT gross FROM certified_application WHERE job_id = job.id AND certified_on <= $1 ORDER BY number DESC LIMIT 1), 0) AS billed,
  coalesce((SELECT sum(work) FROM application_line WHERE application_id =
    (SELECT id FROM application WHERE job_id = job.id AND status <> 'draft' AND dated <= $1 ORDER BY number DESC LIMIT 1)), 0) AS applied,
  coalesce((SELECT sum(amount) FROM cost_entry WHERE job_id = job.id AND uninstalled = 1 AND posted_on <= $1 AND (installed_on IS NULL OR installed_on > $1)), 0) AS uninstalled,
  coalesce((SELECT sum(amount) FROM receipt WHERE job_id = job.id AND dated <= $1), 0) AS received
  FROM job JOIN client c ON c.id = job.client_id`;

/** An amount with tax in it, at the job's rate, without; rounded once. */
export function beforeTax(amount: number, taxRate: number): number {
  return multiplyDivide(amount, WHOLE, WHOLE + taxRate);
}

/** Positions of all jobs, tenders included, by job number; or of one. */
export async function loadPositions(sql: Reader, asOf: PlainDate, jobId: number | null): Promise<LoadedPosition[]> {
  const [jobs, lines] = await Promise.all([
    sql.all(JobRow, `${JOB_FIGURES} ${jobId === null ? '' : `WHERE job.id = ${Number(jobId)}`} ORDER BY job.number`, [asOf]),
    loadCostLines(sql, asOf, jobId),
  ]);
  return positionsOf(jobs, lines, asOf);
}

function positionsOf(jobs: readonly JobRow[], lines: readonly LoadedCostLine[], asOf: PlainDate): LoadedPosition[] {
  const byJob = new Map<number, LoadedCostLine[]>();
  for (const line of lines) {
    const own = byJob.get(line.jobId);
    if (own) own.push(line);
    else byJob.set(line.jobId, [line]);
  }
  return jobs.map((row) => {
    const position = positionOf(row, byJob.get(row.id) ?? [], asOf);
    return {
      id: row.id,
      number: row.number,
      name: row.name,
      client: row.client,
      clientName: row.client_name,
      manager: row.manager,
      status: row.status,
      locked: row.locked === 1,
      awardedOn: row.awarded_on,
      finishedOn: row.finished_on,
      position,
      progress: workInProgress(position),
      received: beforeTax(row.received, row.tax_rate),
      pendingChanges: row.pending,
    };
  });
}

function positionOf(row: JobRow, lines: readonly LoadedCostLine[], asOf: PlainDate): JobPosition {
  const finished = isFinished(row.finished_on, asOf);
  let estimate = 0;
  let cost = 0;
  let labourHours = 0;
  let labourHoursAtCompletion = 0;
  for (const line of lines) {
    estimate += estimateAtCompletion(line, finished).amount;
    cost += line.cost;
    if (!line.labour) continue;
    labourHours += line.hours;
    labourHoursAtCompletion += hoursAtCompletion(line, finished);
  }
  return {
    method: row.revenue_method,
    finished,
    contractSum: row.contract_sum,
    estimate,
    cost,
    billed: row.billed,
    uninstalled: row.uninstalled,
    labourHours,
    labourHoursAtCompletion,
    workAppliedFor: row.applied,
  };
}

/** In the work-in-progress schedule: awarded on or before the date, and not a tender. Closed jobs stay. */
export function inSchedule(job: Pick<LoadedPosition, 'status' | 'awardedOn'>, asOf: PlainDate): boolean {
  return job.status !== 'tender' && job.awardedOn !== null && job.awardedOn <= asOf;
}
