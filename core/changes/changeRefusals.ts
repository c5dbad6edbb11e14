import type { PlainDate } from '../calendar/plainDate';
import type { Cents } from '../money/cents';
import { refuse, type Refusal } from '../refusals/refusal';
import { takesRefusal, type TakingJob } from '../jobs/takes';
import { moveRefusal } from '../life/life';
import { CHANGE_LIFE, type ChangeMove, type ChangeStatus } from './changeLife';

/** A change order as far as its moves go. */
export interface MovingChange {
  number: string;
  status: ChangeStatus;
  job: TakingJob & { number: string };
  /** No price, no cost and no days. */
  asksNothing: boolean;
}

/**
 * Why a change order cannot make a move of its life: its job takes none, its state, or that it asks for nothing yet. A copy goes to the
 * client whatever became of the job.
 */
export function changeRefusal(move: ChangeMove, { number, status, job, asksNothing }: MovingChange): Refusal | null {
  const jobRefusal = move === 'send' ? null : takesRefusal(job, 'changes');
  const refused = jobRefusal ?? moveRefusal(CHANGE_LIFE, move, number, status);
  if (refused !== null || move !== 'issue') return refused;
  return asksNothing ? refuse('change-asks-nothing', 'number', { number }) : null;
}

/** Why a change cannot be approved on a day: an application of that day or a later one was valued with the contract without it. */
export function approvedBeforeRefusal(number: string, later: { number: number; dated: PlainDate } | undefined): Refusal | null {
  if (!later) return null;
  return refuse('change-before-application', 'decidedOn', { number, application: later.number, dated: later.dated });
}

/** The days of a change order; null where it has none. */
export interface ChangeDays {
  status: ChangeStatus;
  raisedOn: PlainDate;
  issuedOn: PlainDate | null;
  decidedOn: PlainDate | null;
}

/** Why a change order cannot have these days: raised, then issued, then decided; what is not decided has no day of decision. */
export function changeDayRefusals({ status, raisedOn, issuedOn, decidedOn }: ChangeDays): Refusal[] {
  const refusals: Refusal[] = [];
  if (issuedOn !== null && issuedOn < raisedOn)
    refusals.push(refuse('change-issued-early', 'issuedOn', { on: issuedOn, raised: raisedOn }));
  if (decidedOn === null) return refusals;
  const after = issuedOn ?? raisedOn;
  if (status === 'draft' || status === 'issued')
    refusals.push(refuse('change-undecided', 'decidedOn', { status, on: decidedOn }));
  else if (decidedOn < after)
    refusals.push(
      refuse('change-decided-early', 'decidedOn', { on: decidedOn, what: issuedOn === null ? 'raised' : 'issued', after }),
    );
  return refusals;
}

/** Why `agreed` cannot be approved of what was asked for: it has the same sign, and is no more; null where it can. */
export function agreedRefusal(asked: Cents, agreed: Cents): Refusal | null {
  const fits = Math.sign(agreed) * Math.sign(asked) >= 0 && Math.abs(agreed) <= Math.abs(asked);
  return fits ? null : refuse('change-agreed-beyond', 'agreed', { asked, agreed });
}
