import type { PlainDate } from './plainDate';

/** Months since year 0, the key monthly totals are saved under: `2031-04` → 24375. */
export function monthIndex(date: PlainDate): number {
  return Number(date.slice(0, 4)) * 12 + Number(date.slice(5, 7)) - 1;
}
