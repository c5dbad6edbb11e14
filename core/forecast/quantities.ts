import type { Cents } from '../money/cents';
import type { Quantity } from '../money/rate';
import { divideRounded } from '../money/round';
import { UNIT_COST_DECIMALS } from '../prices/unitCost';

/** A budget row of a cost line, or a cost line of a change order that is approved by the date. Null: it has no quantity. */
export interface QuantityRow {
  quantity: Quantity | null;
  unit: string;
  isChange: boolean;
}

/** What was posted on a cost line with a quantity. */
export interface UsedQuantity {
  quantity: Quantity;
  cost: Cents;
}

/** A cost line by quantity, docs/rules.md §5a. Quantities in ten-thousandths, costs of a unit in ten-thousandths of the currency. */
export interface LineQuantities {
  unit: string;
  budgeted: Quantity;
  changes: Quantity;
  revised: Quantity;
  used: Quantity;
  left: Quantity;
  /** Null where nothing is budgeted by quantity. */
  budgetUnitCost: number | null;
  /** Null where nothing was used. */
  unitCost: number | null;
  /** What was used has cost more than at the unit cost of the budget, below zero: less. Null where one of the two is. */
  priceEffect: Cents | null;
}

/** A figure of a cost line by quantity, as it is named everywhere. */
interface QuantityFigureOf {
  title: string;
  /** Its head in a table, where the title is too long. */
  head: string;
  unit: 'quantity' | 'unit-cost' | 'money';
  /** Its column in the report, docs/book.md. */
  column: string;
  key: Exclude<keyof LineQuantities, 'unit'>;
}

/** In the order of the report. The report, its downloads, the page and the workings read them from here. */
export const QUANTITY_FIGURES = {
  quantityBudgeted: { title: 'Quantity budgeted', head: 'Budgeted', unit: 'quantity', column: 'budgeted', key: 'budgeted' },
  quantityChanges: { title: 'Quantity of change orders', head: 'Changes', unit: 'quantity', column: 'changes', key: 'changes' },
  quantityRevised: { title: 'Revised quantity', head: 'Revised', unit: 'quantity', column: 'revised', key: 'revised' },
  quantityUsed: { title: 'Quantity used', head: 'Used', unit: 'quantity', column: 'used', key: 'used' },
  quantityLeft: { title: 'Quantity left', head: 'Left', unit: 'quantity', column: 'left', key: 'left' },
  unitCostBudgeted: {
    title: 'Unit cost budgeted',
    head: 'Unit cost, budget',
    unit: 'unit-cost',
    column: 'budget_unit_cost',
    key: 'budgetUnitCost',
  },
  unitCostSoFar: {
    title: 'Unit cost to date',
    head: 'Unit cost to date',
    unit: 'unit-cost',
    column: 'unit_cost',
    key: 'unitCost',
  },
  priceEffect: { title: 'Price effect', head: 'Price effect', unit: 'money', column: 'price_effect', key: 'priceEffect' },
} as const satisfies Record<string, QuantityFigureOf>;
export type QuantityFigure = keyof typeof QUANTITY_FIGURES;
export const QUANTITY_FIGURE_NAMES = Object.keys(QUANTITY_FIGURES) as QuantityFigure[];

const sameUnit = (unit: string) => unit.replace(/\s/g, '').toLowerCase();

/** The one unit of a line's rows that have a quantity, as the first of them writes it; null where they have none, or several. */
export function unitOf(rows: readonly QuantityRow[]): string | null {
  const named = rows.filter((it) => (it.quantity ?? 0) !== 0 && it.unit.trim() !== '');
  const [first] = named;
  return first && named.every((it) => sameUnit(it.unit) === sameUnit(first.unit)) ? first.unit.trim() : null;
}

/** What counts as used on a line: entries whose unit is empty or the line's. */
export function countedIn(unit: string | null, used: readonly (UsedQuantity & { unit: string })[]): UsedQuantity {
  const counted = used.filter((it) => it.unit.trim() === '' || (unit !== null && sameUnit(it.unit) === sameUnit(unit)));
  return {
    quantity: counted.reduce((sum, it) => sum + it.quantity, 0),
    cost: counted.reduce((sum, it) => sum + it.cost, 0),
  };
}

/** `cost ÷ quantity` in ten-thousandths of the currency, half away from zero; null where the quantity is 0. */
function costOfUnit(cost: Cents, quantity: Quantity, digits: number): number | null {
  if (quantity === 0) return null;
  const scale = 10n ** BigInt(2 * UNIT_COST_DECIMALS);
  return divideRounded(BigInt(cost) * scale, BigInt(quantity) * 10n ** BigInt(digits));
}

/**
 * A cost line by quantity: what was budgeted, what was used, and what of the difference in cost is the price. `rows` in the order of the
 * books, `used` without what has no quantity. Null where the line has no one unit.
 */
export function lineQuantities(
  rows: readonly QuantityRow[],
  used: UsedQuantity,
  revisedBudget: Cents,
  digits: number,
): LineQuantities | null {
  const unit = unitOf(rows);
  if (unit === null) return null;
  const sum = (isChange: boolean) =>
    rows.filter((it) => it.isChange === isChange).reduce((total, it) => total + (it.quantity ?? 0), 0);
  const [budgeted, changes] = [sum(false), sum(true)];
  const revised = budgeted + changes;
  return {
    unit,
    budgeted,
    changes,
    revised,
    used: used.quantity,
    left: revised - used.quantity,
    budgetUnitCost: costOfUnit(revisedBudget, revised, digits),
    unitCost: costOfUnit(used.cost, used.quantity, digits),
    priceEffect:
      revised === 0 || used.quantity === 0
        ? null
        : used.cost - divideRounded(BigInt(used.quantity) * BigInt(revisedBudget), BigInt(revised)),
  };
}
