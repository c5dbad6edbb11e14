import { AGEING_FIGURE_NAMES, AGEING_FIGURES } from '../../core/billing/ageingFigures';
import type { Reader } from '../db/sql';
import { agedInvoices } from '../billing/invoices';
import { ClientTable } from '../company/models';
import { jobByNumber } from '../jobs/jobByNumber';
import { columns, totalRow, type Report, type ReportRequest, type ReportRow } from '../reportFiles/report';

const COLUMNS = columns(
  'customer:t:Client',
  'job:t:Job',
  'application:t:Application',
  'dated:d:Dated',
  'due_on:d:Due on',
  ...AGEING_FIGURE_NAMES.map((name) => `${AGEING_FIGURES[name].column}:a:${AGEING_FIGURES[name].title}` as const),
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
    ...Object.fromEntries(AGEING_FIGURE_NAMES.map((name) => [AGEING_FIGURES[name].column, it[name]])),
  }));
  const clients = await sql.find(ClientTable, {});
  return {
    name: 'ageing',
    title: 'Ageing of receivables',
    columns: COLUMNS,
    rows: [...rows, totalRow(COLUMNS, rows, 'customer')],
    hasTotal: true,
    groups: { by: 'customer', names: new Map(clients.map((it) => [it.code, it.name])) },
    computed: { total: { plus: AGEING_FIGURE_NAMES.filter((it) => it !== 'total').map((it) => AGEING_FIGURES[it].column) } },
  };
}
