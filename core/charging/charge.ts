import type { PlainDate } from '../calendar/plainDate';
import type { CostType } from '../costs/costType';
import type { Cents } from '../money/cents';
import { rateOf, type Hours, type Rate } from '../money/rate';
import { extend } from '../prices/unitCost';
import type { ChargeRate, ChargeRates, ChargeRung } from './chargeRates';

/** A cost entry as far as what is charged for it goes. */
export interface EntryToCharge {
  job: string;
  client: string;
  /** Its own date: charge rates go by it. */
  dated: PlainDate;
  costType: CostType;
  amount: Cents;
  /** Its own markup; null: the job's for its cost type. */
  markup: Rate | null;
  /** Of a line of time: whose hours they are, whether it is their pay or its burden; null for other cost. */
  time: { part: 'pay' | 'burden'; hours: Hours; workKind: string; employee: string; wageClass: string } | null;
}

/** What cost is charged at. */
export interface ChargeTerms {
  rates: ChargeRates;
  /** By job, then cost type. */
  markups: ReadonlyMap<string, Readonly<Partial<Record<CostType, Rate>>>>;
}

/** What is charged for an entry, before tax, and by what. */
export type Charged =
  | { charge: Cents; by: 'rate'; rate: ChargeRate & { rung: ChargeRung } }
  | { charge: Cents; by: 'burden-of-rate' }
  | { charge: Cents; by: 'markup'; markup: Rate };

/**
 * docs/rules.md §14: hours with a charge rate on their day are charged at it, whatever the pay class, and their burden is in it; all else
 * at cost with markup. Rounded once.
 */
export function chargeOf(entry: EntryToCharge, { rates, markups }: ChargeTerms, digits: number): Charged {
  const { time, amount } = entry;
  if (time) {
    const { job, client, dated } = entry;
    const { workKind, employee, wageClass } = time;
    const rate = rates.on({ job, client, dated, workKind, employee, wageClass });
    if (rate && time.part === 'burden') return { charge: 0, by: 'burden-of-rate' };
    if (rate) return { charge: extend(time.hours as number, rate.rate, digits), by: 'rate', rate };
  }
  const markup = entry.markup ?? markups.get(entry.job)?.[entry.costType] ?? 0;
  return { charge: amount + rateOf(markup, amount), by: 'markup', markup };
}
