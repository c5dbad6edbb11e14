import type { PlainDate } from '../calendar/plainDate';
import type { Rate } from '../money/rate';
import type { Pricing } from './pricing';

/** What a cost entry's mark says: the client has agreed to be charged for it, it waits, or it is not charged. docs/rules.md §14. */
export const CHARGE_MARKS = ['no', 'yes', 'hold'] as const;
export type ChargeMark = (typeof CHARGE_MARKS)[number];

/** How it is named on the screen. */
export const MARK_WORDS: Readonly<Record<ChargeMark, string>> = { no: 'not charged', yes: 'charged', hold: 'held' };

/** What is said of a cost as it is entered. */
export interface Charging {
  /** Empty: by the job. */
  mark: ChargeMark | '';
  /** The mark counts from this day on, and never before its accounting date; null: from that. */
  from: PlainDate | null;
  /** The entry's own markup; null: the job's for its cost type. */
  markup: Rate | null;
  /** What the client reads of it; empty: its own words. */
  wording: string;
}

export const UNSAID: Charging = { mark: '', from: null, markup: null, wording: '' };

/** The mark of an entry: as it was said, else all of a charged job is charged, and of another nothing. */
export function markOf({ mark }: Pick<Charging, 'mark'>, pricing: Pricing): ChargeMark {
  return mark === '' ? (pricing === 'charged' ? 'yes' : 'no') : mark;
}

/** Whether a mark is kept with the entry: where it says more than nothing, and always on a charged job. */
export function isMarked({ mark, from, markup, wording }: Charging, pricing: Pricing): boolean {
  return pricing === 'charged' || mark === 'yes' || mark === 'hold' || from !== null || markup !== null || wording !== '';
}

/** The day from which a mark counts. */
export const countsFrom = (postedOn: PlainDate, from: PlainDate | null): PlainDate =>
  from !== null && from > postedOn ? from : postedOn;
