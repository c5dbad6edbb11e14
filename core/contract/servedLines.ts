import { allocate } from '../money/allocate';
import type { Cents } from '../money/cents';

/** How much of a cost line's budget names an SOV line: originally, and by change orders approved since. Minor units. */
export interface Served {
  sovLine: string;
  amount: Cents;
}

/**
 * An amount of a cost line, such as its cost to date, by the SOV lines it serves: in proportion to the budget that names each, to the
 * penny by largest remainders, so that the parts add up to it. One that names none stands under `''` (docs/rules.md §4).
 */
export function partsBySovLine(amount: Cents, served: readonly Served[]): Map<string, Cents> {
  const [only] = served;
  if (only === undefined || served.length === 1) return new Map([[only?.sovLine ?? '', amount]]);
  const parts = allocate(
    amount,
    served.map((it) => BigInt(it.amount)),
  );
  return new Map(served.map(({ sovLine }, i) => [sovLine, parts[i] ?? 0]));
}
