import { present } from '../errors/known';
import type { Cents } from '../money/cents';
import { formatScaled, parseScaled, type Scaled } from '../money/decimal';
import type { Flavour } from '../money/flavour';
import { QUANTITY_DECIMALS, WHOLE, type Quantity, type Rate } from '../money/rate';
import { divideRounded, multiplyDivide } from '../money/round';

/** What one unit costs, in ten-thousandths of the currency's main unit: 12.3456 is 123456, whatever the minor unit. */
export type UnitCost = Flavour<number, 'unit-cost'>;

export const UNIT_COST_DECIMALS = 4;
export const LARGEST_UNIT_COST: UnitCost = 9_999_999_999_999;
const QUANTITY_SCALE = 10 ** QUANTITY_DECIMALS;

/** Reads a unit cost with up to four decimals. */
export function parseUnitCost(text: string): Scaled {
  return parseScaled(text, UNIT_COST_DECIMALS, LARGEST_UNIT_COST);
}

/** A unit cost as a plain decimal: at least the currency's decimals, and as many more as it needs. */
export function formatUnitCost(cost: UnitCost, digits: number): string {
  const text = formatScaled(cost, UNIT_COST_DECIMALS);
  const spare = UNIT_COST_DECIMALS - Math.min(digits, UNIT_COST_DECIMALS);
  const zeros = present(/0*$/.exec(text))[0].length;
  const cut = text.slice(0, text.length - Math.min(spare, zeros));
  return cut.endsWith('.') ? cut.slice(0, -1) : cut;
}

/** `quantity` × `cost` in minor units of a currency with `digits` decimals, rounded once, half away from zero. */
export function extend(quantity: Quantity, cost: UnitCost, digits: number): Cents {
  return multiplyDivide(quantity, cost, 10 ** (QUANTITY_DECIMALS + UNIT_COST_DECIMALS - digits));
}

/** `lineQuantity` × `quantity` a unit × `cost`: the same, of what is needed for each unit of a line. */
export function extendPerUnit(lineQuantity: Quantity, quantity: Quantity, cost: UnitCost, digits: number): Cents {
  if (quantity === QUANTITY_SCALE) return extend(lineQuantity, cost, digits);
  return divideRounded(
    BigInt(lineQuantity) * BigInt(quantity) * BigInt(cost),
    10n ** BigInt(2 * QUANTITY_DECIMALS + UNIT_COST_DECIMALS - digits),
  );
}

/** `quantity` of something at `each`, raised by `waste`, as a unit cost (or hours): four decimals, rounded once. */
export function perUnitWithWaste(quantity: Quantity, waste: Rate, each: number): number {
  return divideRounded(BigInt(quantity) * BigInt(WHOLE + waste) * BigInt(each), BigInt(QUANTITY_SCALE) * BigInt(WHOLE));
}

/** A unit cost of `cost` minor units for `quantity`, four decimals, rounded once; of nothing: 0. */
export function unitCostOf(cost: Cents, quantity: Quantity, digits: number): UnitCost {
  return quantity === 0 ? 0 : multiplyDivide(cost, 10 ** (QUANTITY_DECIMALS + UNIT_COST_DECIMALS - digits), quantity);
}

/** `cost` changed by `rate`, which may be below zero, rounded once. */
export function changedBy(cost: UnitCost, rate: Rate): UnitCost {
  return multiplyDivide(cost, WHOLE + rate, WHOLE);
}
