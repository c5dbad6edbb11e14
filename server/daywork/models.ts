import { SHOWN_AS } from '../../core/charging/dayworkInvoice';
import { t, table } from '../db/fields';

export const DayworkInvoiceTable = table('daywork_invoice', {
  id: t.id,
  job_id: t.ref('job'),
  reference: t.text,
  dated: t.day,
  cut_off: t.day,
  shown: t.oneOf(...SHOWN_AS),
  status: t.oneOf('draft', 'issued'),
  /** What it says above its lines; of one line alone, its words. */
  wording: t.filled(t.text, ''),
  /** Before tax. */
  amount: t.cents,
  tax: t.cents,
  posting_id: t.orNull(t.ref('posting')),
});

/** An entry that an invoice took, at the charge it had then. */
export const DayworkLineTable = table('daywork_line', {
  daywork_invoice_id: t.asKey(t.ref('daywork_invoice')),
  cost_entry_id: t.asKey(t.ref('cost_entry')),
  charge: t.cents,
});

export const InvoiceCreditTable = table('invoice_credit', {
  id: t.id,
  job_id: t.ref('job'),
  invoice_id: t.ref('invoice'),
  credit_note: t.text,
  dated: t.day,
  /** Before tax, and the tax of it. */
  amount: t.cents,
  tax: t.cents,
  in_full: t.flag,
  reason: t.text,
  posting_id: t.ref('posting'),
});
