import type { MoneyReceived } from '../../../core/billing/invoiceRefusals';
import { creditRefusals, creditTax, restOf, type Credit } from '../../../core/charging/credit';
import { refuse } from '../../../core/refusals/refusal';
import type { BookCheck } from '../../bookFormat/bookCheck';
import { isWhole } from '../../bookFormat/columns';
import { joinKey } from '../../bookFormat/keys';
import { dayworkCredits, dayworkInvoices } from './dayworkBookFiles';
import { moneyByInvoice, taxRateOf, type CreditRow, type Invoice } from './dayworkOfBook';
import { creditNoteOf } from './saveDaywork';

/** Credits in part by day, then those in full, each judged after those before it and with the money received. */
export function checkCredits(book: BookCheck, invoices: ReadonlyMap<string, Invoice>): void {
  const money = moneyByInvoice(book);
  const rows = book.rowsOf(dayworkCredits).filter((it) => isWhole(it) && it.dated);
  for (const row of rows.toSorted((a, b) =>
    (a.dated ?? '') < (b.dated ?? '') ? -1 : (a.dated ?? '') > (b.dated ?? '') ? 1 : a.row - b.row,
  )) {
    const invoice = invoices.get(joinKey(row.job ?? '', row.invoice ?? ''));
    if (!invoice || invoice.spoilt) continue;
    creditInPart(book, row, invoice, money(invoice));
  }
  for (const invoice of invoices.values()) {
    const { row, creditedOn } = invoice;
    if (row === null || creditedOn === null || !row.credited_on || invoice.spoilt) continue;
    const credit: Credit = {
      creditNote: row.credit_note ?? creditNoteOf(invoice.reference),
      dated: creditedOn,
      ...restOf(invoice),
      inFull: true,
    };
    // Money that comes in later is judged by itself.
    const receipts = money(invoice).filter((it) => it.dated <= creditedOn);
    const refusals = creditRefusals({ ...invoice, receipts }, credit).filter(
      (it) => it.at === 'dated' && it.rule !== 'credited-before-invoice',
    );
    for (const it of refusals) book.refuse(dayworkInvoices, row, it, { dated: 'credited_on' });
    if (refusals.length === 0) invoice.credits = [...invoice.credits, credit];
    else invoice.spoilt = true;
  }
}

function creditInPart(book: BookCheck, row: CreditRow, invoice: Invoice, money: readonly MoneyReceived[]): void {
  const dated = row.dated ?? '';
  const at = (column: string, message: string) => book.fault(dayworkCredits, row, column, message);
  if (!invoice.issued) return at('invoice', `${invoice.reference} is a draft; only an issued invoice is credited`);
  if (invoice.creditedOn !== null && dated > invoice.creditedOn)
    return book.refuse(
      dayworkCredits,
      row,
      refuse('credited-already', 'dated', { reference: invoice.reference, on: invoice.creditedOn }),
    );
  const amount = row.amount ?? 0;
  const tax = creditTax(amount, taxRateOf(book, invoice.job));
  const credit: Credit = { creditNote: row.credit_note ?? '', dated, amount, tax, inFull: false };
  const refusals = creditRefusals({ ...invoice, receipts: money.filter((it) => it.dated <= dated) }, credit);
  for (const it of refusals) book.refuse(dayworkCredits, row, it, { creditNote: 'credit_note' });
  if (refusals.length === 0) invoice.credits = [...invoice.credits, credit];
  else invoice.spoilt = true;
}
