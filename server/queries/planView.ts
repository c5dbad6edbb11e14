import { periodOf } from '../../core/calendar/plainDate';
import { revisedBudget } from '../../core/forecast/estimateAtCompletion';
import { firstWhole, planByMonth } from '../../core/plan/planned';
import type { PlanInput, PlanView, SectionView } from '../../wire/plan';
import type { Sql } from '../db/sql';
import { jobByNumber } from './jobs';
import { estimatedLines } from './reports/estimateVsActualReport';
import { jobView } from './views/jobView';

interface Dates {
  from: string | null;
  to: string | null;
}

/**
 * The plan of a job as of a date: its sections, and planned cost and billing by month. A cost line lies over its own dates,
 * else its section's, else the job's; an SOV line over its section's, else the job's (docs/rules.md).
 */
export async function planView(sql: Sql, number: string, asOf: string): Promise<PlanView> {
  const identity = await jobByNumber(sql, number, 'job');
  const [job, lines, sections, planned] = [
    await jobView(sql, number, asOf),
    await estimatedLines(sql, identity, asOf),
    await sql.all<Pick<SectionView, 'name' | 'startsOn' | 'finishesOn'>>(
      'SELECT name, starts_on AS startsOn, finishes_on AS finishesOn FROM job_section WHERE job_id = $1 ORDER BY id',
      [identity.id],
    ),
    await sql.all<PlanInput['lines'][number] & { id: number }>(
      `SELECT l.id, l.section, c.code AS costCode, l.cost_type AS costType, p.starts_on AS startsOn, p.finishes_on AS finishesOn
        FROM cost_line_plan p JOIN cost_line l ON l.id = p.cost_line_id JOIN cost_code c ON c.id = l.cost_code_id WHERE l.job_id = $1 ORDER BY l.id`,
      [identity.id],
    ),
  ];
  const ofJob: Dates = { from: job.startsOn, to: job.finishesOn };
  const ofSection = new Map(sections.map((it): [string, Dates] => [it.name, { from: it.startsOn, to: it.finishesOn }]));
  const ofLine = new Map(planned.map((it): [number, Dates] => [it.id, { from: it.startsOn, to: it.finishesOn }]));
  const none: Dates = { from: null, to: null };
  const plan = planByMonth(
    lines.map((it) => ({
      amount: revisedBudget(it.state),
      span: firstWhole(ofLine.get(it.id) ?? none, ofSection.get(it.section) ?? none, ofJob),
    })),
    job.sov.map((it) => ({ amount: it.scheduledToDate, span: firstWhole(ofSection.get(it.section) ?? none, ofJob) })),
  );
  const names = [
    ...new Set([...sections.map((it) => it.name), ...job.sov.map((it) => it.section), ...lines.map((it) => it.section)]),
  ].filter(Boolean);
  const sum = <T>(list: readonly T[], of: (it: T) => number) => list.reduce((total, it) => total + of(it), 0);
  return {
    jobStartsOn: job.startsOn,
    jobFinishesOn: job.finishesOn,
    sections: names.map((name) => {
      const [sov, costs] = [job.sov.filter((it) => it.section === name), lines.filter((it) => it.section === name)];
      return {
        name,
        startsOn: ofSection.get(name)?.from ?? null,
        finishesOn: ofSection.get(name)?.to ?? null,
        scheduled: sum(sov, (it) => it.scheduledToDate),
        billed: sum(sov, (it) => it.billed),
        revised: sum(costs, (it) => it.revised),
        actual: sum(costs, (it) => it.state.cost),
        estimate: sum(costs, (it) => it.estimate.amount),
      };
    }),
    lines: planned.map(({ id: _id, ...it }) => it),
    months: besideActual(plan.months, job.months, periodOf(asOf)),
    unplannedCost: plan.unplannedCost,
    unplannedBilling: plan.unplannedBilling,
  };
}

/** Planned months and those with entries as one run; what happened ends with the month of the page. */
function besideActual(
  planned: ReturnType<typeof planByMonth>['months'],
  actual: readonly { month: string; cost: number; billed: number }[],
  until: string,
): PlanView['months'] {
  const all = [...new Set([...planned.map((it) => it.month), ...actual.map((it) => it.month)])].sort();
  let [cost, billing] = [0, 0];
  let [spent, billed] = [0, 0];
  return all.map((month) => {
    const plan = planned.find((it) => it.month === month);
    const was = actual.find((it) => it.month === month);
    if (plan) [cost, billing] = [plan.plannedCost, plan.plannedBilling];
    if (was) [spent, billed] = [was.cost, was.billed];
    const past = month <= until;
    return { month, plannedCost: cost, plannedBilling: billing, cost: past ? spent : null, billed: past ? billed : null };
  });
}
