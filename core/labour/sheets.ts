import { comparePlain } from '../costs/costType';
import { displayQuantity } from '../money/display';
import type { Hours } from '../money/rate';

/** The most hours of one employee on one day, in ten-thousandths. */
export const HOURS_OF_A_DAY: Hours = 240_000;

/** One hour, in ten-thousandths. */
export const ONE_HOUR: Hours = 10_000;

/** Names in order: whole numbers first, by size, then plain text. */
export function inNameOrder(a: string, b: string): number {
  const [first, second] = [wholeOf(a), wholeOf(b)];
  if (first !== null && second !== null) return first < second ? -1 : first > second ? 1 : comparePlain(a, b);
  if (first !== null || second !== null) return first !== null ? -1 : 1;
  return comparePlain(a, b);
}

const wholeOf = (name: string): bigint | null => (/^\d+$/.test(name) ? BigInt(name) : null);

/** Lines of time in the order of sheet and line. */
export function inSheetOrder(a: { sheet: string; line: string }, b: { sheet: string; line: string }): number {
  return inNameOrder(a.sheet, b.sheet) || inNameOrder(a.line, b.line);
}

/** Whole hours, nearest, for reading on a phone: nobody asks there for their fractions. */
export function displayHours(hours: Hours): string {
  return hours === 0 ? '0' : displayQuantity(Math.round(hours / ONE_HOUR) * ONE_HOUR);
}
