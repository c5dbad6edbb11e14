import { addDays, daysBetween } from '../../core/calendar/plainDate';
import {
  compare,
  decimal,
  exact,
  minus,
  most,
  NOUGHT,
  over,
  plus,
  rounded,
  share,
  sum,
  times,
  written,
  type Exact,
} from './exact';
import { CostReckoner, percent, type Rows } from './secondCosts';

export type { Rows };

/** Calculates the reports of one book. */
export class Reckoner extends CostReckoner {
  private static certifiedOn(application: Record<string, string>): string {
    return application.certified_on || application.dated!;
  }

  private lastCertified(job: string, on: string, below = Infinity): Record<string, string> | undefined {
    return this.of('applications', job)
      .filter((it) => it.status === 'certified' && Reckoner.certifiedOn(it) <= on && Number(it.application) < below)
      .sort((a, b) => Number(a.application) - Number(b.application))
      .at(-1);
  }

  /** Work and materials to date of each SOV line as the application states or certified them. */
  private stated(
    job: string,
    application: Record<string, string>,
    certified: boolean,
  ): { line: string; work: Exact; materials: Exact }[] {
    return this.lineNames(job).map((line) => {
      const row = this.of('application_lines', job).find(
        (it) => it.application === application.application && it.sov_line === line,
      );
      const pick = (column: string, plain: string) => decimal(certified && row?.[column] ? row[column] : row?.[plain]);
      return {
        line,
        work: pick('certified_work_to_date', 'work_to_date'),
        materials: pick('certified_materials_on_site', 'materials_on_site'),
      };
    });
  }

  /** Retention to date, in total. */
  retention(job: string, application: Record<string, string>, certified: boolean): Exact {
    const rule = this.job(job);
    const contract = this.contractSum(job, application.dated!);
    const lines = this.stated(job, application, certified);
    const gross = sum(lines.map((it) => plus(it.work, it.materials)));
    const step = rule.retention_step_at_percent && rule.retention_step_to_percent;
    const applies = rule.retention_step_applies || 'all';
    const all = step && applies === 'all' && compare(gross, times(share(rule.retention_step_at_percent), contract)) >= 0;
    const onLine = (it: (typeof lines)[number]) => {
      const own = this.of('schedule_of_values', job).find((row) => row.sov_line === it.line)?.retention_percent;
      const rate = share(own || rule.retention_percent);
      const materialsRate = rule.retention_on_materials_percent ? share(rule.retention_on_materials_percent) : rate;
      return {
        work: times(all ? share(rule.retention_step_to_percent) : rate, it.work),
        materials: times(materialsRate, it.materials),
      };
    };
    const base = lines.map(onLine);
    let total = sum(base.map((it) => rounded(plus(it.work, it.materials))));
    const work = sum(lines.map((it) => it.work));
    const threshold = times(share(rule.retention_step_at_percent), contract);
    let unrounded = total;
    if (step && applies === 'further' && compare(work, threshold) > 0) {
      unrounded = sum([
        times(share(rule.retention_percent), threshold),
        times(share(rule.retention_step_to_percent), minus(work, threshold)),
        ...base.map((it) => it.materials),
      ]);
      total = rounded(unrounded);
    }
    if (rule.retention_cap_percent) {
      const cap = times(share(rule.retention_cap_percent), contract);
      if (compare(unrounded, cap) > 0) total = rounded(cap);
    }
    return total;
  }

  private net(job: string, application: Record<string, string>, certified: boolean): Exact {
    return minus(
      sum(this.stated(job, application, certified).map((it) => plus(it.work, it.materials))),
      this.retention(job, application, certified),
    );
  }

  private released(job: string, on: string): Exact {
    return sum(
      this.of('retention_releases', job)
        .filter((it) => it.dated! <= on)
        .map((it) => decimal(it.amount)),
    );
  }

