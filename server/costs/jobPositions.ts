import { hasContract } from '../../core/jobs/jobStatus';
import { jobFigures } from './lineStateQueries';
import { type RowOf } from '../db/fields';
import type { PlainDate } from '../../core/calendar/plainDate';
import { contractHours, estimateAtCompletion, hoursAtCompletion } from '../../core/forecast/estimateAtCompletion';
import { WHOLE } from '../../core/money/rate';
import { multiplyDivide } from '../../core/money/round';
import type { ContractPosition } from '../../core/progress/contractStatus';
import { isFinished, workInProgress, type JobPosition, type Progress } from '../../core/progress/workInProgress';
import type { Reader } from '../db/sql';
import { loadCostLines, type LoadedCostLine } from './costLineStates';

/** A job as of a date: who it is, its position, and its row of the work-in-progress schedule. */
export interface LoadedPosition {
  id: number;
  number: string;
  name: string;
  client: string;
  clientName: string;
  manager: string;
  /** Codes of its kind and department; empty where it is of none. */
  kind: string;
  department: string;
  status: string;
  locked: boolean;
  restricted: boolean;
  awardedOn: string | null;
  finishedOn: string | null;
  position: JobPosition;
  progress: Progress;
  contract: ContractPosition;
  /** Money received by the date, tax taken out: on the scale of the contract. */
  received: number;
  /** Price of change orders not yet approved nor rejected by the date; never in the contract sum. */
  pendingChanges: number;
}

type JobRow = RowOf<ReturnType<typeof jobFigures>>;

/** An amount with tax in it, at the job's rate, without; rounded once. */
export function beforeTax(amount: number, taxRate: number): number {
  return multiplyDivide(amount, WHOLE, WHOLE + taxRate);
}

/** Positions of all jobs, tenders included, by job number; or of one. */
export async function loadPositions(sql: Reader, asOf: PlainDate, jobId: number | null): Promise<LoadedPosition[]> {
  const [jobs, lines] = await Promise.all([sql.all(jobFigures(jobId), [asOf]), loadCostLines(sql, asOf, jobId)]);
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
    const own = byJob.get(row.id) ?? [];
    const position = positionOf(row, own, asOf);
    const progress = workInProgress(position);
    return {
      id: row.id,
      number: row.number,
      name: row.name,
      client: row.client,
      clientName: row.client_name,
      manager: row.manager,
      kind: row.kind,
      department: row.department,
      status: row.status,
      locked: row.locked === 1,
      restricted: row.restricted === 1,
      awardedOn: row.awarded_on,
      finishedOn: row.finished_on,
      position,
      progress,
      contract: contractOf(position, progress, row, own),
      received: beforeTax(row.received, row.tax_rate),
      pendingChanges: row.pending,
    };
  });
}

/** Transfers move budget between lines of the job, and come to nothing in all. */
function contractOf(
  { charged, daywork, estimate }: JobPosition,
  progress: Progress,
  row: JobRow,
  lines: readonly LoadedCostLine[],
): ContractPosition {
  return {
    // A charged job is signed for what is charged, or for its ceiling.
    originalSum: charged ? progress.contractSum : row.original_sum,
    originalCost: lines.reduce((sum, it) => sum + it.original, 0),
    changesPrice: charged ? 0 : row.changes_price + daywork.charge,
    changesCost: lines.reduce((sum, it) => sum + it.changes - it.transfers + it.dayworkCost, 0),
    estimate,
  };
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
    labourHours += contractHours(line);
    labourHoursAtCompletion += hoursAtCompletion(line, finished);
  }
  return {
    method: row.revenue_method,
    finished,
    contractSum: row.original_sum + row.changes_price,
    // Without a ceiling a charged job comes to what it has cost so far.
    estimate: row.pricing === 'charged' && row.ceiling === null ? cost : estimate,
    cost,
    billed: row.billed,
    uninstalled: row.uninstalled,
    labourHours,
    labourHoursAtCompletion,
    workAppliedFor: row.applied,
    daywork: {
      cost: row.daywork_cost,
      charge: row.daywork_charge - row.daywork_credited,
      billed: row.daywork_billed - row.daywork_credited,
    },
    charged: row.pricing === 'charged' ? { ceiling: row.ceiling } : null,
  };
}

/** In the work-in-progress schedule: awarded on or before the date, with a contract that stands. Closed jobs stay. */
export function inSchedule(job: Pick<LoadedPosition, 'status' | 'awardedOn'>, asOf: PlainDate): boolean {
  return hasContract(job.status) && job.awardedOn !== null && job.awardedOn <= asOf;
}
