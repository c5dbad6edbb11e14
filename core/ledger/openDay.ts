import { addDays, type PlainDate } from '../calendar/plainDate';
import { refuse, type Refusal } from '../refusals/refusal';

/**
 * Why nothing counts on a day: the books are closed up to it, or to a later one. `closedTo`: the last day that is closed; null where
 * none is (docs/rules.md §15).
 */
export function closedDayRefusal(on: PlainDate, closedTo: PlainDate | null, at = 'dated'): Refusal | null {
  return closedTo !== null && on <= closedTo ? refuse('day-closed', at, { on, closedTo, open: addDays(closedTo, 1) }) : null;
}

/** Why a job is not altered as a whole: reports of days that are closed have it as it is. `what` ends the sentence: "cancelled". */
export function countsInClosedRefusal(
  job: { number: string; awardedOn: PlainDate | null },
  what: string,
  closedTo: PlainDate | null,
): Refusal | null {
  const { number, awardedOn } = job;
  if (awardedOn === null || closedTo === null || awardedOn > closedTo) return null;
  return refuse('counts-in-closed', 'job', { job: number, awarded: awardedOn, closedTo, what });
}

/** The day itself where it is open, else the first one that is. */
export function firstOpenDay(on: PlainDate, closedTo: PlainDate | null): PlainDate {
  return closedTo !== null && on <= closedTo ? addDays(closedTo, 1) : on;
}

/** When an entry is corrected: on the day that is given, else on its own, where that is open. Null: on its own. */
export function correctionDay(
  entry: { postedOn: PlainDate },
  on: PlainDate | null,
  closedTo: PlainDate | null,
): PlainDate | null {
  if (on !== null) return on;
  const open = firstOpenDay(entry.postedOn, closedTo);
  return open === entry.postedOn ? null : open;
}

/** Why the books cannot be closed up to a day: it is to come. Opened again, they need a reason. `to`: null opens them from their beginning. */
export function closingRefusals(
  { to, reason }: { to: PlainDate | null; reason: string },
  { closedTo, today }: { closedTo: PlainDate | null; today: PlainDate },
): Refusal[] {
  const refusals: Refusal[] = [];
  if (to === closedTo) refusals.push(refuse('closed-already', 'to', { to }));
  if (to !== null && to > today && (closedTo === null || to > closedTo))
    refusals.push(refuse('closed-ahead', 'to', { to, today }));
  const opens = closedTo !== null && (to === null || to < closedTo);
  if (opens && reason === '') refusals.push(refuse('opened-without-reason', 'reason', {}));
  return refusals;
}
