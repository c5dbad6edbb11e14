import type { PlainDate } from '../calendar/plainDate';
import { countsInClosedRefusal } from '../ledger/openDay';
import { refuse, type Refusal } from '../refusals/refusal';
import { isEnded, movesOn, type JobStatus } from './jobStatus';

/** A job as far as its moves go. */
export interface MovingJob {
  number: string;
  status: string;
  awardedOn: PlainDate | null;
  finishedOn: PlainDate | null;
  /** Something is posted to it. */
  isPosted: boolean;
}

/** A move along the life of a job, to an end of it, or back from there. */
export interface JobMove {
  status: JobStatus;
  on: PlainDate | null;
  reason: string;
}

/** The day a move has to give: of the award, of the finish, or of the end; null where it needs none. */
export function dayOfMove(job: Omit<MovingJob, 'isPosted'>, to: JobStatus): 'awarded' | 'finished' | 'ended' | null {
  if (isEnded(to)) return 'ended';
  if (isEnded(job.status)) return null;
  if (job.awardedOn === null && to !== 'tender') return 'awarded';
  return (to === 'closing-out' || to === 'closed') && job.finishedOn === null ? 'finished' : null;
}

/** Whether a move has to give a reason: an end, and the way back from it. */
export const needsReason = (job: Pick<MovingJob, 'status'>, to: JobStatus): boolean => isEnded(to) || isEnded(job.status);

/** The days of a job once it has moved. A job that was never awarded and is finished at once has one day for both. */
export function daysAfter(job: MovingJob, { status, on }: JobMove): Pick<MovingJob, 'awardedOn' | 'finishedOn'> {
  const finishes = status === 'closing-out' || status === 'closed';
  return { awardedOn: job.awardedOn ?? on, finishedOn: finishes ? (job.finishedOn ?? on) : null };
}

/** Why a job cannot move, whatever is given with it: what is posted to it stands against it, or books that are closed. Null where it can. */
export function whyNotMoved(job: MovingJob, to: JobStatus, closedTo: PlainDate | null): Refusal | null {
  if (to === 'cancelled' && job.isPosted) return refuse('job-posted-stays', 'job', { job: job.number });
  if (to !== 'cancelled' && job.status !== 'cancelled') return null;
  return countsInClosedRefusal(job, to === 'cancelled' ? 'cancelled' : 'taken up again', closedTo);
}

/** What a job may become now. */
export function movesOpen(job: MovingJob, closedTo: PlainDate | null): readonly JobStatus[] {
  return movesOn(job.status).filter((to) => whyNotMoved(job, to, closedTo) === null);
}

/** What is wrong with a move as it is given: where it leads, its day, its reason. docs/rules.md §4. */
export function moveRefusals(job: MovingJob, move: JobMove): Refusal[] {
  const { status, on, reason } = move;
  const onward = movesOn(job.status);
  if (!onward.includes(status))
    return [refuse('job-moves-elsewhere', 'status', { job: job.number, status: job.status, onward: onward.join(', ') })];
  const refusals: Refusal[] = [];
  if (needsReason(job, status) && reason === '')
    refusals.push(refuse('job-move-reason', 'reason', { what: isEnded(status) ? status : 'taken up again' }));
  const day = dayOfMove(job, status);
  if (day !== null && on === null) refusals.push(refuse('job-move-day', 'on', { what: day === 'ended' ? status : day }));
  const { awardedOn, finishedOn } = daysAfter(job, move);
  if (!isEnded(status) && awardedOn !== null && finishedOn !== null && finishedOn < awardedOn)
    refusals.push(refuse('job-finished-early', 'on', { on: finishedOn, awardedOn }));
  return refusals;
}
