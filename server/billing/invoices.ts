import { openInvoices } from './queries';
import { ageInvoices, type AgedInvoice, type OpenInvoice } from '../../core/billing/ageing';
import type { Invoice } from '../../core/billing/invoice';
import type { PlainDate } from '../../core/calendar/plainDate';
import { type NewRow } from '../db/fields';
import type { Reader, Sql } from '../db/sql';
import { InvoiceTable } from './models';

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
  const rows = await sql.all(openInvoices(jobId), [asOf]);
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
