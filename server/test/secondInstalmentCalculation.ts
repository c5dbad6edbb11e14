import type { Rows } from './secondCalculation';
import { compare, decimal, exact, minus, NOUGHT, over, plus, rounded, share, sum, times, type Exact } from './exact';

/**
 * A second calculation of billing schedules (docs/rules.md), from the rows of a book and in exact fractions: written apart
 * from the product, so that the two only agree where both follow the rule.
 */
export class InstalmentReckoner {
  constructor(
    private readonly rows: Rows,
    private readonly job: string,
  ) {}

  /** What each SOV line is billed to date by the schedule on a day, by its number. */
  billed(on: string): Map<string, Exact> {
    const lines = this.scheduled(on);
    const toDate = new Map([...lines.keys()].map((line) => [line, NOUGHT]));
    this.parts(lines, on).forEach((parts, i) => {
      const { reached } = this.day(i);
      if (reached === null || reached > on) return;
      for (const [line, part] of parts) toDate.set(line, plus(toDate.get(line)!, part));
    });
    return toDate;
  }

  /** When an instalment is expected, and when it fell due. */
  day(i: number): { expected: string | null; reached: string | null } {
    const it = this.instalments()[i]!;
    if ((it.due || 'day') === 'day') return { expected: it.day || null, reached: it.day || null };
    const job = this.rows.jobs!.find((row) => row.job === this.job)!;
    const onSite = !['tender', 'awarded'].includes(job.status!);
    const days: [came: string | undefined, planned: string | undefined][] = this.stagesOf(i).map((name) => {
      const stage = this.rows.job_sections!.find((row) => row.job === this.job && row.section === name)!;
      return it.due === 'start'
        ? [stage.started_on, stage.starts_on || job.starts_on]
        : [stage.finished_on, stage.finishes_on || job.finishes_on];
    });
    if (days.length === 0)
      days.push(it.due === 'start' ? [onSite ? job.starts_on : '', job.starts_on] : [job.finished_on, job.finishes_on]);
    const came = days.map(([day]) => day).filter(Boolean) as string[];
    const either = days.map(([was, planned]) => was || planned).filter(Boolean) as string[];
    const first = it.due === 'start';
    const reached = first ? came.sort()[0] : came.length === days.length ? came.sort().at(-1) : undefined;
    const expected = reached ?? (first ? either.sort()[0] : either.length === days.length ? either.sort().at(-1) : undefined);
    const later = (day: string | undefined) =>
      day === undefined
        ? null
        : new Date(Date.parse(`${day}T12:00:00Z`) + Number(it.days || 0) * 864e5).toISOString().slice(0, 10);
    return { expected: later(expected), reached: later(reached) };
  }

  private instalments(): Record<string, string>[] {
    return this.rows.billing_instalments!.filter((row) => row.job === this.job) as Record<string, string>[];
  }

  private stagesOf(i: number): string[] {
    const { instalment } = this.instalments()[i]!;
    return this.rows
      .instalment_stages!.filter((row) => row.job === this.job && row.instalment === instalment)
      .map((row) => row.section!);
  }

  /** Scheduled values of a day: original lines, and what changes approved by then did to them. */
  private scheduled(on: string): Map<string, Exact> {
    const lines = new Map(
      this.rows
        .schedule_of_values!.filter((row) => row.job === this.job)
        .map((row) => [row.sov_line!, decimal(row.scheduled_value)]),
    );
    for (const change of this.rows.change_orders!)
      if (change.status === 'approved' && change.decided_on! <= on)
        for (const it of this.rows.change_order_lines!)
          if (it.change_order === change.change_order)
            lines.set(it.sov_line!, plus(lines.get(it.sov_line!)!, decimal(it.amount)));
    return lines;
  }

