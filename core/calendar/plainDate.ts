import type { Flavour } from '../money/flavour';

/** A calendar day as `YYYY-MM-DD`. Compares as text. */
export type PlainDate = Flavour<string, 'date'>;
/** A calendar month as `YYYY-MM`. */
export type Period = Flavour<string, 'period'>;

const DATE = /^(\d{4})-(\d{2})-(\d{2})$/;
const PERIOD = /^\d{4}-(0[1-9]|1[0-2])$/;
const DAY = 86_400_000;

/** True for a real day written `YYYY-MM-DD`. */
export function isPlainDate(text: string): boolean {
  if (!DATE.test(text)) return false;
  const [year, month, day] = [Number(text.slice(0, 4)), Number(text.slice(5, 7)), Number(text.slice(8))];
  return year >= 1 && month >= 1 && month <= 12 && day >= 1 && day <= daysInMonth(year, month);
}

/** Later than any day that is entered: what is asked for as of it counts everything. */
export const LAST_DAY: PlainDate = '9999-12-31';
const FIRST_YEAR = '1900';
const LAST_YEAR = '2199';

/** True for a day as it may be entered: a real one of the years 1900 to 2199, so that a slip of a year is no plan of 8,000 years. */
export function isEnteredDate(text: string): boolean {
  return isPlainDate(text) && text.slice(0, 4) >= FIRST_YEAR && text.slice(0, 4) <= LAST_YEAR;
}

export function isPeriod(text: string): boolean {
  return PERIOD.test(text);
}

function daysInMonth(year: number, month: number): number {
  if (month === 2) return (year % 4 === 0 && year % 100 !== 0) || year % 400 === 0 ? 29 : 28;
  return [4, 6, 9, 11].includes(month) ? 30 : 31;
}

export function periodOf(date: PlainDate): Period {
  return date.slice(0, 7);
}

function partsOf(period: Period): { year: number; month: number } {
  return { year: Number(period.slice(0, 4)), month: Number(period.slice(5, 7)) };
}

/** The last day of a month. */
export function lastDay(period: Period): PlainDate {
  const { year, month } = partsOf(period);
  return `${period}-${String(daysInMonth(year, month)).padStart(2, '0')}`;
}

export function firstDay(period: Period): PlainDate {
  return `${period}-01`;
}

/** The month `count` months later, or earlier where it is negative. */
export function addMonths(period: Period, count: number): Period {
  const { year, month } = partsOf(period);
  const index = year * 12 + month - 1 + count;
  return `${String(Math.floor(index / 12)).padStart(4, '0')}-${String((index % 12) + 1).padStart(2, '0')}`;
}

/** The months from the first to the last, both included; none where the last is earlier. */
export function monthsFrom(first: Period, last: Period): Period[] {
  const months: Period[] = [];
  for (let month = first; month <= last && month.length === last.length; month = addMonths(month, 1)) months.push(month);
  return months;
}

/** Whole days since 1 January 1970. */
function dayNumber(date: PlainDate): number {
  return Date.parse(`${date}T00:00:00Z`) / DAY;
}

/** Days from `from` to `to`; negative where `to` is earlier. */
export function daysBetween(from: PlainDate, to: PlainDate): number {
  return dayNumber(to) - dayNumber(from);
}

export function addDays(date: PlainDate, days: number): PlainDate {
  return new Date((dayNumber(date) + days) * DAY).toISOString().slice(0, 10);
}

/** A Monday, from which weekdays are counted. */
const A_MONDAY: PlainDate = '2024-01-01';

/** The day of the week: 0 is Monday, 6 Sunday. */
export function weekdayOf(date: PlainDate): number {
  return ((daysBetween(A_MONDAY, date) % 7) + 7) % 7;
}
