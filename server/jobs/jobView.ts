import { known, present } from '../../core/errors/known';
import { JobTable } from './models';
import { listed, pick, shape, t, type RowOf } from '../db/fields';
import { USUAL_TERMS_DAYS } from '../../core/billing/invoice';
import { lastCertified, retentionHeld, valueApplication } from '../../core/billing/application';
import { monthIndex } from '../../core/calendar/month';
import { scheduleAt } from '../../core/contract/contract';
import type { EstimateView, JobView, SovLineView } from '../../wire/jobs';
import type { Reader } from '../db/sql';
import { loadBillingJobs, type LoadedBillingJob } from '../billing/billingJobs';
import { agedInvoices } from '../billing/invoices';
import { loadPositions } from './jobPositions';
import { jobByNumber } from './jobByNumber';
import { waitingAnswers } from '../offers/waitingAnswers';
import { leftBySchedule } from '../instalments/billedBySchedule';
import { lineFigures } from '../../core/forecast/lineFigures';
import { estimatedLines } from '../reports/estimateVsActualReport';
import { costBySovLine } from '../costs/costBySovLine';
import { jobListRow } from './jobList';
import { answerSteps, nextSteps } from './nextSteps';

const FACTS = pick(
  JobTable,
  ...(['contract_reference', 'site', 'awarded_on', 'starts_on', 'finishes_on', 'finished_on'] as const),
  ...(['revenue_method', 'tax_rate', 'terms_days'] as const),
);
const FactRow = shape({ ...FACTS.fields, client_terms: t.orNull(t.whole) });
type FactRow = RowOf<typeof FactRow>;

/** A job's page: facts, figures, schedule of values, what waits to be done. */
export async function jobView(sql: Reader, number: string, asOf: string): Promise<JobView> {
  const identity = await jobByNumber(sql, number, 'job');
  const [[position], billing, facts, invoices, months, changeOrders, lines, chosen] = await Promise.all([
    loadPositions(sql, asOf, identity.id),
    loadBillingJobs(sql, identity.id),
    sql.get(
      FactRow,
      `SELECT ${listed(FACTS, 'job')}, c.terms_days AS client_terms FROM job JOIN client c ON c.id = job.client_id WHERE job.id = $1`,
      [identity.id],
    ),
    agedInvoices(sql, asOf, identity.id),
    monthlyTotals(sql, identity.id, asOf),
    changeOrderRows(sql, identity.id, asOf),
    estimatedLines(sql, identity, asOf),
    sql.get(
      shape({ number: t.whole, status: t.text, acceptedBy: t.orNull(t.text) }),
      `SELECT number, status, (SELECT answered_by FROM quotation WHERE estimate_id = estimate.id AND status = 'accepted' ORDER BY number DESC) AS acceptedBy
        FROM estimate WHERE job_id = $1 AND chosen = 1`,
      [identity.id],
    ),
  ]);
  const job = known(billing, number);
  const it = present(facts);
  const open = invoices.reduce((sum, invoice) => sum + invoice.open, 0);
  const overdue = open - invoices.reduce((sum, invoice) => sum + invoice.notDue, 0);
  return {
    ...jobListRow(present(position), asOf),
    contractReference: it.contract_reference,
    site: it.site,
    awardedOn: it.awarded_on,
    startsOn: it.starts_on,
    finishesOn: it.finishes_on,
    finishedOn: it.finished_on,
    revenueMethod: it.revenue_method,
    taxRate: it.tax_rate,
    termsDays: it.terms_days,
    usualTermsDays: it.client_terms ?? USUAL_TERMS_DAYS,
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
  return sql.all(
    shape({
      ...{ number: t.text, title: t.text, status: t.text, raisedOn: t.day, decidedOn: t.orNull(t.day) },
      ...{ price: t.cents, cost: t.cents },
    }),
    `SELECT o.number, o.title, CASE WHEN o.decided_on > $2 THEN 'issued' ELSE o.status END AS status, o.raised_on AS raisedOn, CASE WHEN o.decided_on > $2 THEN NULL ELSE o.decided_on END AS decidedOn,
      coalesce(sum(CASE WHEN l.side = 'price' THEN l.amount END), 0) AS price, coalesce(sum(CASE WHEN l.side = 'cost' THEN l.amount END), 0) AS cost
      FROM change_order o LEFT JOIN change_order_line l ON l.change_order_id = o.id WHERE o.job_id = $1 AND o.raised_on <= $2 GROUP BY o.id ORDER BY o.raised_on, o.id`,
    [jobId, asOf],
  );
}

/** Cost, billing and budget to the end of each month from the first entry to the date. */
async function monthlyTotals(sql: Reader, jobId: number, asOf: string): Promise<JobView['months']> {
  const [costs, bills, budget] = await Promise.all([
    sql.all(
      shape({ month: t.month, amount: t.cents }),
      'SELECT substr(posted_on, 1, 7) AS month, sum(amount) AS amount FROM cost_entry WHERE job_id = $1 AND posted_on <= $2 GROUP BY 1',
      [jobId, asOf],
    ),
    sql.all(
      shape({ month: t.month, gross: t.cents }),
      `SELECT substr(certified_on, 1, 7) AS month, gross FROM certified_application WHERE job_id = $1 AND certified_on <= $2 ORDER BY number`,
      [jobId, asOf],
    ),
    sql.get(
      shape({ amount: t.orNull(t.cents) }),
      'SELECT sum(b.amount) AS amount FROM budget_line b JOIN cost_line l ON l.id = b.cost_line_id WHERE l.job_id = $1',
      [jobId],
    ),
  ]);
  const cost = new Map(costs.map((row) => [row.month, row.amount]));
  const billed = new Map(bills.map((row) => [row.month, row.gross]));
  const first = [...cost.keys(), ...billed.keys()].sort()[0];
  if (!first) return [];
  const months: JobView['months'] = [];
  let [costToDate, billedToDate] = [0, 0];
  for (let index = monthIndex(`${first}-01`); index <= monthIndex(asOf); index++) {
    const month = `${String(Math.floor(index / 12)).padStart(4, '0')}-${String((index % 12) + 1).padStart(2, '0')}`;
    costToDate += cost.get(month) ?? 0;
    billedToDate = billed.get(month) ?? billedToDate;
    months.push({ month, cost: costToDate, billed: billedToDate, budget: budget?.amount ?? 0 });
  }
  return months;
}

/** Estimate versus actual, with revenue by SOV line beside the cost that serves it. */
export async function estimateView(sql: Reader, number: string, asOf: string): Promise<EstimateView> {
  const identity = await jobByNumber(sql, number, 'job');
  const [lines, billing, served] = await Promise.all([
    estimatedLines(sql, identity, asOf),
    loadBillingJobs(sql, identity.id),
    costBySovLine(sql, identity, asOf),
  ]);
  return {
    lines: lines.map(({ state, estimate, ...line }) => ({
      ...line,
      ...lineFigures({ state, estimate }),
      budgeted: state.budgeted,
      basis: estimate.basis,
    })),
    revenue: sovViews(known(billing, number), asOf).map((line) => ({
      line: line.line,
      description: line.description,
      scheduled: line.scheduledToDate,
      billed: line.billed,
      ...(served.get(line.line) ?? { revised: 0, actual: 0, estimate: 0 }),
    })),
  };
}
