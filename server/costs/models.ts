import { pick, t, table, view } from '../db/fields';

export const CostLineTable = table('cost_line', {
  id: t.id,
  job_id: t.ref('job'),
  section: t.text,
  cost_code_id: t.ref('cost_code'),
  cost_type: t.oneOf('labour', 'material', 'subcontract', 'equipment', 'other'),
});

export const CostEntryTable = table('cost_entry', {
  id: t.id,
  posting_id: t.ref('posting'),
  job_id: t.ref('job'),
  cost_line_id: t.ref('cost_line'),
  posted_on: t.day,
  amount: t.cents,
  quantity: t.orNull(t.quantity),
  hours: t.orNull(t.hours),
  reference: t.text,
  party: t.text,
  description: t.text,
  commitment_line_id: t.orNull(t.ref('commitment_line')),
  uninstalled: t.filled(t.flag, 0),
  dated: t.filled(t.day, ''),
  reverses_entry_id: t.orNull(t.ref('cost_entry')),
  replaces_entry_id: t.orNull(t.ref('cost_entry')),
  /** The line of time it is the pay or the burden of. */
  time_line_id: t.orNull(t.ref('time_line')),
  /** Of its quantity; empty: that of its cost line. */
  unit: t.filled(t.text, ''),
});

export const CostTotalTable = table('cost_total', {
  cost_line_id: t.asKey(t.ref('cost_line')),
  month: t.asKey(t.whole),
  cost: t.cents,
  hours: t.hours,
  entries: t.whole,
});

export const NamedCostLineView = view('named_cost_line', {
  ...pick(CostLineTable, 'id', 'job_id', 'section', 'cost_type').fields,
  job: t.text,
  cost_code: t.text,
});
