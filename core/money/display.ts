import { formatScaled, formatShortest } from './decimal';
import type { Cents } from './cents';
import { QUANTITY_DECIMALS, type Hours, type Quantity, type Rate } from './rate';

/** A true minus, as wide as a plus. */
export const MINUS = '−';

/** An amount for reading: thousands in commas, a true minus, zero as a dash. The currency is named once per table. */
export function displayCents(cents: Cents, digits: number): string {
  return cents === 0 ? '–' : displayExact(cents, digits);
}

/** The same, but zero in figures: where a nought must be seen to be one. */
export function displayExact(cents: Cents, digits: number): string {
  const [whole = '', part] = formatScaled(Math.abs(cents), digits).split('.');
  const grouped = whole.replace(/\B(?=(\d{3})+$)/g, ',');
  return `${cents < 0 ? MINUS : ''}${grouped}${part === undefined ? '' : `.${part}`}`;
}

/** A rate as percent to one decimal, for reading. */
export function displayPercent(rate: Rate): string {
  if (rate === 0) return '–';
  const tenths = Math.round(Math.abs(rate) / 1000);
  return `${rate < 0 ? MINUS : ''}${formatScaled(tenths, 1)}`;
}

/** Hours or a quantity for reading. */
export function displayQuantity(quantity: Quantity | Hours): string {
  if (quantity === 0) return '–';
  const [whole = '', part] = formatShortest(Math.abs(quantity), QUANTITY_DECIMALS).split('.');
  return `${quantity < 0 ? MINUS : ''}${whole.replace(/\B(?=(\d{3})+$)/g, ',')}${part ? `.${part}` : ''}`;
}
