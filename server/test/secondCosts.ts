import { decimal, exact, minus, most, NOUGHT, over, plus, rounded, share, sum, times, written, type Exact } from './exact';

/*
 * A second reckoning of docs/rules.md, written apart from the product: straight from the rows of a book, with exact
 * fractions and no totals kept. Slow and plain on purpose. It shares nothing with core but the calendar.
 */

export type Rows = Record<string, Record<string, string>[]>;

export const percent = (part: Exact, whole: Exact) =>
  whole.n === 0n ? '0.0000' : written(times(over(part, whole), exact(100n)), 4);

/** The cost side of the second calculation: budget, cost, commitments, forecasts and estimates, line by line. */
export class CostReckoner {
  constructor(protected readonly rows: Rows) {}

  protected of(file: string, job?: string): Record<string, string>[] {
    return (this.rows[file] ?? []).filter((row) => job === undefined || row.job === job);
  }

  protected job(number: string): Record<string, string> {
    return this.of('jobs').find((row) => row.job === number)!;
  }

  protected approved(job: string, side: string, from: string, to: string): Record<string, string>[] {
    const orders = this.of('change_orders', job).filter(
      (it) => it.status === 'approved' && it.decided_on! > from && it.decided_on! <= to,
    );
    const lines = this.of('change_order_lines', job).filter(
      (line) => line.side === side && orders.some((it) => it.change_order === line.change_order),
    );
    // A transfer alters the budget as a change order's cost lines do, from its own day.
    const moved = side === 'cost' ? this.of('budget_transfers', job).filter((it) => it.dated! > from && it.dated! <= to) : [];
    return [...lines, ...moved];
  }

  contractSum(job: string, on: string): Exact {
    return plus(
      sum(this.of('schedule_of_values', job).map((it) => decimal(it.scheduled_value))),
      sum(this.approved(job, 'price', '', on).map((it) => decimal(it.amount))),
    );
  }

  // ── Cost and forecast, §5 and §7 ──

  protected static key(row: Record<string, string>): string {
    return [row.section ?? '', row.cost_code, row.cost_type].join('|');
  }

  /** Cost counts from its accounting date on, which is its own where none is given. */
  protected static posted(row: Record<string, string>, on: string): boolean {
    return (row.posted_on || row.dated!) <= on;
  }

  protected cost(job: string, key: string, on: string, column = 'amount'): Exact {
    return sum(
      this.of('costs', job)
        .filter((it) => CostReckoner.key(it) === key && CostReckoner.posted(it, on))
        .map((it) => decimal(it[column])),
    );
  }

  protected budget(job: string, key: string, on: string, column = 'amount', from = ''): Exact {
    const original = from === '' ? this.of('budget', job).filter((it) => CostReckoner.key(it) === key) : [];
    return sum(
      [...original, ...this.approved(job, 'cost', from, on).filter((it) => CostReckoner.key(it) === key)].map((it) =>
        decimal(it[column]),
      ),
    );
  }

  protected open(job: string, key: string, on: string): Exact {
    const lines = this.of('commitments', job).filter((it) => CostReckoner.key(it) === key && it.dated! <= on);
    return sum(
      lines.map((line) => {
        if (line.closed_on && line.closed_on <= on) return NOUGHT;
        const invoiced = this.of('costs').filter(
          (it) => it.commitment === line.commitment && it.commitment_line === line.line && CostReckoner.posted(it, on),
        );
        return most(NOUGHT, minus(decimal(line.amount), sum(invoiced.map((it) => decimal(it.amount)))));
      }),
    );
  }

  protected keys(job: string, on: string): string[] {
    const dated = [
      ...this.of('costs', job).filter((it) => CostReckoner.posted(it, on)),
      ...this.of('commitments', job).filter((it) => it.dated! <= on),
      ...this.of('forecasts', job).filter((it) => it.as_of! <= on),
    ];
    return [
      ...new Set(
        [...this.of('budget', job), ...this.approved(job, 'cost', '', on), ...dated].map((row) => CostReckoner.key(row)),
      ),
    ];
  }

