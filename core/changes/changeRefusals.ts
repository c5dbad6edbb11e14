import type { PlainDate } from '../calendar/plainDate';
import type { Cents } from '../money/cents';
import { refuse, type Refusal } from '../refusals/refusal';
import type { ChangeStatus } from './changeOrder';

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