  /** What an instalment is split by: what is left, but of a fixed amount that fell due without what changes added since. */
  private leftFor(
    i: number,
    amount: Exact,
    of: readonly string[],
    lines: ReadonlyMap<string, Exact>,
    left: ReadonlyMap<string, Exact>,
    on: string,
  ): ReadonlyMap<string, Exact> {
    const { reached } = this.day(i);
    if (this.instalments()[i]!.percent || reached === null) return left;
    const before = this.scheduled(reached < on ? reached : on);
    const then = new Map(
      of.map((line) => {
        const [now, was, rest] = [lines.get(line)!, before.get(line)!, left.get(line)!];
        const grew = minus(now, was);
        const outward = now.n < 0n ? grew.n < 0n : grew.n > 0n;
        const without = outward ? minus(rest, grew) : rest;
        const kept = rest.n < 0n ? (without.n > 0n ? NOUGHT : without) : without.n < 0n ? NOUGHT : without;
        const within = rest.n < 0n ? (compare(kept, rest) < 0 ? rest : kept) : compare(kept, rest) > 0 ? rest : kept;
        return [line, within] as const;
      }),
    );
    const size = (it: Exact) => (it.n < 0n ? minus(NOUGHT, it) : it);
    return compare(size(sum([...then.values()])), size(amount)) >= 0 ? then : left;
  }

  private sectionOf(line: string): string {
    return this.rows.schedule_of_values!.find((row) => row.job === this.job && row.sov_line === line)!.section ?? '';
  }

  private parts(lines: Map<string, Exact>, on: string): Map<string, Exact>[] {
    const list = this.instalments();
    const ofJob = (i: number) => list[i]!.taken_from !== 'stages' || this.stagesOf(i).length === 0;
    const taken = (i: number) => [...lines.keys()].filter((line) => ofJob(i) || this.stagesOf(i).includes(this.sectionOf(line)));
    const base = (i: number) => (ofJob(i) ? 'job' : this.stagesOf(i).sort().join('\n'));
    const left = new Map(lines);
    const parts = list.map(() => new Map<string, Exact>());
    const order = [...list.keys()].sort((a, b) => Number(ofJob(a)) - Number(ofJob(b)) || a - b);
    for (const i of order) {
      const of = taken(i);
      const worth = sum(of.map((line) => lines.get(line)!));
      // To date with the percentages of the same base that stand before it.
      const before = list.slice(0, i).filter((it, k) => it.percent && base(k) === base(i));
      const until = sum(before.map((it) => share(it.percent)));
      const amount = list[i]!.percent
        ? minus(rounded(times(plus(until, share(list[i]!.percent)), worth)), rounded(times(until, worth)))
        : decimal(list[i]!.amount);
      for (const [line, part] of split(amount, of, this.leftFor(i, amount, of, lines, left, on))) {
        parts[i]!.set(line, part);
        left.set(line, minus(left.get(line)!, part));
      }
    }
    return parts;
  }
}

/** An amount over lines by what is left of each: whole pennies, the missing ones to the largest remainders, earlier first. */
function split(amount: Exact, lines: readonly string[], left: ReadonlyMap<string, Exact>): [string, Exact][] {
  if (lines.length === 0) return [];
  const whole = sum(lines.map((line) => left.get(line)!));
  if (whole.n === 0n) return lines.map((line, i) => [line, i === 0 ? amount : NOUGHT]);
  const sign = exact(amount.n < 0n ? -1n : 1n);
  const shares = lines.map((line) => times(sign, over(times(amount, left.get(line)!), whole)));
  const cents = shares.map((it) => floor(times(it, exact(100n))));
  let missing =
    times(times(sign, amount), exact(100n)).n / times(times(sign, amount), exact(100n)).d - cents.reduce((a, b) => a + b, 0n);
  const rest = shares.map((it, i) => ({ i, rest: minus(times(it, exact(100n)), exact(cents[i]!)) }));
  for (const { i } of rest.sort((a, b) => -compare(a.rest, b.rest) || a.i - b.i)) {
    if (missing <= 0n) break;
    cents[i] = cents[i]! + 1n;
    missing -= 1n;
  }
  return lines.map((line, i) => [line, times(sign, exact(cents[i]!, 100n))]);
}

function floor({ n, d }: Exact): bigint {
  return n >= 0n ? n / d : -((-n + d - 1n) / d);
}