  protected isBudgeted(job: string, key: string, on: string): boolean {
    return [...this.of('budget', job), ...this.approved(job, 'cost', '', on)].some((row) => CostReckoner.key(row) === key);
  }

  protected isFinished(job: string, on: string): boolean {
    const finished = this.job(job).finished_on;
    return !!finished && finished <= on;
  }

  protected forecast(job: string, key: string, on: string): Record<string, string> | undefined {
    return this.of('forecasts', job)
      .filter((it) => CostReckoner.key(it) === key && it.as_of! <= on)
      .sort((a, b) => (a.as_of! < b.as_of! ? -1 : 1))
      .at(-1);
  }

  protected forecastSays(job: string, key: string, forecast: Record<string, string>): Exact | null {
    const [then, value] = [forecast.as_of!, decimal(forecast.value)];
    const cost = this.cost(job, key, then);
    if (forecast.method === 'to-complete') return plus(cost, value);
    if (forecast.method === 'percent') return value.n === 0n || cost.n === 0n ? null : rounded(over(cost, share(forecast.value)));
    const hours = this.cost(job, key, then, 'hours');
    const budgeted = this.budget(job, key, then, 'hours');
    if (hours.n > 0n) return rounded(times(plus(hours, value), over(cost, hours)));
    return budgeted.n > 0n ? rounded(times(plus(hours, value), over(this.budget(job, key, then), budgeted))) : null;
  }

  protected estimate(job: string, key: string, on: string): Exact {
    const spent = plus(this.cost(job, key, on), this.open(job, key, on));
    if (this.isFinished(job, on)) return spent;
    const forecast = this.forecast(job, key, on);
    const says = forecast && this.forecastSays(job, key, forecast);
    if (forecast && says) return most(plus(says, this.budget(job, key, on, 'amount', forecast.as_of!)), spent);
    return this.isBudgeted(job, key, on) ? most(this.budget(job, key, on), spent) : spent;
  }

  /** Lines of estimate-vs-actual without its total, unsorted. */
  estimateVsActual(job: string, on: string): string[] {
    const hours = (value: Exact) => written(value, 4).replace(/\.?0+$/, '');
    return this.keys(job, on).map((key) => {
      const original = sum(
        this.of('budget', job)
          .filter((it) => CostReckoner.key(it) === key)
          .map((it) => decimal(it.amount)),
      );
      const [revised, estimate] = [this.budget(job, key, on), this.estimate(job, key, on)];
      return [
        ...key.split('|'),
        written(original),
        written(minus(revised, original)),
        written(revised),
        written(this.cost(job, key, on)),
        written(this.open(job, key, on)),
        written(estimate),
        written(minus(revised, estimate)),
        hours(this.budget(job, key, on, 'hours')),
        hours(this.cost(job, key, on, 'hours')),
        this.isBudgeted(job, key, on) ? 'yes' : 'no',
      ].join(',');
    });
  }

  // ── Billing, §6 ──

  protected lineNames(job: string): string[] {
    const named = [
      ...this.of('schedule_of_values', job),
      ...this.of('change_order_lines', job).filter((it) => it.side === 'price'),
    ].map((it) => it.sov_line!);
    return [...new Set(named)];
  }

  /** What an SOV line is scheduled at by a day, approved changes included. */
  protected scheduled(job: string, line: string, on: string): Exact {
    const original = this.of('schedule_of_values', job).find((it) => it.sov_line === line);
    return plus(
      decimal(original?.scheduled_value),
      sum(
        this.approved(job, 'price', '', on)
          .filter((it) => it.sov_line === line)
          .map((it) => decimal(it.amount)),
      ),
    );
  }

  protected taxRate(job: string): Exact {
    return share(this.job(job).tax_percent || this.rows.company![0]!.tax_percent);
  }
}
