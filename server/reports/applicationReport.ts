import { valueApplication, type ValuedApplication } from '../../core/billing/application';
import { SUMMARY_FIGURE_NAMES, summaryFigure } from '../../core/billing/summaryFigures';
import { LedrinError } from '../../core/errors/ledrinError';
import { ratio } from '../../core/money/rate';
import type { Reader } from '../db/sql';
import { loadBillingJob, type LoadedBillingJob } from '../billing/billingJobs';
import { jobByNumber } from '../jobs/jobByNumber';
import { columns, totalRow, type Report, type ReportRequest, type ReportRow } from '../reportFiles/report';

const LINE_COLUMNS = columns(
  'sov_line:t:SOV line',
  'section:t:Section',
  'description:t:Description',
  'scheduled_value:a:Scheduled value',
  'previous:a:Previous',
  'this_period:a:Work this period',
  'materials_on_site:a:Materials on site',
  'to_date:a:To date',
  'percent:p:To date %',
  'balance:a:Balance',
  'retention:a:Retention',
);
const SUMMARY_COLUMNS = columns('item:t:Item', 'amount:a:Amount');

/** One application valued as of a date. Throws not-found where it is not there by then. */
export async function valuedApplicationAt(
  sql: Reader,
  request: ReportRequest,
): Promise<{ job: LoadedBillingJob; valued: ValuedApplication; dated: string }> {
  if (request.job === undefined || request.application === undefined) {
    throw new LedrinError('bad-input', 'Name the job with --job and the application with --application', [
      { field: request.job === undefined ? 'job' : 'application', message: 'expected a number' },
    ]);
  }
  const { id } = await jobByNumber(sql, request.job, 'contract');
  const job = await loadBillingJob(sql, id);
  const application = job.applications.find((it) => it.number === request.application && it.dated <= request.asOf);
  if (!application)
    throw new LedrinError('not-found', `Job ${request.job} has no application ${request.application} by ${request.asOf}`);
  return { job, valued: valueApplication(job, application, request.asOf), dated: application.dated };
}

/** An application line by line; certified figures once certified. */
export async function applicationReport(sql: Reader, request: ReportRequest): Promise<Report> {
  const { valued } = await valuedApplicationAt(sql, request);
  const rows: ReportRow[] = valued.lines.map((line) => ({
    sov_line: line.line,
    section: line.section,
    description: line.description,
    scheduled_value: line.scheduledToDate,
    previous: line.previousWork,
    this_period: line.thisPeriod,
    materials_on_site: line.materials,
    to_date: line.toDate,
    percent: ratio(line.toDate, line.scheduledToDate),
    balance: line.scheduledToDate - line.toDate,
    retention: line.retention,
  }));
  const total = totalRow(LINE_COLUMNS, rows, 'sov_line');
  total.percent = ratio(total.to_date as number, total.scheduled_value as number);
  return {
    name: 'application',
    title: `Application ${valued.number}, job ${request.job}`,
    columns: LINE_COLUMNS,
    rows: [...rows, total],
    hasTotal: true,
    computed: {
      to_date: { plus: ['previous', 'this_period', 'materials_on_site'] },
      percent: { of: 'to_date', over: 'scheduled_value' },
      balance: { plus: ['scheduled_value'], minus: ['to_date'] },
    },
  };
}

/** The figures of an application from contract sum to payable, one a row. */
export async function applicationSummaryReport(sql: Reader, request: ReportRequest): Promise<Report> {
  const { valued } = await valuedApplicationAt(sql, request);
  return {
    name: 'application-summary',
    title: `Application ${valued.number}, job ${request.job}`,
    columns: SUMMARY_COLUMNS,
    rows: SUMMARY_FIGURE_NAMES.map(summaryFigure).map((it) => ({ item: it.item, amount: it.value(valued) })),
    hasTotal: false,
  };
}
