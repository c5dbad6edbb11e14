import {
  isCertifiedAt,
  lastCertified,
  retentionHeld,
  valueApplication,
  type Application,
  type ValuedApplication,
} from '../../../core/billing/application';
import { USUAL_TERMS_DAYS } from '../../../core/billing/ageing';
import { describeRetention } from '../../../core/billing/describeRetention';
import { addDays, daysBetween, periodOf } from '../../../core/calendar/plainDate';
import { LedrinError } from '../../../core/errors/ledrinError';
import { multiplyDivide } from '../../../core/money/round';
import type { ApplicationRow, ApplicationView, BilledLineView, BillingRegister, JobBilling } from '../../../wire/billing';
import { planCertification } from '../../../core/posting/certification';
import type { Sql } from '../../db/sql';
import { loadBillingJobs, type LoadedBillingJob } from '../billingJobs';
import { loadCompany } from '../company';
import { inSchedule, loadPositions } from '../jobPositions';
import { jobByNumber, type JobIdentity } from '../jobs';
import { estimatedLines } from '../reports/estimateVsActualReport';
import { journalView, paperJournals } from './papers';

/** One application, as it stands now, for the page on which it is worked. */
export async function applicationView(sql: Sql, jobNumber: string, number: number, asOf: string): Promise<ApplicationView> {
  const identity = await jobByNumber(sql, jobNumber, 'contract');
  const job = (await loadBillingJobs(sql, identity.id)).get(jobNumber)!;
  const application = job.applications.find((it) => it.number === number);
  if (!application) throw new LedrinError('not-found', `Job ${jobNumber} has no application ${number}`);
  const valued = valueApplication(job, application, LAST_DAY);
  const id = job.applicationIds.get(number)!;
  const [kept, receipts, company, earned, [position]] = await Promise.all([
    sql.get<{ paper_id: number | null }>('SELECT paper_id FROM application WHERE id = $1', [id]),
    sql.all<ApplicationView['receipts'][number]>(
      'SELECT dated, amount, reference, paper_id AS paperId FROM receipt WHERE application_id = $1 ORDER BY dated, id',
      [id],
    ),
    loadCompany(sql),
    earnedByLine(sql, identity, valued, asOf > application.dated ? asOf : application.dated),
    loadPositions(sql, asOf, identity.id),
  ]);
  const received = receipts.reduce((sum, it) => sum + it.amount, 0);
  const open = !job.locked && identity.status !== 'closed';
  return {
    job: jobNumber,
    jobName: identity.name,
    customer: job.customer,
    number,
    dated: application.dated,
    status: application.status,
    certifiedOn: application.certifiedOn,
    reference: application.reference,
    dueOn: dueOn(job, application),
    received,
    locked: job.locked,
    lines: lineViews(job, application, valued, earned),
    summary: summaryOf(valued),
    retentionWords: describeRetention(job.retention),
    taxName: company!.taxName || 'Tax',
    taxRate: job.taxRate,
    retentionRule: job.retention,
    journal: kept!.paper_id === null ? plannedJournal(job, application) : ((await paperJournals(sql, kept!.paper_id))[0] ?? null),
    paperId: kept!.paper_id,
    receipts,
    can: {
      edit: open && application.status === 'draft',
      submit: open && application.status === 'draft',
      certify: open && application.status === 'submitted',
      receive: !job.locked && application.status === 'certified' && valued.payable !== received,
    },
    overUnder: { earned: position!.progress.earned, billedBefore: position!.progress.billed },
    previousNumber: valued.previousNumber,
  };
}

const LAST_DAY = '9999-12-31';

function lineViews(
  job: LoadedBillingJob,
  application: Application,
  valued: ValuedApplication,
  earned: ReadonlyMap<string, number>,
): BilledLineView[] {
  const previous = lastCertified(job.applications, LAST_DAY, application.number);
  const before = new Map(previous?.lines.map((line) => [line.line, line.certifiedMaterials ?? line.materials]));
  return valued.lines.map((line) => ({
    line: line.line,
    section: line.section,
    description: line.description,
    scheduled: line.scheduledToDate,
    previousWork: line.previousWork,
    previousMaterials: before.get(line.line) ?? 0,
    work: line.work,
    materials: line.materials,
    appliedWork: line.appliedWork,
    appliedMaterials: line.appliedMaterials,
    toDate: line.toDate,
    retention: line.retention,
    retentionRate: line.retentionRate,
    earnedByCost: earned.get(line.line) ?? null,
  }));
}

