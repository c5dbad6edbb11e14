import { COST_TYPES, type CostType } from '../costs/costType';
import { lookUp } from '../names/lookUp';
import { sum, type Cents } from '../money/cents';
import { QUANTITY_DECIMALS, rateOf, ratio, type Hours, type Quantity, type Rate } from '../money/rate';
import { multiplyDivide } from '../money/round';
import { type UnitShare } from '../prices/buildUp';
import { extend, extendPerUnit, type UnitCost } from '../prices/unitCost';

/** Something priced on one line: for each unit of the line, or in all. Of labour the quantity is hours. */
export interface Part {
  /** The price item it was taken from, for the trace back; empty where it was typed. */
  item: string;
  description: string;
  costCode: string;
  costType: CostType;
  basis: PartBasis;
  quantity: Quantity;
  unit: string;
  unitCost: UnitCost;
  markup: Rate | null;
}
export const PART_BASES = ['per-unit', 'in-all'] as const;
export type PartBasis = (typeof PART_BASES)[number];

/** A line of an estimate: a build-up × quantity, parts of its own, or both. */
export interface EstimateLine {
  line: string;
  section: string;
  description: string;
  quantity: Quantity;
  unit: string;
  /** Code of a build-up, or empty. */
  buildUp: string;
  /** Markup on this line alone; null takes the section's, the item's or the cost type's. */
  markup: Rate | null;
  parts: readonly Part[];
}

/** What a person types of an estimate; the unit costs of its build-ups stand beside it. */
export type EstimateContent = Omit<Estimate, 'prices'> & { name: string };

/** An estimate as priced: its lines, and the unit costs its build-ups had when it was priced. */
export interface Estimate {
  lines: readonly EstimateLine[];
  typeMarkups: Readonly<Partial<Record<CostType, Rate>>>;
  sectionMarkups: Readonly<Record<string, Rate>>;
  /** On cost and markup of all lines. */
  overhead: Rate;
  /** On cost, markup and overhead. */
  profit: Rate;
  /** The rounding line. */
  rounding: Cents;
  prices: ReadonlyMap<string, readonly UnitShare[]>;
}

/** What a line costs on one cost code and type. */
export interface LineCost {
  costCode: string;
  costType: CostType;
  cost: Cents;
  hours: Hours;
}

export interface PricedLine {
  costs: readonly LineCost[];
  cost: Cents;
  hours: Hours;
  markup: Cents;
  /** Cost and markup, before overhead and profit. */
  net: Cents;
  /** Where its markup comes from. */
  markupFrom: 'line' | 'section' | 'type';
}

/** Prices one line. Every product of quantity and unit cost is rounded to the minor unit, and the line is their sum. */
export function priceLine(line: EstimateLine, estimate: Omit<Estimate, 'lines'>, digits: number): PricedLine {
  const own = line.markup ?? lookUp(estimate.sectionMarkups, line.section) ?? null;
  const costs: LineCost[] = [];
  let typeMarkup = 0;
  const add = (costCode: string, costType: CostType, cost: Cents, hours: Hours, markup: Rate | null) => {
    const there = costs.find((it) => it.costCode === costCode && it.costType === costType);
    if (there) {
      there.cost += cost;
      there.hours += hours;
    } else costs.push({ costCode, costType, cost, hours });
    typeMarkup += rateOf(markup ?? estimate.typeMarkups[costType] ?? 0, cost);
  };
  for (const share of estimate.prices.get(line.buildUp) ?? [])
    add(
      share.costCode,
      share.costType,
      extend(line.quantity, share.cost, digits),
      multiplyDivide(line.quantity, share.hours, 10 ** QUANTITY_DECIMALS),
      share.markup,
    );
  for (const part of line.parts)
    add(part.costCode, part.costType, partCost(line.quantity, part, digits), partHours(line.quantity, part), part.markup);
  const cost = sum(costs.map((it) => it.cost));
  const markup = own === null ? typeMarkup : rateOf(own, cost);
  return {
    costs,
    cost,
    hours: costs.reduce((total: Hours, it) => total + it.hours, 0),
    markup,
    net: cost + markup,
    markupFrom: line.markup !== null ? 'line' : own !== null ? 'section' : 'type',
  };
}

/** What a part costs on a line of `lineQuantity`. */
export function partCost(lineQuantity: Quantity, part: Part, digits: number): Cents {
  return part.basis === 'in-all'
    ? extend(part.quantity, part.unitCost, digits)
    : extendPerUnit(lineQuantity, part.quantity, part.unitCost, digits);
}

function partHours(lineQuantity: Quantity, part: Part): Hours {
  if (part.costType !== 'labour') return 0;
  return part.basis === 'in-all' ? Number(part.quantity) : multiplyDivide(lineQuantity, part.quantity, 10 ** QUANTITY_DECIMALS);
}

export interface EstimateTotals {
  byType: Record<CostType, Cents>;
  cost: Cents;
  hours: Hours;
  markup: Cents;
  net: Cents;
  overhead: Cents;
  profit: Cents;
  rounding: Cents;
  price: Cents;
  /** Price less cost. */
  profitAmount: Cents;
  /** Gain of the price. */
  marginRate: Rate;
  /** Gain on the cost: never the same as the margin. */
  markupRate: Rate;
}

export interface PricedEstimate {
  lines: readonly PricedLine[];
  totals: EstimateTotals;
}

/** Prices an estimate: its lines, then overhead on them, profit on both, and the rounding line (docs/rules.md). */
export function priceEstimate(estimate: Estimate, digits: number): PricedEstimate {
  const lines = estimate.lines.map((line) => priceLine(line, estimate, digits));
  return { lines, totals: totalsOf(lines, estimate) };
}

/** From lines that are priced to the price. */
export function totalsOf(
  lines: readonly PricedLine[],
  estimate: Pick<Estimate, 'overhead' | 'profit' | 'rounding'>,
): EstimateTotals {
  const byType = Object.fromEntries(COST_TYPES.map((type) => [type, 0])) as Record<CostType, Cents>;
  let [cost, hours, markup] = [0, 0, 0];
  for (const line of lines) {
    for (const it of line.costs) byType[it.costType] += it.cost;
    cost += line.cost;
    hours += line.hours;
    markup += line.markup;
  }
  const net = cost + markup;
  const overhead = rateOf(estimate.overhead, net);
  const profit = rateOf(estimate.profit, net + overhead);
  const price = net + overhead + profit + estimate.rounding;
  const gain = price - cost;
  return {
    byType,
    cost,
    hours,
    markup,
    net,
    overhead,
    profit,
    rounding: estimate.rounding,
    price,
    profitAmount: gain,
    marginRate: ratio(gain, price),
    markupRate: ratio(gain, cost),
  };
}

/**
 * The profit rate that comes to `target`, and what is unallocated for the rounding line, so that the price is the
 * target to the penny. Null where there is nothing to put a profit on.
 */
export function profitForPrice(totals: EstimateTotals, target: Cents): { profit: Rate; rounding: Cents } | null {
  const base = totals.net + totals.overhead;
  if (base <= 0) return null;
  const profit = ratio(target - base, base);
  return { profit, rounding: target - base - rateOf(profit, base) };
}
