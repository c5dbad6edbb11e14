import type { PlainDate } from '../calendar/plainDate';
import { sum, type Cents } from '../money/cents';
import type { Hours } from '../money/rate';
import { refuse, type Refusal } from '../refusals/refusal';

/** A budget transfer as far as it can be judged: what goes in and out by line, of a job. */
export interface Transfer {
  dated: PlainDate;
  /** Null: not awarded yet. */
  awardedOn: PlainDate | null;
  lines: readonly { amount: Cents; hours: Hours | null }[];
}

/** Why budget cannot be moved so: it adds up to zero, moves something, and not before the original budget is frozen. docs/rules.md §4. */
export function transferRefusals({ dated, awardedOn, lines }: Transfer): Refusal[] {
  const refusals: Refusal[] = [];
  const rest = sum(lines.map((it) => it.amount));
  if (rest !== 0) refusals.push(refuse('transfer-uneven', 'lines', { rest }));
  else if (lines.every((it) => it.amount === 0 && (it.hours ?? 0) === 0))
    refusals.push(refuse('transfer-of-nothing', 'lines', {}));
  if (awardedOn !== null && dated < awardedOn) refusals.push(refuse('transfer-before-award', 'dated', { on: dated, awardedOn }));
  return refusals;
}
