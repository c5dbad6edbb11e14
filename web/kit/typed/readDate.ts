import { present } from '../../../core/errors/known';
import { isEnteredDate } from '../../../core/calendar/plainDate';

const NAMES = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];

/**
 * Reads a date as people type it: `30` or `30/4` take what is missing from `month` (2031-04), `30 Apr`,
 * `30/4/31`, `30 Apr 2031` and `2031-04-30` as they stand. Null where it is no day.
 */
export function readDate(text: string, month: string): string | null {
  const plain = text.trim().toLowerCase();
  if (isEnteredDate(plain)) return plain;
  const match = /^(\d{1,2})(?:[\s./-]+([a-z]{3,9}|\d{1,2})(?:[\s./-]+(\d{2}|\d{4}))?)?$/.exec(plain);
  if (!match) return null;
  const [, day = '', name, year] = match;
  const [usualYear, usualMonth] = month.split('-');
  const number = name === undefined ? Number(usualMonth) : /^\d/.test(name) ? Number(name) : NAMES.indexOf(name.slice(0, 3)) + 1;
  const full = year === undefined ? usualYear : year.length === 2 ? present(usualYear).slice(0, 2) + year : year;
  const date = `${full}-${String(number).padStart(2, '0')}-${day.padStart(2, '0')}`;
  return isEnteredDate(date) ? date : null;
}
