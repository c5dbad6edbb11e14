import { at } from '../errors/known';
import type { PlainDate } from '../calendar/plainDate';
import { allocate } from '../money/allocate';
import { sum, type Cents } from '../money/cents';
import { displayExact } from '../money/display';
import { rateOf, type Rate } from '../money/rate';
import type { DueDay, Instalment } from './instalment';

/** An SOV line that instalments are taken from, at its scheduled value. */
export interface TakenLine {
  line: string;
  section: string;
  scheduled: Cents;
  /** What change orders did to it, each on the day it was approved; counted in `scheduled`. */
  changes?: readonly { on: PlainDate; amount: Cents }[];
}

/** What is wrong with an instalment: a stage without lines to take it from, or more than is left of what it is taken from. */
export type InstalmentProblem =
  { kind: 'no-lines'; stages: readonly string[] } | { kind: 'too-much'; left: Cents } | { kind: 'too-little'; left: Cents };

/** A problem as shown to people; amounts with the currency's `digits`. */
export function problemWords(problem: InstalmentProblem, digits: number): string {
  if (problem.kind === 'no-lines')
    return `No line of the schedule of values stands in ${problem.stages.join(', ')}; name its sections`;
  const left = displayExact(problem.left, digits);
  if (problem.kind === 'too-much' && problem.left <= 0)
    return 'Nothing is left of what it is taken from; lower it, or the others';
  return problem.kind === 'too-much'
    ? `More than is left of what it is taken from, ${left}; bill that or less`
    : `Less than is left of what it is taken from, ${left}; an instalment has the sign of what it is taken from`;
}

export interface ValuedInstalment {
  amount: Cents;
  /** By SOV line, in their order; they add up to the amount. */
  parts: Cents[];
  problem: InstalmentProblem | null;
}

export interface ValuedSchedule {
  instalments: ValuedInstalment[];
  contractSum: Cents;
  total: Cents;
  /** Contract sum less all instalments: 0 where the schedule is whole. */
  left: Cents;
}

/**
 * Values a fixed billing schedule against the schedule of values (docs/rules.md). Per cents of one base are worked to
 * date, so that those which come to 100 come to the base. An amount is split over its lines by what is left of each, the
 * instalments of stages first: so no line passes its scheduled value, and a whole schedule bills every line in full. What
 * a change added after a fixed amount fell due takes none of that amount: what was billed stays on the lines it was on.
 */
export function valueInstalments(
  list: readonly Instalment[],
  lines: readonly TakenLine[],
  days: readonly Pick<DueDay, 'reached'>[],
): ValuedSchedule {
  const amounts = amountsOf(list, lines);
  const left = lines.map((it) => it.scheduled);
  const valued = list.map((): ValuedInstalment => ({ amount: 0, parts: lines.map(() => 0), problem: null }));
  const take = (from: Instalment['from']) =>
    list.forEach((it, i) => {
      if (basis(it) === from)
        valued[i] = allocateInstalment(it, at(amounts, i), lines, left, it.rate === null ? at(days, i).reached : null);
    });
  take('stages');
  take('job');
  const [contractSum, total] = [sum(lines.map((it) => it.scheduled)), sum(amounts)];
  return { instalments: valued, contractSum, total, left: contractSum - total };
}

/** An instalment without stages is taken from the whole job, whatever it says. */
function basis(it: Instalment): Instalment['from'] {
  return it.stages.length === 0 ? 'job' : it.from;
}

function takenFrom(it: Instalment, line: TakenLine): boolean {
  return basis(it) === 'job' || it.stages.includes(line.section);
}

function amountsOf(list: readonly Instalment[], lines: readonly TakenLine[]): Cents[] {
  const ratesBefore = new Map<string, Rate>();
  return list.map((it) => {
    if (it.rate === null) return it.amount ?? 0;
    const base = sum(lines.filter((line) => takenFrom(it, line)).map((line) => line.scheduled));
    const key = basis(it) === 'job' ? '' : JSON.stringify([...it.stages].sort());
    const before = ratesBefore.get(key) ?? 0;
    ratesBefore.set(key, before + it.rate);
    return rateOf(before + it.rate, base) - rateOf(before, base);
  });
}

/** Takes an amount from `left`, which it lowers; `on` is the day a fixed amount fell due, null where it did not. */
function allocateInstalment(
  it: Instalment,
  amount: Cents,
  lines: readonly TakenLine[],
  left: Cents[],
  on: PlainDate | null,
): ValuedInstalment {
  const lineIndexes = lines.flatMap((line, i) => (takenFrom(it, line) ? [i] : []));
  const parts = lines.map(() => 0);
  if (lineIndexes.length === 0) return { amount, parts, problem: { kind: 'no-lines', stages: it.stages } };
  const there = sum(lineIndexes.map((i) => at(left, i)));
  const then = lineIndexes.map((i) => leftThen(at(lines, i), at(left, i), on));
  const enough = Math.abs(sum(then)) >= Math.abs(amount);
  const shares = allocate(
    amount,
    lineIndexes.map((i, k) => BigInt(enough ? at(then, k) : at(left, i))),
  );
  lineIndexes.forEach((i, k) => {
    parts[i] = at(shares, k);
    left[i] = at(left, i) - at(shares, k);
  });
  const tooMuch = amount > Math.max(0, there);
  const tooLittle = amount < Math.min(0, there);
  return {
    amount,
    parts,
    problem: tooMuch ? { kind: 'too-much', left: there } : tooLittle ? { kind: 'too-little', left: there } : null,
  };
}

/** What is left of a line without what changes after `on` added to it; between nothing and all that is left. */
function leftThen({ scheduled, changes = [] }: TakenLine, left: Cents, on: PlainDate | null): Cents {
  if (on === null) return left;
  const since = sum(changes.filter((it) => it.on > on).map((it) => it.amount));
  const grew = scheduled < 0 ? Math.min(0, since) : Math.max(0, since);
  return left < 0 ? Math.max(left, Math.min(0, left - grew)) : Math.min(left, Math.max(0, left - grew));
}

/** What the schedule says is billed to date of each SOV line: all that fell due by `on`. In the order of the lines. */
export function scheduledToDate(schedule: ValuedSchedule, days: readonly DueDay[], lines: number, on: PlainDate): Cents[] {
  const due = schedule.instalments.filter((_, i) => {
    const { reached } = at(days, i);
    return reached !== null && reached <= on;
  });
  return Array.from({ length: lines }, (_, i) => sum(due.map((it) => at(it.parts, i))));
}