function summaryOf(it: ValuedApplication): ApplicationView['summary'] {
  return {
    originalContractSum: it.originalContractSum,
    changeOrders: it.contractSum - it.originalContractSum,
    contractSum: it.contractSum,
    work: it.work,
    materials: it.materials,
    gross: it.gross,
    retention: it.retention.total,
    retentionReleased: it.retentionReleased,
    net: it.net,
    previouslyCertified: it.previouslyCertified,
    due: it.due,
    tax: it.tax,
    payable: it.payable,
    balanceToComplete: it.balanceToComplete,
  };
}

/** What certifying it as applied for would post. */
function plannedJournal(job: LoadedBillingJob, application: Application) {
  return journalView(planCertification(job, { ...application, certifiedOn: application.dated }).journal);
}

function dueOn(job: LoadedBillingJob, application: Application): string | null {
  return application.status === 'certified' ? addDays(application.certifiedOn!, job.termsDays ?? USUAL_TERMS_DAYS) : null;
}

/** Scheduled value × cost to date ÷ estimate of the budget lines that serve each SOV line. A cost line that serves several counts for each by its budget there. */
async function earnedByLine(sql: Sql, job: JobIdentity, valued: ValuedApplication, asOf: string): Promise<Map<string, number>> {
  const served = await costBySovLine(sql, job, asOf);
  const earned = new Map<string, number>();
  for (const line of valued.lines) {
    const cost = served.get(line.line);
    if (!cost || cost.estimate <= 0) continue;
    earned.set(line.line, multiplyDivide(line.scheduledToDate, Math.max(0, Math.min(cost.actual, cost.estimate)), cost.estimate));
  }
  return earned;
}

/** Budget, cost and estimate of the cost lines behind each SOV line, shared out by budget where one serves several. */
export async function costBySovLine(
  sql: Sql,
  job: JobIdentity,
  asOf: string,
): Promise<Map<string, { revised: number; actual: number; estimate: number }>> {
  const [lines, links] = await Promise.all([
    estimatedLines(sql, job, asOf),
    sql.all<{ id: number; line: string; amount: number }>(
      'SELECT b.cost_line_id AS id, s.line, sum(b.amount) AS amount FROM budget_line b JOIN sov_line s ON s.id = b.sov_line_id WHERE s.job_id = $1 GROUP BY 1, 2',
      [job.id],
    ),
  ]);
  const whole = new Map<number, number>();
  for (const link of links) whole.set(link.id, (whole.get(link.id) ?? 0) + link.amount);
  const byId = new Map(lines.map((line) => [line.id, line]));
  const result = new Map<string, { revised: number; actual: number; estimate: number }>();
  for (const { id, line, amount } of links) {
    const cost = byId.get(id);
    const total = whole.get(id)!;
    if (!cost || total === 0) continue;
    const share = (value: number) => multiplyDivide(value, Math.abs(amount), Math.abs(total));
    const sum = result.get(line) ?? { revised: 0, actual: 0, estimate: 0 };
    result.set(line, {
      revised: sum.revised + share(cost.revised),
      actual: sum.actual + share(cost.state.cost),
      estimate: sum.estimate + share(cost.estimate.amount),
    });
  }
  return result;
}

function applicationRows(job: LoadedBillingJob, receivedOn: ReadonlyMap<string, number>, asOf: string): ApplicationRow[] {
  return job.applications
    .filter((it) => it.dated <= asOf)
    .map((application) => {
      const valued = valueApplication(job, application, asOf);
      const certified = isCertifiedAt(application, asOf);
      const received = receivedOn.get(`${job.id}/${application.number}`) ?? 0;
      const due = certified ? dueOn(job, application) : null;
      return {
        job: job.number,
        jobName: job.name,
        customer: job.customer,
        number: application.number,
        dated: application.dated,
        status: certified ? 'certified' : application.status === 'draft' ? 'draft' : 'submitted',
        certifiedOn: certified ? application.certifiedOn : null,
        gross: valued.gross,
        retention: valued.retention.total,
        due: valued.due,
        payable: valued.payable,
        received,
        dueOn: due,
        daysLate: due && valued.payable !== received ? Math.max(0, daysBetween(due, asOf)) : 0,
      };
    });
}

async function receivedByApplication(sql: Sql, asOf: string): Promise<Map<string, number>> {
  const rows = await sql.all<{ key: string; amount: number }>(
    `SELECT a.job_id || '/' || a.number AS key, sum(r.amount) AS amount FROM receipt r JOIN application a ON a.id = r.application_id WHERE r.dated <= $1 GROUP BY a.id`,
    [asOf],
  );
  return new Map(rows.map((row) => [row.key, row.amount]));
}

