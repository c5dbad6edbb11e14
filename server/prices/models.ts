import { t, table } from '../db/fields';

export const PriceItemTable = table('price_item', {
  id: t.id,
  code: t.text,
  description: t.text,
  unit: t.text,
  cost_type: t.oneOf('labour', 'material', 'subcontract', 'equipment', 'other'),
  cost_code_id: t.ref('cost_code'),
  wage_class: t.text,
  unit_cost: t.unitCost,
  markup_rate: t.orNull(t.rate),
  vendor_id: t.orNull(t.ref('vendor')),
  checked_on: t.orNull(t.day),
});

export const PriceChangeTable = table('price_change', {
  id: t.id,
  price_item_id: t.ref('price_item'),
  dated: t.day,
  unit_cost: t.unitCost,
  reason: t.text,
  actor: t.text,
});

export const BuildUpTable = table('build_up', {
  id: t.id,
  code: t.text,
  description: t.text,
  unit: t.text,
});

export const BuildUpComponentTable = table('build_up_component', {
  id: t.id,
  build_up_id: t.ref('build_up'),
  price_item_id: t.orNull(t.ref('price_item')),
  component_id: t.orNull(t.ref('build_up')),
  quantity: t.quantity,
  waste_rate: t.rate,
});
