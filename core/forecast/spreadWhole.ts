import { sum, type Cents } from '../money/cents';
import { allocate } from '../money/allocate';
import { revisedBudget, type CostLineState } from './estimateAtCompletion';

/** The ways of saying in one figure what a job comes to. */
export const WHOLE_WAYS = {
  estimate: 'estimate at completion',
  overrun: 'overrun of the revised budget',
  'to-complete': 'cost to complete',
} as const;
export type WholeWay = keyof typeof WHOLE_WAYS;

/** A line that takes part: as of the day, without a forecast of it. */
export interface LineOfWhole {
  state: Pick<CostLineState, 'original' | 'changes' | 'cost' | 'dayworkCost' | 'openCommitment'>;
  /** What the line comes to by a forecast of its own, which stands; null where it has none. */
  own: Cents | null;
}

/** Why one figure cannot be spread: `least` is the least cost to complete of the lines it would be spread over. */
export type NotSpread = { why: 'too-little'; least: Cents; asked: Cents } | { why: 'no-budget-left' };

/**
 * The cost to complete of each line that has no forecast of its own, so that the whole job comes to what is said: spread in proportion to
 * the budget that is left (docs/rules.md §7), by largest remainders, and no line below its open commitment. Null for a line with its own.
 */
export function spreadWhole(way: WholeWay, amount: Cents, lines: readonly LineOfWhole[]): (Cents | null)[] | NotSpread {
  const asked = toComplete(way, amount, lines);
  const free = lines.flatMap((it, i) => (it.own === null ? [i] : []));
  const state = (i: number) => (lines[i] as LineOfWhole).state;
  const least = sum(free.map((i) => state(i).openCommitment));
  if (asked < least) return { why: 'too-little', least, asked };
  const left = new Map(free.map((i) => [i, Math.max(0, revisedBudget(state(i)) - state(i).cost)]));
  if (asked > least && ![...left.values()].some((it) => it > 0)) return { why: 'no-budget-left' };
  const shares = new Map<number, Cents>();
  let open = free.filter((i) => (left.get(i) ?? 0) > 0);
  for (const i of free) if (!open.includes(i)) shares.set(i, state(i).openCommitment);
  // A line that would fall below what is ordered on it has that, and the others share the rest.
  for (;;) {
    const parts = allocate(
      asked - sum([...shares.values()]),
      open.map((i) => BigInt(left.get(i) ?? 0)),
    );
    const low = open.filter((i, at) => (parts[at] ?? 0) < state(i).openCommitment);
    if (low.length === 0) {
      open.forEach((i, at) => shares.set(i, parts[at] ?? 0));
      return lines.map((_, i) => shares.get(i) ?? null);
    }
    for (const i of low) shares.set(i, state(i).openCommitment);
    open = open.filter((i) => !low.includes(i));
  }
}

/** What is to be spread: the cost to complete of the whole, less that of the lines with a forecast of their own. */
function toComplete(way: WholeWay, amount: Cents, lines: readonly LineOfWhole[]): Cents {
  const cost = sum(lines.map((it) => it.state.cost));
  const revised = sum(lines.map((it) => revisedBudget(it.state)));
  const whole = { estimate: amount - cost, overrun: revised + amount - cost, 'to-complete': amount }[way];
  return whole - sum(lines.map((it) => (it.own === null ? 0 : it.own - it.state.cost)));
}