  summary(job: string, number: string, on: string): Record<string, string> {
    const application = this.of('applications', job).find((it) => it.application === number)!;
    const certified = application.status === 'certified' && Reckoner.certifiedOn(application) <= on;
    const previous = this.lastCertified(job, on, Number(number));
    const lines = this.stated(job, application, certified);
    const [work, materials] = [sum(lines.map((it) => it.work)), sum(lines.map((it) => it.materials))];
    const contract = this.contractSum(job, application.dated!);
    const original = sum(this.of('schedule_of_values', job).map((it) => decimal(it.scheduled_value)));
    const net = this.net(job, application, certified);
    const before = previous ? this.net(job, previous, true) : NOUGHT;
    const due = minus(net, before);
    const tax = rounded(times(this.taxRate(job), due));
    const released = this.released(job, application.dated!);
    const items = {
      original_contract_sum: original,
      change_orders: minus(contract, original),
      contract_sum: contract,
      work_to_date: work,
      materials_on_site: materials,
      gross_to_date: plus(work, materials),
      retention: this.retention(job, application, certified),
      retention_released: released,
      net_to_date: net,
      previously_certified: before,
      due,
      tax,
      payable: plus(due, tax),
      balance_to_complete: minus(minus(contract, net), released),
    };
    return Object.fromEntries(Object.entries(items).map(([item, value]) => [item, written(value)]));
  }

  /** Lines of an application's report without its total: scheduled value to balance. */
  applicationLines(job: string, number: string, on: string): string[] {
    const application = this.of('applications', job).find((it) => it.application === number)!;
    const certified = application.status === 'certified' && Reckoner.certifiedOn(application) <= on;
    const previous = this.lastCertified(job, on, Number(number));
    const before = previous ? this.stated(job, previous, true) : [];
    const originals = this.of('schedule_of_values', job).map((it) => it.sov_line);
    const changed = this.approved(job, 'price', '', application.dated!).map((it) => it.sov_line);
    return this.stated(job, application, certified)
      .filter((it) => originals.includes(it.line) || changed.includes(it.line))
      .map(({ line, work, materials }) => {
        const scheduled = this.scheduled(job, line, application.dated!);
        const done = before.find((it) => it.line === line)?.work ?? NOUGHT;
        const toDate = plus(work, materials);
        return [
          line,
          written(scheduled),
          written(done),
          written(minus(work, done)),
          written(materials),
          written(toDate),
          percent(toDate, scheduled),
          written(minus(scheduled, toDate)),
        ].join(',');
      });
  }

  // ── Ageing, §6 ──

  private terms(job: string): number {
    const { terms_days, customer } = this.job(job);
    return Number(terms_days || this.of('customers').find((it) => it.customer === customer)!.terms_days || 30);
  }

  /** Rows of the ageing without its total, unsorted. */
  ageing(on: string): string[] {
    return this.of('jobs').flatMap(({ job, customer }) => {
      const last = this.lastCertified(job!, on);
      const held = last ? minus(this.retention(job!, last, true), this.released(job!, on)) : NOUGHT;
      const received = (invoice: string) =>
        sum(
          this.of('receipts', job)
            .filter((it) => it.application === invoice && it.dated! <= on)
            .map((it) => decimal(it.amount)),
        );
      const applications = this.of('applications', job)
        .filter((it) => it.status === 'certified' && Reckoner.certifiedOn(it) <= on)
        .map((it) => ({
          invoice: it.application!,
          dated: it.dated!,
          from: Reckoner.certifiedOn(it),
          asked: decimal(this.summary(job!, it.application!, on).payable),
          held: it === last ? held : NOUGHT,
        }));
      const releases = this.of('retention_releases', job)
        .filter((it) => it.dated! <= on)
        .map((it) => ({
          invoice: it.reference!,
          dated: it.dated!,
          from: it.dated!,
          asked: plus(decimal(it.amount), rounded(times(this.taxRate(job!), decimal(it.amount)))),
          held: NOUGHT,
        }));
      return [...applications, ...releases].flatMap((it) => {
        const open = minus(it.asked, received(it.invoice));
        if (open.n === 0n && it.held.n === 0n) return [];
        const due = addDays(it.from, this.terms(job!));
        const late = daysBetween(due, on);
        const bands = [late <= 0, late > 0 && late <= 30, late > 30 && late <= 60, late > 60 && late <= 90, late > 90];
        return [
          [
            customer,
            job,
            it.invoice,
            it.dated,
            due,
            ...bands.map((in_) => written(in_ ? open : NOUGHT)),
            written(it.held),
            written(plus(open, it.held)),
          ].join(','),
        ];
      });
    });
  }

