import { ageInvoices, type AgedInvoice, type OpenInvoice } from '../../core/billing/ageing';
import type { Invoice } from '../../core/billing/invoice';
import type { PlainDate } from '../../core/calendar/plainDate';
import { pick, shape, t, type NewRow } from '../db/fields';
import type { Reader, Sql } from '../db/sql';
import { InvoiceTable } from './models';

const InvoiceRow = shape({
  ...pick(InvoiceTable, 'kind', 'dated', 'due_on', 'payable').fields,
  ...{ client: t.text, job: t.text, invoice: t.text, received: t.cents, held: t.cents },
});

const INVOICES = `WITH last AS (SELECT job_id, max(number) AS number FROM certified_application WHERE certified_on <= $1 GROUP BY job_id),
  released AS (SELECT job_id, sum(amount) AS amount FROM retention_release WHERE dated <= $1 GROUP BY job_id),
  held AS (SELECT a.posting_id, a.retention - coalesce(released.amount, 0) AS amount
    FROM certified_application a JOIN last ON last.job_id = a.job_id AND last.number = a.number LEFT JOIN released ON released.job_id = a.job_id),
  state AS (SELECT i.*, coalesce((SELECT sum(amount) FROM receipt WHERE invoice_id = i.id AND dated <= $1), 0) AS received, coalesce(held.amount, 0) AS held
    FROM invoice i LEFT JOIN held ON held.posting_id = i.posting_id WHERE i.posted_on <= $1 $JOB)
  SELECT c.code AS client, job.number AS job, i.reference AS invoice, i.kind, i.dated, i.due_on, i.payable, i.received, i.held
    FROM state i JOIN job ON job.id = i.job_id JOIN client c ON c.id = job.client_id WHERE i.payable <> i.received OR i.held <> 0`;

/** An invoice, and what it was posted with. */
export interface PostedInvoice {
  jobId: number;
  postingId: number;
  invoice: Invoice;
}

function rowOf({ jobId, postingId, invoice: it }: PostedInvoice): NewRow<typeof InvoiceTable> {
  return {
    ...{ kind: it.kind, job_id: jobId, reference: it.reference, dated: it.dated, posted_on: it.postedOn, due_on: it.dueOn },
    ...{ payable: it.payable, posting_id: postingId },
  };
}

/** Posts what an invoice asks for, in the transaction of its posting. Gives back its id. */
export function saveInvoice(sql: Sql, jobId: number, postingId: number, invoice: Invoice): Promise<number> {
  return sql.insert(InvoiceTable, rowOf({ jobId, postingId, invoice }));
}

/** The same of many at once. */
export function saveInvoices(sql: Sql, posted: readonly PostedInvoice[]): Promise<void> {
  return sql.insertAll(InvoiceTable, posted.map(rowOf));
}

/** Every invoice with something open or held as of `asOf`, aged; of one job or of all. */
export async function agedInvoices(sql: Reader, asOf: PlainDate, jobId: number | null): Promise<AgedInvoice[]> {
  const rows = await sql.all(InvoiceRow, INVOICES.replaceAll('$JOB', jobId === null ? '' : `AND i.job_id = ${Number(jobId)}`), [
    asOf,
  ]);
  const invoices = rows.map((row): OpenInvoice => ({
    client: row.client,
    job: row.job,
    invoice: row.invoice,
    kind: row.kind,
    dated: row.dated,
    dueOn: row.due_on,
    payable: row.payable,
    received: row.received,
    retentionHeld: row.held,
  }));
  return ageInvoices(invoices, asOf);
}
