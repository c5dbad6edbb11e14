import { sum, type Cents } from '../money/cents';
import { rateOf, type Rate } from '../money/rate';
import type { Retention } from './retention';

/** What an application's totals are worked from beside its lines. */
export interface TotalsBasis {
  contractSum: Cents;
  /** Released by the application's own date, before tax. */
  retentionReleased: Cents;
  /** Net to date of the last certified application before it. */
  previouslyCertified: Cents;
  taxRate: Rate;
}

/** The totals of an application to date (docs/rules.md §6). */
export interface Totals {
  work: Cents;
  materials: Cents;
  gross: Cents;
  net: Cents;
  due: Cents;
  tax: Cents;
  payable: Cents;
  balanceToComplete: Cents;
}

/** Works out an application's totals from its lines to date and the retention on them; a draft on the screen asks the same. */
export function totalsOf(basis: TotalsBasis, lines: readonly { work: Cents; materials: Cents }[], retention: Retention): Totals {
  const work = sum(lines.map((it) => it.work));
  const materials = sum(lines.map((it) => it.materials));
  const gross = work + materials;
  const net = gross - retention.total;
  const due = net - basis.previouslyCertified;
  const tax = rateOf(basis.taxRate, due);
  const balanceToComplete = basis.contractSum - net - basis.retentionReleased;
  return { work, materials, gross, net, due, tax, payable: due + tax, balanceToComplete };
}