/** Applications and releases of one job as of a date. */
export async function jobBilling(sql: Sql, jobNumber: string, asOf: string): Promise<JobBilling> {
  const identity = await jobByNumber(sql, jobNumber, 'job');
  const job = (await loadBillingJobs(sql, identity.id)).get(jobNumber)!;
  const [received, releases] = await Promise.all([
    receivedByApplication(sql, asOf),
    sql.all<Omit<JobBilling['releases'][number], 'dueOn'>>(
      `SELECT reference, dated, amount, tax, paper_id AS paperId, coalesce((SELECT sum(amount) FROM receipt WHERE release_id = r.id AND dated <= $2), 0) AS received
        FROM retention_release r WHERE job_id = $1 AND dated <= $2 ORDER BY dated, id`,
      [identity.id, asOf],
    ),
  ]);
  const last = job.applications.at(-1);
  const canStart =
    identity.status === 'tender'
      ? 'A tender is not billed'
      : job.locked
        ? 'The job is locked'
        : identity.status === 'closed'
          ? 'The job is closed'
          : last && last.status !== 'certified'
            ? `Application ${last.number} is ${last.status}; certify it first`
            : job.sovLines.length === 0
              ? 'The job has no schedule of values'
              : null;
  return {
    applications: applicationRows(job, received, asOf),
    retentionHeld: retentionHeld(job, asOf),
    canStart,
    releases: releases.map((it) => ({ ...it, dueOn: addDays(it.dated, job.termsDays ?? USUAL_TERMS_DAYS) })),
  };
}

interface RegisterRow {
  job_id: number;
  job: string;
  name: string;
  customer: string;
  number: number;
  dated: string;
  status: ApplicationRow['status'];
  certified_on: string | null;
  gross: number;
  retention: number;
  due: number;
  tax: number;
  received: number;
  terms: number | null;
}

/** Certified applications carry their figures; those not yet certified by the date are valued afresh. */
const REGISTER = `SELECT a.job_id, job.number AS job, job.name, c.code AS customer, a.number, a.dated, a.status, a.certified_on, a.gross, a.retention, a.due, a.tax, coalesce(job.terms_days, c.terms_days) AS terms,
  coalesce((SELECT sum(amount) FROM receipt WHERE application_id = a.id AND dated <= $1), 0) AS received
  FROM application a JOIN job ON job.id = a.job_id JOIN customer c ON c.id = job.customer_id
  WHERE a.dated <= $1 AND (a.status <> 'certified' OR a.certified_on > $1 OR a.dated >= $2 OR a.due + a.tax <> coalesce((SELECT sum(amount) FROM receipt WHERE application_id = a.id AND dated <= $1), 0))
  ORDER BY job.number, a.number`;

/** Every application that is open, or of the month; and the jobs that wait for one. */
export async function billingRegister(sql: Sql, asOf: string): Promise<BillingRegister> {
  const month = periodOf(asOf);
  const [rows, positions, billed] = await Promise.all([
    sql.all<RegisterRow>(REGISTER, [asOf, `${month}-01`]),
    loadPositions(sql, asOf, null),
    sql.all<{ job_id: number; number: number; dated: string }>(
      'SELECT job_id, number, max(dated) AS dated FROM application WHERE dated <= $1 GROUP BY job_id',
      [asOf],
    ),
  ]);
  const open = (row: RegisterRow) => row.status !== 'certified' || row.certified_on! > asOf;
  const toValue = await loadBillingJobs(sql, ...new Set(rows.filter(open).map((row) => row.job_id)));
  const applications = rows.map((row) =>
    open(row)
      ? applicationRows(toValue.get(row.job)!, new Map(), asOf).find((it) => it.number === row.number)!
      : certifiedRow(row, asOf),
  );
  const last = new Map(billed.map((row) => [row.job_id, row]));
  const unbilled = positions
    .filter(
      (it) =>
        inSchedule(it, asOf) &&
        it.status !== 'closed' &&
        !it.position.finished &&
        periodOf(last.get(it.id)?.dated ?? '') !== month,
    )
    .map((it) => ({
      job: it.number,
      name: it.name,
      customer: it.customer,
      lastNumber: last.get(it.id)?.number ?? null,
      underbilled: it.progress.underbilled,
      overbilled: it.progress.overbilled,
    }));
  return { applications, unbilled };
}

function certifiedRow(row: RegisterRow, asOf: string): ApplicationRow {
  const payable = row.due + row.tax;
  const due = addDays(row.certified_on!, row.terms ?? USUAL_TERMS_DAYS);
  return {
    job: row.job,
    jobName: row.name,
    customer: row.customer,
    number: row.number,
    dated: row.dated,
    status: 'certified',
    certifiedOn: row.certified_on,
    gross: row.gross,
    retention: row.retention,
    due: row.due,
    payable,
    received: row.received,
    dueOn: due,
    daysLate: payable === row.received ? 0 : Math.max(0, daysBetween(due, asOf)),
  };
}
