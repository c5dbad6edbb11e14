import type { MoneyReceived } from '../../../core/billing/invoiceRefusals';
import type { ChargeRates } from '../../../core/charging/chargeRates';
import type { Credit, CreditedInvoice } from '../../../core/charging/credit';
import { grouped } from '../../../core/lists/grouped';
import { bookBilling, unreliable } from '../../billing/book/bookBilling';
import { receivedBefore, type MoneyRow } from '../../billing/book/checkBilling';
import { shared, type BookCheck } from '../../bookFormat/bookCheck';
import { isWhole, type ReadRow } from '../../bookFormat/columns';
import { joinKey } from '../../bookFormat/keys';
import { chargingOfBook } from '../../charging/book/chargingOfBook';
import type { markupsByJob } from '../../charging/chargeTerms';
import { CHARGE_MARKUPS, CHARGE_RATES } from '../../charging/queries';
import type { Reader } from '../../db/sql';
import { CREDITS_OF_INVOICES, DAYWORK_INVOICES } from '../queries';
import { dayworkInvoices, type dayworkCredits } from './dayworkBookFiles';

export type InvoiceRow = ReadRow<(typeof dayworkInvoices)['columns']>;
export type CreditRow = ReadRow<(typeof dayworkCredits)['columns']>;

/** An invoice of the book or of the database, with what it asks for. */
export interface Invoice extends CreditedInvoice {
  job: string;
  issued: boolean;
  /** Null: the database has it. */
  row: InvoiceRow | null;
  cutOff: string;
  creditedOn: string | null;
  /** What it asks for is not known, for a fault in what it took or in a credit of it: nothing more is judged by it. */
  spoilt: boolean;
}

/** Daywork invoices the database has, and what cost is charged at there. */
export const dayworkOfDatabase = shared(() => ({
  invoices: [] as Omit<Invoice, 'receipts' | 'row' | 'spoilt'>[],
  rates: [] as ConstructorParameters<typeof ChargeRates>[0][number][],
  markups: [] as Parameters<typeof markupsByJob>[0][number][],
}));

export async function loadDayworkOf(sql: Reader, book: BookCheck): Promise<void> {
  const own = book.own(dayworkOfDatabase);
  own.rates = await sql.all(CHARGE_RATES);
  own.markups = await sql.all(CHARGE_MARKUPS);
  const credits = grouped(await sql.all(CREDITS_OF_INVOICES), (it) => it.invoice);
  own.invoices = (await sql.all(DAYWORK_INVOICES)).map(({ id: _, invoice, status, ...it }) => {
    const of = (credits.get(invoice ?? 0) ?? []).map((c): Credit => ({ ...c, inFull: c.inFull === 1 }));
    return { ...it, issued: status === 'issued', credits: of, creditedOn: of.find((c) => c.inFull)?.dated ?? null };
  });
}

/** Every daywork invoice by its job and reference: those of the database, and those of the book, whose figures follow. */
export function invoicesOfBook(book: BookCheck): Map<string, Invoice> {
  const invoices = new Map<string, Invoice>();
  const received = book.own(receivedBefore);
  for (const it of book.own(dayworkOfDatabase).invoices)
    invoices.set(joinKey(it.job, it.reference), {
      ...it,
      receipts: received.get(joinKey(it.job, it.reference)) ?? [],
      row: null,
      spoilt: false,
    });
  for (const row of book.rowsOf(dayworkInvoices)) {
    const { job, invoice: reference, dated } = row;
    const key = joinKey(job ?? '', reference ?? '');
    if (!job || !reference || !dated || invoices.has(key)) continue;
    invoices.set(key, {
      job,
      reference,
      dated,
      cutOff: row.cut_off ?? dated,
      issued: row.status !== 'draft',
      creditedOn: row.credited_on ?? null,
      amount: 0,
      tax: 0,
      credits: [],
      receipts: [],
      row,
      spoilt: !isWhole(row) || book.own(unreliable).has(job) || book.own(chargingOfBook).unknown.has(job),
    });
  }
  return invoices;
}

/** What is received on an invoice, in the database and in the book. */
export function moneyByInvoice(book: BookCheck): (invoice: Invoice) => readonly MoneyReceived[] {
  const own = book.own(moneyOfBook);
  return (invoice) => [...invoice.receipts, ...(own.get(joinKey(invoice.job, invoice.reference)) ?? [])];
}

/** Receipts of the book on what is no application, by job and reference. */
export const moneyOfBook = shared(() => new Map<string, MoneyRow[]>());

export const taxRateOf = (book: BookCheck, job: string) => book.own(bookBilling).get(job)?.taxRate ?? 0;
