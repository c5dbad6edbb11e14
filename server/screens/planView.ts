import { costSpans, planSeen, plannedLines, spanOf, type Spread } from '../plan/plannedDates';
import { at } from '../../core/errors/known';
import { periodOf } from '../../core/calendar/plainDate';
import { planByMonth } from '../../core/plan/planned';
import type { PlanView } from '../../wire/plan';
import type { Reader } from '../db/sql';
import { loadBillingJob } from '../billing/billingJobs';
import { jobByNumber } from '../jobs/jobByNumber';
import { estimatedLines } from '../costs/estimatedLines';
import { jobView } from './jobView';
import { loadSchedule } from '../billing/billedBySchedule';
import { loadWorkDates } from '../plan/workDates';

/**
 * The plan of a job as of a date: its sections, and planned cost and billing by month. Cost lies over its days; billing
 * over the days of the sections, or where there is a billing schedule on the days of its instalments (docs/rules.md).
 */
export async function planView(sql: Reader, number: string, asOf: string): Promise<PlanView> {
  const identity = await jobByNumber(sql, number, 'job');
  const [job, lines, dates, planned] = [
    await jobView(sql, number, asOf),
    await estimatedLines(sql, identity, asOf),
    await loadWorkDates(sql, identity.id),
    await plannedLines(sql, identity.id),
  ];
  const prices = job.sov.map((it) => ({ amount: it.scheduledToDate, span: spanOf(it.section, dates) }));
  const plan = planByMonth(
    await costSpans(sql, identity.id, lines, dates),
    (await instalmentSpans(sql, identity.id, asOf)) ?? prices,
  );
  const names = [
    ...new Set([...dates.stages.keys(), ...job.sov.map((it) => it.section), ...lines.map((it) => it.section)]),
  ].filter(Boolean);
  const sum = <T>(list: readonly T[], of: (it: T) => number) => list.reduce((total, it) => total + of(it), 0);
  return {
    seen: await planSeen(sql, identity.id),
    jobStartsOn: job.startsOn,
    jobFinishesOn: job.finishesOn,
    sections: names.map((name) => {
      const [sov, costs] = [job.sov.filter((it) => it.section === name), lines.filter((it) => it.section === name)];
      return {
        name,
        ...(dates.stages.get(name) ?? { startsOn: null, finishesOn: null, startedOn: null, finishedOn: null }),
        scheduled: sum(sov, (it) => it.scheduledToDate),
        billed: sum(sov, (it) => it.billed),
        revised: sum(costs, (it) => it.revised),
        actual: sum(costs, (it) => it.state.cost),
        estimate: sum(costs, (it) => it.estimate.amount),
      };
    }),
    lines: planned.map(({ id: _id, ...it }) => it),
    months: mergeActuals(plan.months, job.months, periodOf(asOf)),
    unplannedCost: plan.unplannedCost,
    unplannedBilling: plan.unplannedBilling,
  };
}

/** The instalments of a billing schedule on their days, and what they leave of the contract sum; null without one. */
async function instalmentSpans(sql: Reader, jobId: number, asOf: string): Promise<Spread[] | null> {
  const schedule = await loadSchedule(sql, await loadBillingJob(sql, jobId), asOf);
  if (!schedule) return null;
  const { valued, days } = schedule;
  return [
    ...valued.instalments.map(({ amount }, i) => {
      const day = at(days, i).expected;
      return { amount, span: day === null ? null : { from: day, to: day } };
    }),
    { amount: valued.left, span: null },
  ];
}

/** Planned months and those with entries as one run; what happened ends with the month of the page. */
function mergeActuals(
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
