import type { Flavour } from './flavour';
import { formatScaled, parseScaled, type Scaled } from './decimal';

/** Money as a whole count of the currency's minor unit. Sign as the field says; never a fraction. */
export type Cents = Flavour<number, 'cents'>;

/** The largest amount one cell may hold: beyond it sums could leave the range of exact integers. */
export const LARGEST_AMOUNT = 9_999_999_999_999;

/** Reads a plain decimal such as `12500.00` into minor units of a currency with `digits` decimals. */
export function parseCents(text: string, digits: number): Scaled {
  return parseScaled(text, digits, LARGEST_AMOUNT);
}

/** Minor units as a plain decimal with all the currency's decimals: 1250 → `12.50`. */
export function formatCents(cents: Cents, digits: number): string {
  return formatScaled(cents, digits);
}

/** Sum of whole minor units. */
export function sum(amounts: readonly Cents[]): Cents {
  let total = 0;
  for (const amount of amounts) total += amount;
  return total;
}
