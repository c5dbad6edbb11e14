import { pick, t, table, view } from '../db/fields';

export const ChangeOrderTable = table('change_order', {
  id: t.id,
  job_id: t.ref('job'),
  number: t.text,
  title: t.text,
  status: t.oneOf('draft', 'issued', 'approved', 'rejected', 'withdrawn'),
  raised_on: t.day,
  issued_on: t.orNull(t.day),
  decided_on: t.orNull(t.day),
  reference: t.text,
  reason: t.filled(t.text, ''),
  asked_by: t.filled(t.text, ''),
  days_asked: t.orNull(t.whole),
  days_granted: t.orNull(t.whole),
  decided_by: t.filled(t.text, ''),
  decision: t.filled(t.text, ''),
  version: t.filled(t.whole, 1),
  saved_by: t.filled(t.text, ''),
  saved_at: t.filled(t.moment, ''),
});

export const ChangeOrderLineTable = table('change_order_line', {
  id: t.id,
  change_order_id: t.ref('change_order'),
  side: t.oneOf('price', 'cost'),
  sov_line_id: t.orNull(t.ref('sov_line')),
  cost_line_id: t.orNull(t.ref('cost_line')),
  description: t.text,
  section: t.text,
  quantity: t.orNull(t.quantity),
  unit: t.text,
  hours: t.orNull(t.hours),
  amount: t.cents,
  asked: t.orNull(t.cents),
});

export const ApprovedChangeLineView = view('approved_change_line', {
  ...pick(ChangeOrderLineTable, 'id', 'side', 'sov_line_id', 'cost_line_id', 'amount', 'hours').fields,
  job_id: t.ref('job'),
  change_order_id: t.ref('change_order'),
  number: t.text,
  title: t.text,
  decided_on: t.day,
});
