import { mapInTurns } from '../db/inTurns';
import {
  ESTIMATE_TO_AWARD,
  CHANGE_ORDERS,
  COST_BY_MONTH,
  CERTIFIED_BY_MONTH,
  DAYWORK_BY_MONTH,
  ORIGINAL_BUDGET_SUM,
  JOB_FACTS,
} from './queries';
import { known, present } from '../../core/errors/known';
import { lastCertified, retentionHeld, valueApplication } from '../../core/billing/application';
import { monthIndex } from '../../core/calendar/month';
import { scheduleAt } from '../../core/contract/contract';
import type { EstimateView, JobView, SovLineView } from '../../wire/jobs';
import type { Reader } from '../db/sql';
import { loadBillingJobs, type LoadedBillingJob } from '../billing/billingJobs';
import { agedInvoices } from '../billing/invoices';
import { loadPositions } from '../costs/jobPositions';
import { jobByNumber } from '../jobs/jobByNumber';
import { waitingAnswers } from '../offers/waitingAnswers';
import { leftBySchedule } from '../billing/billedBySchedule';
import { lineFigures } from '../../core/forecast/lineFigures';
import { estimatedLines } from '../costs/estimatedLines';
import { costBySovLine } from '../costs/costBySovLine';
import { heldParts } from './heldParts';
import { jobListRow, positionsLastMonth } from './jobList';
import { answerSteps, nextSteps } from './nextSteps';

/** A job's page: facts, figures, schedule of values, what waits to be done. */
export async function jobView(sql: Reader, number: string, asOf: string): Promise<JobView> {
  const identity = await jobByNumber(sql, number, 'job');
  const [[position], billing, facts, invoices, months, changeOrders, lines, chosen, before, holds] = await Promise.all([
    loadPositions(sql, asOf, identity.id),
    loadBillingJobs(sql, identity.id),
    sql.get(JOB_FACTS, [identity.id]),
    agedInvoices(sql, asOf, identity.id),
    monthlyTotals(sql, identity.id, asOf),
    changeOrderRows(sql, identity.id, asOf),
    estimatedLines(sql, identity, asOf),
    sql.get(ESTIMATE_TO_AWARD, [identity.id]),
    positionsLastMonth(sql, asOf, identity.id),
    heldParts(sql, identity.id),
  ]);
  const job = known(billing, number);
  const it = present(facts);
  const open = invoices.reduce((sum, invoice) => sum + invoice.open, 0);
  const overdue = open - invoices.reduce((sum, invoice) => sum + invoice.notDue, 0);
  return {
    ...jobListRow(present(position), asOf),
    before: before.get(identity.id) ?? null,
    holds,
    contractReference: it.contract_reference,
    site: it.site,
    awardedOn: it.awarded_on,
    startsOn: it.starts_on,
    finishesOn: it.finishes_on,
    finishedOn: it.finished_on,
    revenueMethod: it.revenue_method,
    pricing: it.pricing,
    ceiling: it.charge_ceiling,
    taxRate: it.tax_rate,
    termsDays: it.terms_days,
    clientTermsDays: it.client_terms,
    retentionRule: job.retention,
    retentionHeld: retentionHeld(job, asOf),
    open,
    overdue,
    sov: sovViews(job, asOf),
    changeOrders,
    nextSteps: [
      ...answerSteps(number, await waitingAnswers(sql, identity.id, asOf)),
      ...nextSteps(job, present(position), lines, overdue, changeOrders, chosen, await leftBySchedule(sql, job, asOf), asOf),
    ],
    months,
  };
}

function sovViews(job: LoadedBillingJob, asOf: string): SovLineView[] {
  const last = lastCertified(job.applications, asOf);
  const billed = new Map(last ? valueApplication(job, last, asOf).lines.map((line) => [line.line, line]) : []);
  return scheduleAt(job.sovLines, job.priceChanges, asOf).map((line) => ({
    line: line.line,
    section: line.section,
    description: line.description,
    scheduledValue: line.scheduledValue,
    changes: line.scheduledToDate - line.scheduledValue,
    scheduledToDate: line.scheduledToDate,
    billed: billed.get(line.line)?.toDate ?? 0,
    retention: billed.get(line.line)?.retention ?? 0,
    retentionRate: line.retentionRate,
  }));
}

function changeOrderRows(sql: Reader, jobId: number, asOf: string): Promise<JobView['changeOrders']> {
  return sql.all(CHANGE_ORDERS, [jobId, asOf]);
}

/** Cost, billing and budget to the end of each month from the first entry to the date. */
async function monthlyTotals(sql: Reader, jobId: number, asOf: string): Promise<JobView['months']> {
  const [costs, bills, invoiced, budget] = await Promise.all([
    sql.all(COST_BY_MONTH, [jobId, asOf]),
    sql.all(CERTIFIED_BY_MONTH, [jobId, asOf]),
    sql.all(DAYWORK_BY_MONTH, [jobId, asOf]),
    sql.get(ORIGINAL_BUDGET_SUM, [jobId]),
  ]);
  const cost = new Map(costs.map((row) => [row.month, row.amount]));
  const billed = new Map(bills.map((row) => [row.month, row.gross]));
  const daywork = new Map(invoiced.map((row) => [row.month, row.amount]));
  const first = [...cost.keys(), ...billed.keys(), ...daywork.keys()].sort()[0];
  if (!first) return [];
  const months: JobView['months'] = [];
  let [costToDate, billedToDate, dayworkToDate] = [0, 0, 0];
  for (let index = monthIndex(`${first}-01`); index <= monthIndex(asOf); index++) {
    const month = `${String(Math.floor(index / 12)).padStart(4, '0')}-${String((index % 12) + 1).padStart(2, '0')}`;
    costToDate += cost.get(month) ?? 0;
    billedToDate = billed.get(month) ?? billedToDate;
    dayworkToDate += daywork.get(month) ?? 0;
    months.push({ month, cost: costToDate, billed: billedToDate + dayworkToDate, budget: budget?.amount ?? 0 });
  }
  return months;
}

const NOTHING_SERVED = { revised: 0, actual: 0, estimate: 0 };

/** Estimate versus actual, with revenue by SOV line beside the cost that serves it. */
export async function estimateView(sql: Reader, number: string, asOf: string): Promise<EstimateView> {
  const identity = await jobByNumber(sql, number, 'job');
  const [lines, billing] = await Promise.all([estimatedLines(sql, identity, asOf), loadBillingJobs(sql, identity.id)]);
  const served = await costBySovLine(sql, identity, asOf, lines);
  return {
    lines: await mapInTurns(lines, (it): EstimateView['lines'][number] => {
      const { id, section, costCode, description, costType, serves, state, estimate } = it;
      const named = { id, section, costCode, description, costType, serves, budgeted: state.budgeted, basis: estimate.basis };
      return Object.assign(named, lineFigures(it));
    }),
    revenue: sovViews(known(billing, number), asOf).map((line) => ({
      line: line.line,
      description: line.description,
      scheduled: line.scheduledToDate,
      billed: line.billed,
      ...(served.get(line.line) ?? NOTHING_SERVED),
    })),
    unserved: served.get('') ?? NOTHING_SERVED,
  };
}
