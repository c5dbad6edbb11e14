import { LAST_INVOICE_NUMBER, openInvoices } from './queries';
import { present } from '../../core/errors/known';
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
  /** In the company's series. */
  number: number;
}

function rowOf(
  { jobId, postingId, invoice: it }: Omit<PostedInvoice, 'number'>,
  number: number,
): NewRow<typeof InvoiceTable> & { number: number } {
  return {
    kind: it.kind,
    job_id: jobId,
    reference: it.reference,
    dated: it.dated,
    posted_on: it.postedOn,
    due_on: it.dueOn,
    payable: it.payable,
    posting_id: postingId,
    number,
  };
}

/** The next number of the series: without gaps, those kept by applications whose certification was reversed left out. */
export async function nextInvoiceNumber(sql: Reader): Promise<number> {
  return present(await sql.get(LAST_INVOICE_NUMBER)).last + 1;
}

/**
 * Posts what an invoice asks for, in the transaction of its posting. Gives back its id. An invoice that was cancelled, as its
 * certification was reversed, asks again under its own number.
 */
export async function saveInvoice(
  sql: Sql,
  jobId: number,
  postingId: number,
  invoice: Invoice,
  number: number | null = null,
): Promise<number> {
  const row = rowOf({ jobId, postingId, invoice }, number ?? (await nextInvoiceNumber(sql)));
  const cancelled = await sql.findOne(InvoiceTable, { job_id: jobId, reference: invoice.reference });
  if (!cancelled) return sql.insert(InvoiceTable, row);
  await sql.update(InvoiceTable, { id: cancelled.id }, row);
  return cancelled.id;
}

/** The numbers of many invoices: as given, else the next ones in the order they are posted. Null for what is none and never was. */
export async function giveNumbers(
  sql: Reader,
  wanted: readonly { postedOn: PlainDate | null; number: number | null }[],
): Promise<(number | null)[]> {
  let next = Math.max(await nextInvoiceNumber(sql), 1 + Math.max(0, ...wanted.map((it) => it.number ?? 0)));
  const given = wanted.map((it) => it.number);
  const without = wanted.flatMap(({ postedOn, number }, i) => (number === null && postedOn !== null ? [{ postedOn, i }] : []));
  without.sort((a, b) => (a.postedOn < b.postedOn ? -1 : a.postedOn > b.postedOn ? 1 : a.i - b.i));
  for (const { i } of without) given[i] = next++;
  return given;
}

/** Posts many invoices at once, with their numbers. */
export function saveInvoices(sql: Sql, posted: readonly PostedInvoice[]): Promise<void> {
  return sql.insertAll(
    InvoiceTable,
    posted.map((it) => rowOf(it, it.number)),
  );
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
