import type { PlainDate } from '../calendar/plainDate';
import { amountBy } from '../billing/application';
import type { MoneyReceived } from '../billing/invoiceRefusals';
import type { Cents } from '../money/cents';
import { multiplyDivide } from '../money/round';
import { WHOLE, type Rate } from '../money/rate';

/** Amounts before tax that a charged job was invoiced, credits of them below zero, each on its day. */
export type Invoiced = MoneyReceived;

/** The first day from `from` on at whose end more is invoiced than the ceiling; null where there is none, or no ceiling. */
export function passesCeiling(
  invoiced: readonly Invoiced[],
  ceiling: Cents | null,
  from: PlainDate,
): { on: PlainDate; total: Cents } | null {
  if (ceiling === null) return null;
  const days = [...new Set([from, ...invoiced.map((it) => it.dated).filter((it) => it > from)])].sort();
  const totals = days.map((on) => ({ on, total: amountBy(invoiced, on) }));
  return totals.find(({ total }) => total > ceiling) ?? null;
}

/** From this share of a ceiling on it is warned of. */
export const CEILING_WARNING: Rate = 800_000;

/** Whether a share of the ceiling is charged, so that it is warned of. */
export function isNearCeiling(charged: Cents, ceiling: Cents | null, warnAt: Rate): boolean {
  return ceiling !== null && charged >= multiplyDivide(ceiling, warnAt, WHOLE);
}
