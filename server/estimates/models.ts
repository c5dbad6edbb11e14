import { t, table } from '../db/fields';

export const EstimateTable = table('estimate', {
  id: t.id,
  job_id: t.ref('job'),
  number: t.whole,
  name: t.text,
  status: t.oneOf('draft', 'sent', 'accepted'),
  chosen: t.filled(t.flag, 0),
  overhead_rate: t.rate,
  profit_rate: t.rate,
  rounding: t.cents,
  sent_on: t.orNull(t.day),
  reference: t.text,
  accepted_on: t.orNull(t.day),
  acceptance: t.text,
  version: t.filled(t.whole, 1),
  saved_by: t.text,
  saved_at: t.moment,
});

export const EstimateMarkupTable = table('estimate_markup', {
  id: t.id,
  estimate_id: t.ref('estimate'),
  cost_type: t.orNull(t.text),
  section: t.orNull(t.text),
  rate: t.rate,
});

export const EstimateLineTable = table('estimate_line', {
  id: t.id,
  estimate_id: t.ref('estimate'),
  line: t.text,
  section: t.text,
  description: t.text,
  quantity: t.quantity,
  unit: t.text,
  build_up: t.text,
  markup_rate: t.orNull(t.rate),
});

export const EstimatePartTable = table('estimate_part', {
  id: t.id,
  estimate_line_id: t.ref('estimate_line'),
  price_item: t.text,
  description: t.text,
  cost_code_id: t.ref('cost_code'),
  cost_type: t.oneOf('labour', 'material', 'subcontract', 'equipment', 'other'),
  basis: t.oneOf('per-unit', 'in-all'),
  quantity: t.quantity,
  unit: t.text,
  unit_cost: t.unitCost,
  markup_rate: t.orNull(t.rate),
});

export const EstimatePriceTable = table('estimate_price', {
  id: t.id,
  estimate_id: t.ref('estimate'),
  build_up: t.text,
  cost_code_id: t.ref('cost_code'),
  cost_type: t.oneOf('labour', 'material', 'subcontract', 'equipment', 'other'),
  markup_rate: t.orNull(t.rate),
  unit_cost: t.unitCost,
  hours: t.hours,
});

export const AwardTable = table('award', {
  sov_line_id: t.asKey(t.ref('sov_line')),
  estimate_id: t.ref('estimate'),
  net: t.cents,
  spread: t.cents,
  difference: t.cents,
});

export const AwardLineTable = table('award_line', {
  estimate_line_id: t.asKey(t.ref('estimate_line')),
  sov_line_id: t.ref('award'),
});

/** An estimate kept under a name; its content as JSON. */
export const EstimatePatternTable = table('estimate_pattern', {
  id: t.id,
  name: t.text,
  content: t.text,
  saved_at: t.moment,
});
