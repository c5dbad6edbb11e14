import type { Flavour } from './flavour';
import { multiplyDivide } from './round';
import { formatScaled, formatShortest, parseScaled, type Scaled } from './decimal';
import type { Cents } from './cents';

/** A proportion in millionths: 1,000,000 is 100 %, so four decimals of a percent are exact. */
export type Rate = Flavour<number, 'rate'>;
/** Quantities and hours in ten-thousandths. */
export type Quantity = Flavour<number, 'quantity'>;
export type Hours = Flavour<number, 'hours'>;

export const WHOLE: Rate = 1_000_000;
export const QUANTITY_DECIMALS = 4;
const PERCENT_DECIMALS = 4;
export const LARGEST_QUANTITY = 99_999_999_999_999;
/** The most a markup may be: ten times what it is put on. */
export const LARGEST_MARKUP: Rate = 10 * WHOLE;
/** The most that may be needed of anything in an estimate: beyond it cost would not stay exact. */
export const LARGEST_NEEDED: Quantity = 99_999_999_999;

/** Reads a percent from 0 to 100 with up to four decimals; `too-large` also says below zero. */
export function parsePercent(text: string): Scaled {
  const read = parseScaled(text, PERCENT_DECIMALS, WHOLE);
  return read.ok && read.value < 0 ? { ok: false, problem: 'too-large' } : read;
}

/** Reads a markup: −100 to 1,000 percent with up to four decimals. `too-large` also says below −100. */
export function parseMarkup(text: string): Scaled {
  const read = parseScaled(text, PERCENT_DECIMALS, LARGEST_MARKUP);
  return read.ok && read.value < -WHOLE ? { ok: false, problem: 'too-large' } : read;
}

/** A rate as percent with exactly four decimals: `33.3333`. */
export function formatPercent(rate: Rate): string {
  return formatScaled(rate, PERCENT_DECIMALS);
}

/** A rate as percent in its shortest form: `5`, `2.5`. */
export function formatPercentShortest(rate: Rate): string {
  return formatShortest(rate, PERCENT_DECIMALS);
}

/** Reads a quantity or hours with up to four decimals. */
export function parseQuantity(text: string): Scaled {
  return parseScaled(text, QUANTITY_DECIMALS, LARGEST_QUANTITY);
}

/** Reads what is needed of something in an estimate: up to 9,999,999.9999. */
export function parseNeeded(text: string): Scaled {
  return parseScaled(text, QUANTITY_DECIMALS, LARGEST_NEEDED);
}

/** A quantity or hours in their shortest form. */
export function formatQuantity(quantity: Quantity): string {
  return formatShortest(quantity, QUANTITY_DECIMALS);
}

/** `rate` of `amount`, rounded once, half away from zero. */
export function rateOf(rate: Rate, amount: Cents): Cents {
  return multiplyDivide(rate, amount, WHOLE);
}

/** `part ÷ whole` to the four decimals of a percent; of nothing: 0 (docs/book.md: `0.0000`). */
export function ratio(part: number, whole: number): Rate {
  return whole === 0 ? 0 : multiplyDivide(whole < 0 ? -part : part, WHOLE, Math.abs(whole));
}