  // ── Work in progress, §8 ──

  private fraction(job: string, on: string, contract: Exact, cost: Exact, estimate: Exact, uninstalled: Exact): Exact {
    const within = (part: Exact, whole: Exact) =>
      whole.n <= 0n || part.n <= 0n ? NOUGHT : compare(part, whole) >= 0 ? exact(1n) : over(part, whole);
    const method = this.job(job).revenue_method || 'cost-to-cost';
    if (method === 'completed') return this.isFinished(job, on) ? exact(1n) : NOUGHT;
    if (method === 'cost-to-cost') return within(minus(cost, uninstalled), minus(estimate, uninstalled));
    if (method === 'physical') {
      const last = this.of('applications', job)
        .filter((it) => it.status !== 'draft' && it.dated! <= on)
        .sort((a, b) => Number(a.application) - Number(b.application))
        .at(-1);
      return within(last ? sum(this.stated(job, last, false).map((it) => it.work)) : NOUGHT, contract);
    }
    const labour = this.keys(job, on).filter((key) => key.endsWith('|labour'));
    const done = sum(labour.map((key) => this.cost(job, key, on, 'hours')));
    const all = sum(labour.map((key) => this.hoursAtCompletion(job, key, on)));
    return within(done, all);
  }

  private hoursAtCompletion(job: string, key: string, on: string): Exact {
    const done = this.cost(job, key, on, 'hours');
    if (this.isFinished(job, on)) return done;
    const forecast = this.forecast(job, key, on);
    if (forecast?.method !== 'hours') return most(this.budget(job, key, on, 'hours'), done);
    return most(
      sum([
        this.cost(job, key, forecast.as_of!, 'hours'),
        decimal(forecast.value),
        this.budget(job, key, on, 'hours', forecast.as_of!),
      ]),
      done,
    );
  }

  /** The row of one job, from contract_sum to loss_provision. */
  workInProgress(job: string, on: string): string {
    const contract = this.contractSum(job, on);
    const cost = sum(
      this.of('costs', job)
        .filter((it) => CostReckoner.posted(it, on))
        .map((it) => decimal(it.amount)),
    );
    const estimate = sum(this.keys(job, on).map((key) => this.estimate(job, key, on)));
    const method = this.job(job).revenue_method || 'cost-to-cost';
    const stored = this.of('costs', job).filter(
      (it) => it.uninstalled === 'yes' && CostReckoner.posted(it, on) && (!it.installed_on || it.installed_on > on),
    );
    const uninstalled = method === 'cost-to-cost' ? sum(stored.map((it) => decimal(it.amount))) : NOUGHT;
    const f = this.fraction(job, on, contract, cost, estimate, uninstalled);
    const waits = method === 'completed' && !this.isFinished(job, on);
    const earned = waits ? NOUGHT : rounded(plus(times(minus(contract, uninstalled), f), uninstalled));
    const loss = minus(estimate, contract);
    const provision = loss.n <= 0n ? NOUGHT : waits ? loss : most(NOUGHT, minus(loss, minus(cost, earned)));
    const profit = waits ? minus(NOUGHT, provision) : minus(minus(earned, cost), provision);
    const last = this.lastCertified(job, on);
    const billed = last ? sum(this.stated(job, last, true).map((it) => plus(it.work, it.materials))) : NOUGHT;
    return [
      written(contract),
      written(estimate),
      written(minus(contract, estimate)),
      percent(minus(contract, estimate), contract),
      written(cost),
      written(times(f, exact(100n)), 4),
      written(earned),
      written(profit),
      written(billed),
      written(most(NOUGHT, minus(billed, earned))),
      written(most(NOUGHT, minus(earned, billed))),
      written(minus(contract, earned)),
      written(provision),
    ].join(',');
  }
}
