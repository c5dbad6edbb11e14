import { creditTax, restOf, type Credit } from '../../../core/charging/credit';
import { dayworkFigures, dayworkJournal, type DayworkFigures } from '../../../core/charging/dayworkInvoice';
import { dueDay } from '../../../core/billing/invoice';
import { known, present } from '../../../core/errors/known';
import { grouped } from '../../../core/lists/grouped';
import { giveNumbers, saveInvoices } from '../../billing/invoices';
import { bookBilling } from '../../billing/book/bookBilling';
import type { Row } from '../../bookFormat/columns';
import type { BookSave } from '../../bookFormat/bookSave';
import { joinKey } from '../../bookFormat/keys';
import { nextId } from '../../db/sql';
import { jobs } from '../../jobs/bookFiles';
import { PostingBatch } from '../../ledger/postingBatch';
import { InvoiceTable } from '../../billing/models';
import { recharge } from '../../charging/marks';
import { ChargeMarkTable } from '../../charging/models';
import { DayworkInvoiceTable, DayworkLineTable, InvoiceCreditTable } from '../models';
import { chargingOfBook } from '../../charging/book/chargingOfBook';
import type { dayworkCredits, dayworkInvoices } from './dayworkBookFiles';

interface Files {
  dayworkInvoices: typeof dayworkInvoices;
  dayworkCredits: typeof dayworkCredits;
}
type InvoiceRow = Row<(typeof dayworkInvoices)['columns']>;

/** What is invoiced and credited of charged cost, once all of it is in. */
export async function saveDaywork(into: BookSave, files: Files): Promise<void> {
  const { sql, book } = into;
  // Rates and markups of the book may be of cost the database had, too.
  await recharge(sql, null);
  const rows = book.rowsOf(files.dayworkInvoices) as unknown as readonly InvoiceRow[];
  const taken = grouped(
    book
      .own(chargingOfBook)
      .taken.flatMap(({ entry, job, invoices }) => invoices.map((it) => ({ entry, key: joinKey(job, it) }))),
    (it) => it.key,
  );
  const marks = new Map(
    (await sql.find(ChargeMarkTable, { cost_entry_id: [...taken.values()].flat().map((it) => it.entry) })).map((it) => [
      it.cost_entry_id,
      it.charge,
    ]),
  );
  const postings = await PostingBatch.open(sql, into.actor);
  const posted = rows.map((row) => {
    const job = known(book.own(bookBilling), row.job);
    const jobId = into.id(jobs, row.job);
    const entries = (taken.get(joinKey(row.job, row.invoice)) ?? []).map((it) => ({
      entry: it.entry,
      charge: known(marks, it.entry),
    }));
    const figures = dayworkFigures(row.amount === null ? entries.map((it) => it.charge) : [row.amount], job.taxRate);
    const isIssued = row.status !== 'draft';
    const posting = { kind: 'daywork-invoice' as const, jobId, reference: row.invoice, postedOn: row.dated };
    const postingId = isIssued ? postings.add(posting, dayworkJournal(row.dated, figures)) : null;
    return { row, jobId, entries, figures, postingId, dueOn: dueDay(row.dated, job.termsDays) };
  });
  const credits = creditsOf(into, files, posted);
  const creditPostings = credits.map((it) => {
    const posting = {
      kind: 'credit-note' as const,
      jobId: it.jobId,
      reference: it.credit.creditNote,
      postedOn: it.credit.dated,
      note: it.reason,
    };
    return postings.add(posting, dayworkJournal(it.credit.dated, { amount: -it.credit.amount, tax: -it.credit.tax }));
  });
  await postings.save();
  await saveRows(into, posted);
  const invoices = new Map(
    (await sql.find(InvoiceTable, { kind: 'daywork' })).map((it) => [joinKey(it.job_id, it.reference), it.id]),
  );
  await into.insertAll(
    InvoiceCreditTable,
    credits.map(({ jobId, invoice, credit, reason }, i) => ({
      job_id: jobId,
      invoice_id: known(invoices, joinKey(jobId, invoice)),
      credit_note: credit.creditNote,
      dated: credit.dated,
      amount: credit.amount,
      tax: credit.tax,
      in_full: credit.inFull ? 1 : 0,
      reason,
      posting_id: present(creditPostings[i]),
    })),
  );
}

interface PostedRow {
  row: InvoiceRow;
  jobId: number;
  entries: readonly { entry: number; charge: number }[];
  figures: DayworkFigures;
  postingId: number | null;
  dueOn: string;
}

async function saveRows(into: BookSave, posted: readonly PostedRow[]): Promise<void> {
  const first = await nextId(into.sql, DayworkInvoiceTable);
  await into.insertAll(
    DayworkInvoiceTable,
    posted.map(({ row, jobId, figures, postingId }, i) => ({
      id: first + i,
      job_id: jobId,
      reference: row.invoice,
      dated: row.dated,
      cut_off: row.cut_off,
      shown: row.shown ?? 'entries',
      status: row.status ?? 'issued',
      wording: row.wording ?? '',
      amount: figures.amount,
      tax: figures.tax,
      posting_id: postingId,
    })),
  );
  await into.insertAll(
    DayworkLineTable,
    posted.flatMap(({ entries }, i) =>
      entries.map(({ entry, charge }) => ({ daywork_invoice_id: first + i, cost_entry_id: entry, charge })),
    ),
  );
  const numbers = await giveNumbers(
    into.sql,
    posted.map(({ row, postingId }) => ({ postedOn: postingId === null ? null : row.dated, number: row.invoice_number })),
  );
  await saveInvoices(
    into.sql,
    posted.flatMap(({ row, jobId, figures, postingId, dueOn }, i) => {
      if (postingId === null) return [];
      const { invoice: reference, dated } = row;
      const invoice = { kind: 'daywork' as const, reference, dated, postedOn: dated, dueOn, payable: figures.payable };
      return [{ jobId, postingId, number: present(numbers[i] ?? undefined), invoice }];
    }),
  );
}

/** Credits of the book in the order they count: those in part, then what is left where it is credited in full. */
function creditsOf(into: BookSave, files: Files, posted: readonly PostedRow[]) {
  const { book } = into;
  const rows = (book.rowsOf(files.dayworkCredits) as unknown as readonly Row<(typeof dayworkCredits)['columns']>[]).toSorted(
    (a, b) => (a.dated < b.dated ? -1 : a.dated > b.dated ? 1 : a.row - b.row),
  );
  const parts = rows.map((row) => {
    const tax = creditTax(row.amount, known(book.own(bookBilling), row.job).taxRate);
    const credit: Credit = { creditNote: row.credit_note, dated: row.dated, amount: row.amount, tax, inFull: false };
    return { job: row.job, invoice: row.invoice, credit, reason: row.reason ?? '' };
  });
  const wholes = posted.flatMap(({ row, figures }) => {
    if (row.credited_on === null) return [];
    const credits = parts.filter((it) => it.job === row.job && it.invoice === row.invoice).map((it) => it.credit);
    const rest = restOf({ ...figures, credits });
    const credit: Credit = {
      creditNote: row.credit_note ?? creditNoteOf(row.invoice),
      dated: row.credited_on,
      ...rest,
      inFull: true,
    };
    return [{ job: row.job, invoice: row.invoice, credit, reason: row.credit_reason ?? '' }];
  });
  return [...parts, ...wholes].map(({ job, ...it }) => ({ ...it, jobId: into.id(jobs, job) }));
}

/** What the credit note of an invoice is called where the book does not say. */
export const creditNoteOf = (invoice: string) => `${invoice} credit`;
