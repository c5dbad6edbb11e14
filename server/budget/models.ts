import { t, table } from '../db/fields';

export const BudgetLineTable = table('budget_line', {
  id: t.id,
  cost_line_id: t.ref('cost_line'),
  sov_line_id: t.orNull(t.ref('sov_line')),
  description: t.text,
  quantity: t.orNull(t.quantity),
  unit: t.text,
  hours: t.orNull(t.hours),
  amount: t.cents,
  estimate_line_id: t.orNull(t.ref('estimate_line')),
});

export const BudgetTransferTable = table('budget_transfer', {
  id: t.id,
  job_id: t.ref('job'),
  number: t.whole,
  dated: t.day,
  reason: t.text,
  actor: t.text,
  recorded_at: t.moment,
});

export const BudgetTransferLineTable = table('budget_transfer_line', {
  id: t.id,
  transfer_id: t.ref('budget_transfer'),
  cost_line_id: t.ref('cost_line'),
  amount: t.cents,
  hours: t.orNull(t.hours),
});
