import { periodOf, type Period, type PlainDate } from './plainDate';

/**
 * The day a new document is dated at before somebody says otherwise: today, or the last day of what is looked at, whichever is earlier.
 * Where the books themselves have reached months to come (such as those of the sample company), a day in one of these is as good as
 * another, and what is looked at counts.
 */
export function firstEntryDay(today: PlainDate, lastDay: PlainDate, newestMonth: Period | null): PlainDate {
  if (lastDay <= today) return lastDay;
  const booksAreAhead = newestMonth !== null && newestMonth > periodOf(today);
  return booksAreAhead && periodOf(lastDay) !== periodOf(today) ? lastDay : today;
}
