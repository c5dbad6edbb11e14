import type { Cents } from '../money/cents';
import { QUANTITY_DECIMALS, type Hours } from '../money/rate';
import { divideRounded } from '../money/round';
import { UNIT_COST_DECIMALS, type UnitCost } from '../prices/unitCost';

/** What an hour is paid as, in the order of the day. */
export const PAY_CLASSES = ['regular', 'overtime', 'double'] as const;
export type PayClass = (typeof PAY_CLASSES)[number];

/** How often an hour of it is paid, in halves: once, one and a half times, twice. */
const HALVES: Readonly<Record<PayClass, number>> = { regular: 2, overtime: 3, double: 4 };

/** How often an hour of it is paid, as it is written: 1, 1.5, 2. */
export const multiplierText = (pay: PayClass): string => String(HALVES[pay] / 2);

/** Hours × rate × multiplier of the class, in minor units of a currency with `digits` decimals; rounded once, half away from zero. */
export function payFor(hours: Hours, rate: UnitCost, pay: PayClass, digits: number): Cents {
  const scale = 2n * 10n ** BigInt(QUANTITY_DECIMALS + UNIT_COST_DECIMALS - digits);
  return divideRounded(BigInt(hours) * BigInt(rate) * BigInt(HALVES[pay]), scale);
}
