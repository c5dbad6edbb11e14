import { at } from '../errors/known';
import type { RetentionRule } from '../billing/retention';
import { retentionToDate } from '../billing/retention';
import { addDays, monthsFrom, periodOf, type Period, type PlainDate } from '../calendar/plainDate';
import { sum, type Cents } from '../money/cents';
import type { Rate } from '../money/rate';
import type { MonthAmount } from '../plan/planned';

/** A bill expected: what it takes from each SOV line, in their order. Null: no day is known for it. */
export interface ExpectedBill {
  day: PlainDate | null;
  parts: readonly Cents[];
}

export interface CashInput {
  bills: readonly ExpectedBill[];
  /** Own retention rates of the SOV lines; null takes the job's. */
  lineRates: readonly (Rate | null)[];
  retention: RetentionRule;
  contractSum: Cents;
  /** Days from a bill to its money. */
  termsDays: number;
  /** The day retention is released, where it is known. */
  retentionOn: PlainDate | null;
  /** Planned cost by month, paid in the month it is planned in. */
  costs: readonly MonthAmount[];
}

/** A month of the cash curve; all to date, before tax. */
export interface CashMonth {
  month: Period;
  billed: Cents;
  received: Cents;
  cost: Cents;
  /** Received less cost: below zero, the company pays ahead. */
  inHand: Cents;
}

export interface Cash {
  months: CashMonth[];
  /** The month with least in hand; null where there are no months. */
  lowest: CashMonth | null;
  /** Billed without a day, so in no month. */
  undated: Cents;
  /** Retention whose release has no day, so never in `received`. */
  retentionLeft: Cents;
}

/**
 * What a billing schedule brings in beside what the plan spends, by month (docs/rules.md). Each bill is paid its terms
 * after its day, less what the job's retention rule holds back to date; what is held comes when it is released, also
 * after its terms, and not before the last bill.
 */
export function cashCurve(input: CashInput): Cash {
  const dated = input.bills
    .flatMap(({ day, parts }) => (day === null ? [] : [{ day, parts }]))
    .sort((a, b) => (a.day < b.day ? -1 : a.day > b.day ? 1 : 0));
  const billed: MonthAmount[] = [];
  const received: MonthAmount[] = [];
  const toDate = input.lineRates.map(() => 0);
  let held = 0;
  for (const { day, parts } of dated) {
    parts.forEach((part, i) => (toDate[i] = at(toDate, i) + part));
    const lines = toDate.map((work, i) => ({ work, materials: 0, rate: at(input.lineRates, i) }));
    const now = retentionToDate(input.retention, input.contractSum, lines).total;
    billed.push({ month: periodOf(day), amount: sum(parts) });
    received.push({ month: periodOf(addDays(day, input.termsDays)), amount: sum(parts) - (now - held) });
    held = now;
  }
  const last = dated.at(-1)?.day;
  if (held !== 0 && input.retentionOn && last) {
    const released = input.retentionOn < last ? last : input.retentionOn;
    received.push({ month: periodOf(addDays(released, input.termsDays)), amount: held });
    held = 0;
  }
  const months = toDateByMonth(billed, received, input.costs);
  return {
    months,
    lowest: months.reduce<CashMonth | null>((least, it) => (least === null || it.inHand < least.inHand ? it : least), null),
    undated: sum(input.bills.filter((it) => it.day === null).map((it) => sum(it.parts))),
    retentionLeft: held,
  };
}

function toDateByMonth(...flows: [billed: MonthAmount[], received: MonthAmount[], cost: readonly MonthAmount[]]): CashMonth[] {
  const byMonth = flows.map((flow) => {
    const of = new Map<Period, Cents>();
    for (const { month, amount } of flow) of.set(month, (of.get(month) ?? 0) + amount);
    return of;
  });
  const known = byMonth.flatMap((it) => [...it.keys()]).sort();
  const months: CashMonth[] = [];
  let [billed, received, cost] = [0, 0, 0];
  for (const month of known.length === 0 ? [] : monthsFrom(at(known, 0), at(known, -1))) {
    [billed, received, cost] = [billed, received, cost].map((before, i) => before + (at(byMonth, i).get(month) ?? 0)) as [
      Cents,
      Cents,
      Cents,
    ];
    months.push({ month, billed, received, cost, inHand: received - cost });
  }
  return months;
}
