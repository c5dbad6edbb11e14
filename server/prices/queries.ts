import { query } from '../db/query';
import { shape, t } from '../db/fields';
import { COST_TYPES } from '../../core/costs/costType';

export const PRICE_ITEMS = query(
  shape({
    code: t.text,
    description: t.text,
    unit: t.text,
    costType: t.oneOf(...COST_TYPES),
    costCode: t.text,
    wageClass: t.text,
    unitCost: t.unitCost,
    markup: t.orNull(t.whole),
    vendor: t.text,
    checkedOn: t.orNull(t.day),
  }),
  `SELECT p.code, p.description, p.unit, p.cost_type AS costType, c.code AS costCode, p.wage_class AS wageClass, p.unit_cost AS unitCost,
      p.markup_rate AS markup, coalesce(v.code, '') AS vendor, p.checked_on AS checkedOn
      FROM price_item p JOIN cost_code c ON c.id = p.cost_code_id LEFT JOIN vendor v ON v.id = p.vendor_id ORDER BY p.code`,
);

export const BUILD_UPS = query(
  shape({ description: t.text, unit: t.text, code: t.text, components: t.text }),
  `SELECT b.code, b.description, b.unit, (SELECT json_group_array(json_object('item', coalesce(p.code, ''), 'buildUp', coalesce(s.code, ''),
        'quantity', x.quantity, 'waste', x.waste_rate) ORDER BY x.id)
        FROM build_up_component x LEFT JOIN price_item p ON p.id = x.price_item_id LEFT JOIN build_up s ON s.id = x.component_id WHERE x.build_up_id = b.id) AS components
      FROM build_up b ORDER BY b.code`,
);

export const PRICE_ITEM_ID = query(shape({ id: t.whole }), 'SELECT id FROM price_item WHERE code = $1');

export const PRICE_CHANGES = query(
  shape({ dated: t.day, unitCost: t.unitCost, reason: t.text, actor: t.text }),
  'SELECT dated, unit_cost AS unitCost, reason, actor FROM price_change WHERE price_item_id = $1 ORDER BY dated DESC, id DESC',
);

export const ACHIEVED = query(
  shape({
    job: t.text,
    jobName: t.text,
    buildUp: t.text,
    estimateLineId: t.whole,
    quantity: t.quantity,
    unit: t.text,
    assumed: t.whole,
    assumedHours: t.whole,
    lineBudget: t.whole,
    lineHours: t.whole,
    actual: t.whole,
    actualHours: t.whole,
  }),
  `SELECT job.number AS job, job.name AS jobName, e.build_up AS buildUp, e.id AS estimateLineId, e.quantity, e.unit, b.amount AS assumed, coalesce(b.hours, 0) AS assumedHours,
      (SELECT sum(amount) FROM budget_line WHERE cost_line_id = b.cost_line_id) AS lineBudget, (SELECT coalesce(sum(hours), 0) FROM budget_line WHERE cost_line_id = b.cost_line_id) AS lineHours,
      coalesce((SELECT sum(amount) FROM cost_entry WHERE cost_line_id = b.cost_line_id), 0) AS actual, coalesce((SELECT sum(hours) FROM cost_entry WHERE cost_line_id = b.cost_line_id), 0) AS actualHours
      FROM budget_line b JOIN estimate_line e ON e.id = b.estimate_line_id JOIN cost_line l ON l.id = b.cost_line_id JOIN job ON job.id = l.job_id
      WHERE job.finished_on IS NOT NULL AND e.build_up <> '' ORDER BY e.build_up, job.number, e.id`,
);

export const UNIT_COSTS = query(
  shape({ id: t.whole, code: t.text, unit_cost: t.unitCost }),
  'SELECT id, code, unit_cost FROM price_item',
);
