import { MINUS } from '../../../core/money/display';
import { formatScaled } from '../../../core/money/decimal';
import { formatUnitCost, parseUnitCost, UNIT_COST_DECIMALS } from '../../../core/prices/unitCost';
import type { Codec } from './codecs';
import { withoutThousands } from './withoutThousands';

/** The cost of one unit, up to four decimals, never below zero. */
export function unitCost(digits: number): Codec<number> {
  return {
    parse: (text) => {
      const value = parseUnitCost(withoutThousands(text.trim().replaceAll(MINUS, '-')));
      if (value.ok && value.value >= 0) return { ok: true, value: value.value };
      if (text.trim() === '') return { ok: false, message: 'Expected what one unit costs' };
      return { ok: false, message: `"${text}" is not a unit cost of 0 or more with up to 4 decimals` };
    },
    format: (value) => grouped(formatUnitCost(value, digits)),
    nothing: 0,
    look: 'figure',
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
