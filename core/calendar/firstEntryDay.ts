import { addMonths, periodOf, type Period, type PlainDate } from './plainDate';

/**
 * The day a new document is dated at before somebody says otherwise: today, or the last day of what is looked at, whichever is earlier.
 * Where the books themselves lie in months to come, as those of the sample company do, a day in one of these is as good as another, and
 * what is looked at counts; a document or two dated into the next month make no such books.
 */
export function firstEntryDay(today: PlainDate, lastDay: PlainDate, newestMonth: Period | null): PlainDate {
  if (lastDay <= today) return lastDay;
  const booksAreAhead = newestMonth !== null && newestMonth > addMonths(periodOf(today), 1);
  return booksAreAhead && periodOf(lastDay) !== periodOf(today) ? lastDay : today;
}
