import { t, table } from '../db/fields';

export const TermsTextTable = table('terms_text', {
  id: t.id,
  name: t.text,
  body: t.text,
});

export const QuotationTable = table('quotation', {
  id: t.id,
  job_id: t.ref('job'),
  number: t.whole,
  estimate_id: t.ref('estimate'),
  title: t.text,
  presentation: t.oneOf('lump-sum', 'section', 'line'),
  quantities: t.flag,
  unit_prices: t.flag,
  contact: t.text,
  email: t.text,
  introduction: t.text,
  exclusions: t.text,
  terms: t.text,
  valid_until: t.orNull(t.day),
  status: t.oneOf('draft', 'sent', 'accepted', 'declined'),
  sent_on: t.orNull(t.day),
  answered_on: t.orNull(t.day),
  answered_by: t.filled(t.text, ''),
  version: t.filled(t.whole, 1),
  saved_by: t.text,
  saved_at: t.moment,
});

export const QuotationAlternateTable = table('quotation_alternate', {
  id: t.id,
  quotation_id: t.ref('quotation'),
  name: t.text,
  amount: t.cents,
});

export const QuotationPaymentTable = table('quotation_payment', {
  id: t.id,
  quotation_id: t.ref('quotation'),
  name: t.text,
  rate: t.orNull(t.rate),
  amount: t.orNull(t.cents),
  due_on: t.orNull(t.day),
  stage: t.text,
});
