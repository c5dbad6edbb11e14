import type { Period, PlainDate } from './plainDate';

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];

/** `2031-04-30` → `30 Apr 2031`; nothing stays nothing. */
export function displayDate(date: PlainDate | null): string {
  if (!date) return '';
  const [year, month, day] = date.split('-');
  return `${Number(day)} ${MONTHS[Number(month) - 1]} ${year}`;
}

/** `2031-04` → `Apr 2031`. */
export function displayPeriod(period: Period): string {
  const [year, month] = period.split('-');
  return `${MONTHS[Number(month) - 1]} ${year}`;
}

/** A sentence with its dates as people read them: `certified on 2031-04-30` → `certified on 30 Apr 2031`. */
export function withDisplayDates(sentence: string): string {
  return sentence.replace(/\b\d{4}-\d{2}-\d{2}\b/g, displayDate);
}
