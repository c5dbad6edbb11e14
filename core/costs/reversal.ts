import type { PlainDate } from '../calendar/plainDate';
import type { Cents } from '../money/cents';
import type { Installation } from './installed';

/** A posted cost entry, as far as a correction turns it round. */
export interface PostedCost {
  dated: PlainDate;
  /** The accounting date. */
  postedOn: PlainDate;
  amount: Cents;
  quantity: number | null;
  hours: number | null;
  uninstalled: boolean;
  installations: readonly Installation[];
}

/** When cost is taken back: all on one day, or, where that is null, each entry on its own accounting date. */
export type CorrectionDay = PlainDate | null;

/**
 * The entry that takes another back. What of it is uninstalled comes off by exactly as much as the entry still adds on every day from
 * then on.
 */
export function reversed<Cost extends PostedCost>(cost: Cost, on: CorrectionDay): Cost {
  const postedOn = on ?? cost.postedOn;
  return {
    ...cost,
    dated: on ?? cost.dated,
    postedOn,
    amount: minus(cost.amount),
    quantity: cost.quantity === null ? null : minus(cost.quantity),
    hours: cost.hours === null ? null : minus(cost.hours),
    installations: notBefore(postedOn, cost.installations).map((it) => ({
      ...it,
      amount: minus(it.amount),
      quantity: it.quantity === null ? null : minus(it.quantity),
    })),
  };
}

/** The entry that stands in place of one that is taken back on the same day. It keeps the document's own date. */
export function replaced<Cost extends PostedCost>(cost: Cost, on: CorrectionDay): Cost {
  const postedOn = on ?? cost.postedOn;
  return { ...cost, postedOn, installations: notBefore(postedOn, cost.installations) };
}

function notBefore(day: PlainDate, installations: readonly Installation[]): Installation[] {
  return installations.map((it) => ({ ...it, installedOn: it.installedOn < day ? day : it.installedOn }));
}

/** Never a negative zero, which JSON and comparisons tell from zero. */
function minus(value: number): number {
  return -value || 0;
}
