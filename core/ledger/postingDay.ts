import { addDays, type PlainDate } from '../calendar/plainDate';
import { refuse, type Refusal } from '../refusals/refusal';

/** Days beyond the newest known one that a posting may lie ahead: more is a slip in the year. */
const FARTHEST = 366;

/**
 * Why nothing is posted on a day; null where it is. `known`: today, and whatever days the job has: its award, its planned end, its
 * newest posting. More than a year after all of them is taken for a slip.
 */
export function farAheadRefusal(on: PlainDate, known: readonly (PlainDate | null)[]): Refusal | null {
  const newest = known.reduce<PlainDate>((latest, it) => (it !== null && it > latest ? it : latest), '');
  return newest !== '' && on > addDays(newest, FARTHEST) ? refuse('far-ahead', 'dated', { on, newest }) : null;
}
