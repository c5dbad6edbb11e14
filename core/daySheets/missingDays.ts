import { addDays, weekdayOf, type PlainDate } from '../calendar/plainDate';

/** As weekdays are counted: 0 is Monday. */
const FRIDAY = 4;

/**
 * Weekdays, Monday to Friday, from one day to another, both inclusive, that a job on site has no day sheet of. `since`: the day its
 * work began, null where that is not said; `today`: a day that is not over is not missing.
 */
export function missingDays(
  from: PlainDate,
  to: PlainDate,
  { since, today, there }: { since: PlainDate | null; today: PlainDate; there: ReadonlySet<PlainDate> },
): PlainDate[] {
  const days: PlainDate[] = [];
  for (let day = from; day <= to; day = addDays(day, 1))
    if (weekdayOf(day) <= FRIDAY && day < today && since !== null && day >= since && !there.has(day)) days.push(day);
  return days;
}
