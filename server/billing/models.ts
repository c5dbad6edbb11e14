import type { InvoiceKind } from '../../core/billing/invoice';
import { pick, t, table, view } from '../db/fields';

export const ApplicationTable = table('application', {
  id: t.id,
  job_id: t.ref('job'),
  number: t.whole,
  dated: t.day,
  status: t.oneOf('draft', 'submitted', 'certified'),
  certified_on: t.orNull(t.day),
  reference: t.text,
  posting_id: t.orNull(t.ref('posting')),
  gross: t.orNull(t.cents),
  retention: t.orNull(t.cents),
  due: t.orNull(t.cents),
  tax: t.orNull(t.cents),
  invoice_number: t.orNull(t.whole),
  /** By how much it may pass scheduled values, over all lines, and why. */
  above_scheduled: t.filled(t.cents, 0),
  above_reason: t.filled(t.text, ''),
  version: t.filled(t.whole, 1),
  saved_by: t.filled(t.text, ''),
  saved_at: t.filled(t.moment, ''),
});

export const ApplicationLineTable = table('application_line', {
  application_id: t.asKey(t.ref('application')),
  sov_line_id: t.asKey(t.ref('sov_line')),
  work: t.cents,
  materials: t.cents,
  certified_work: t.orNull(t.cents),
  certified_materials: t.orNull(t.cents),
});

export const RetentionReleaseTable = table('retention_release', {
  id: t.id,
  job_id: t.ref('job'),
  dated: t.day,
  amount: t.cents,
  tax: t.cents,
  reference: t.text,
  posting_id: t.ref('posting'),
});

export const InvoiceTable = table('invoice', {
  id: t.id,
  kind: t.oneOf<InvoiceKind>(),
  job_id: t.ref('job'),
  reference: t.text,
  dated: t.day,
  posted_on: t.day,
  due_on: t.day,
  payable: t.cents,
  posting_id: t.ref('posting'),
  number: t.filled(t.whole, 0),
});

export const ReceiptTable = table('receipt', {
  id: t.id,
  job_id: t.ref('job'),
  invoice_id: t.ref('invoice'),
  dated: t.day,
  amount: t.cents,
  reference: t.text,
  posting_id: t.ref('posting'),
});

export const CertifiedApplicationView = view('certified_application', {
  ...pick(ApplicationTable, 'id', 'job_id', 'number', 'dated').fields,
  certified_on: t.day,
  gross: t.cents,
  retention: t.cents,
  due: t.cents,
  tax: t.cents,
  posting_id: t.ref('posting'),
});
