import { at } from '../errors/known';
import {
  addDays,
  daysBetween,
  firstDay,
  lastDay,
  monthsFrom,
  periodOf,
  type Period,
  type PlainDate,
} from '../calendar/plainDate';
import { allocate } from '../money/allocate';
import type { Cents } from '../money/cents';

/** A stretch of days, both included. */
export interface Span {
  from: PlainDate;
  to: PlainDate;
}

/** An amount of one month. */
export interface MonthAmount {
  month: Period;
  amount: Cents;
}

/**
 * An amount spread evenly over the days of a span, by month, to the penny: each month's weight is its days within the
 * span, and the largest remainders get the odd pennies (docs/rules.md). A span that ends before it begins is its first day.
 */
export function spreadByMonth(amount: Cents, { from, to }: Span): MonthAmount[] {
  const end = to < from ? from : to;
  const months: { month: Period; days: number }[] = [];
  for (const month of monthsFrom(periodOf(from), periodOf(end))) {
    const first = firstDay(month) < from ? from : firstDay(month);
    const last = lastDay(month) > end ? end : lastDay(month);
    months.push({ month, days: daysBetween(first, addDays(last, 1)) });
  }
  const parts = allocate(
    amount,
    months.map((it) => BigInt(it.days)),
  );
  return months.map(({ month }, i) => ({ month, amount: at(parts, i) }));
}

/** Dates of something planned, each as far as it is known; the first of `spans` that has both is taken. */
export function firstWhole(...spans: readonly { from: PlainDate | null; to: PlainDate | null }[]): Span | null {
  for (const { from, to } of spans) if (from !== null && to !== null) return { from, to };
  return null;
}

/** One month of a plan beside what happened, each to date. */
export interface PlannedMonth {
  month: Period;
  plannedCost: Cents;
  plannedBilling: Cents;
}

/** What is planned by the end of each month, to date, and what no dates are known for. */
export interface Plan {
  months: PlannedMonth[];
  unplannedCost: Cents;
  unplannedBilling: Cents;
}

/** Lays costs and prices over their months. Those without a span are shown apart, and are in no month. */
export function planByMonth(
  costs: readonly { amount: Cents; span: Span | null }[],
  prices: readonly { amount: Cents; span: Span | null }[],
): Plan {
  const byMonth = new Map<Period, { cost: Cents; billing: Cents }>();
  const lay = (list: readonly { amount: Cents; span: Span | null }[], into: 'cost' | 'billing'): Cents => {
    let without = 0;
    for (const { amount, span } of list) {
      if (!span) without += amount;
      else
        for (const it of spreadByMonth(amount, span)) {
          const there = byMonth.get(it.month) ?? { cost: 0, billing: 0 };
          byMonth.set(it.month, { ...there, [into]: there[into] + it.amount });
        }
    }
    return without;
  };
  const [unplannedCost, unplannedBilling] = [lay(costs, 'cost'), lay(prices, 'billing')];
  const known = [...byMonth.keys()].sort();
  const months: PlannedMonth[] = [];
  let [cost, billing] = [0, 0];
  for (const month of known.length === 0 ? [] : monthsFrom(at(known, 0), at(known, -1))) {
    cost += byMonth.get(month)?.cost ?? 0;
    billing += byMonth.get(month)?.billing ?? 0;
    months.push({ month, plannedCost: cost, plannedBilling: billing });
  }
  return { months, unplannedCost, unplannedBilling };
}
