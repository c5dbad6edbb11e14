import type { Reader } from '../db/sql';
import { agedInvoices } from '../billing/invoices';
import { jobByNumber } from '../jobs/jobByNumber';
import { columns, totalRow, type Report, type ReportRequest, type ReportRow } from './report';

const COLUMNS = columns(
  'customer:t:Client',
  'job:t:Job',
  'application:t:Application',
  'dated:d:Dated',
  'due_on:d:Due on',
  'not_due:a:Not due',
  'days_1_30:a:1–30 days',
  'days_31_60:a:31–60 days',
  'days_61_90:a:61–90 days',
  'days_over_90:a:Over 90 days',
  'retention_held:a:Retention held',
  'total:a:Total',
);

/** What clients owe, by age, with the retention they hold. */
export async function ageingReport(sql: Reader, request: ReportRequest): Promise<Report> {
  const jobId = request.job === undefined ? null : (await jobByNumber(sql, request.job, 'job')).id;
  const rows: ReportRow[] = (await agedInvoices(sql, request.asOf, jobId)).map((it) => ({
    customer: it.client,
    job: it.job,
    application: it.invoice,
    dated: it.dated,
    due_on: it.dueOn,
    not_due: it.notDue,
    days_1_30: it.days1To30,
    days_31_60: it.days31To60,
    days_61_90: it.days61To90,
    days_over_90: it.daysOver90,
    retention_held: it.retentionHeld,
    total: it.total,
  }));
  return {
    name: 'ageing',
    title: 'Ageing of receivables',
    columns: COLUMNS,
    rows: [...rows, totalRow(COLUMNS, rows, 'customer')],
    hasTotal: true,
  };
}
