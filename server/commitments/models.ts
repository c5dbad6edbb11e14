import { t, table } from '../db/fields';

export const CommitmentTable = table('commitment', {
  id: t.id,
  number: t.text,
  kind: t.oneOf('purchase-order', 'subcontract'),
  vendor_id: t.ref('vendor'),
  dated: t.day,
  retention_rate: t.orNull(t.rate),
});

export const CommitmentLineTable = table('commitment_line', {
  id: t.id,
  commitment_id: t.ref('commitment'),
  line: t.text,
  cost_line_id: t.ref('cost_line'),
  description: t.text,
  quantity: t.orNull(t.quantity),
  unit: t.text,
  amount: t.cents,
  closed_on: t.orNull(t.day),
});
