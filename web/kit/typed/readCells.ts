import { present } from '../../../core/errors/known';
import { COST_TYPES, type CostType } from '../../../core/costs/costType';
import { MINUS } from '../../../core/money/display';
import { formatPercentShortest, parseMarkup, parseNeeded } from '../../../core/money/rate';
import { formatUnitCost, parseUnitCost, UNIT_COST_DECIMALS } from '../../../core/prices/unitCost';
import { formatScaled, type Scaled } from '../../../core/money/decimal';
import { withoutThousands } from './withoutThousands';

/** Notes what is wrong with a cell, by its place. */
export type Faults = Map<string, string>;

const plain = (typed: string) => withoutThousands(typed.trim().replaceAll(MINUS, '-').replace(/\s*%$/, ''));

function scaled(
  faults: Faults,
  at: string,
  typed: string,
  read: (text: string) => Scaled,
  expected: string,
  empty: number,
): number {
  if (typed.trim() === '') return empty;
  const value = read(plain(typed));
  if (value.ok && (value.value >= 0 || read === parseMarkup)) return value.value;
  faults.set(at, `"${typed}" is no ${expected}`);
  return 0;
}

/** A quantity as typed; `empty` where nothing is. */
export function readNeeded(faults: Faults, at: string, typed: string | undefined, empty = 0): number {
  return scaled(faults, at, typed ?? '', parseNeeded, 'quantity of 0 or more with up to 4 decimals', empty);
}

/** A unit cost as typed. */
export function readUnitCost(faults: Faults, at: string, typed: string | undefined): number {
  return scaled(faults, at, typed ?? '', parseUnitCost, 'unit cost of 0 or more with up to 4 decimals', 0);
}

/** A markup as typed; null where nothing is. */
export function readMarkup(faults: Faults, at: string, typed: string | undefined): number | null {
  if ((typed ?? '').trim() === '') return null;
  return scaled(faults, at, present(typed), parseMarkup, 'percentage from −100 to 1,000 with up to 4 decimals', 0);
}

/** A cost type as typed, by its first letters. */
export function readCostType(faults: Faults, at: string, typed: string | undefined): CostType {
  const wanted = (typed ?? '').trim().toLowerCase();
  const found = COST_TYPES.find((it) => wanted !== '' && it.startsWith(wanted));
  if (!found) faults.set(at, `Expected one of ${COST_TYPES.join(', ')}`);
  return found ?? 'other';
}

/** Shows a unit cost as it was understood; what is none stays as typed. */
export function tidyUnitCost(digits: number) {
  return (typed: string): string => {
    const value = parseUnitCost(plain(typed));
    return value.ok && typed.trim() !== '' ? grouped(formatUnitCost(value.value, digits)) : typed;
  };
}

/** A unit cost for reading, thousands in commas. */
export function showUnitCost(cost: number, digits: number): string {
  return cost === 0 ? '–' : grouped(formatUnitCost(cost, digits));
}

/** The same with all four decimals, so that a column of worked unit costs lines up. */
export function showUnitCostFull(cost: number): string {
  return cost === 0 ? '–' : grouped(formatScaled(cost, UNIT_COST_DECIMALS));
}

function grouped(text: string): string {
  const [whole = '', part] = text.split('.');
  return whole.replace(/\B(?=(\d{3})+$)/g, ',') + (part === undefined ? '' : `.${part}`);
}

/** A markup as a cell shows it. */
export function markupText(rate: number | null): string {
  return rate === null ? '' : formatPercentShortest(rate);
}
