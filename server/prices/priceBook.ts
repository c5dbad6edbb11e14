import { COST_TYPES } from '../../core/costs/costType';
import { shape, t, type RowOf } from '../db/fields';
import { PriceBook } from '../../core/prices/buildUp';
import { LedrinError } from '../../core/errors/ledrinError';
import { multiplyDivide } from '../../core/money/round';
import { unitCostOf } from '../../core/prices/unitCost';
import type { Achieved, BuildUpInput, PriceBookView, PriceChange } from '../../wire/prices';
import type { Reader } from '../db/sql';
import { loadDigits } from '../company/company';

/** The whole price list, items and build-ups by code. */
export async function priceBookView(sql: Reader): Promise<PriceBookView> {
  const items = await sql.all(
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
  const rows = await sql.all(
    shape({ description: t.text, unit: t.text, code: t.text, components: t.text }),
    `SELECT b.code, b.description, b.unit, (SELECT json_group_array(json_object('item', coalesce(p.code, ''), 'buildUp', coalesce(s.code, ''),
        'quantity', x.quantity, 'waste', x.waste_rate) ORDER BY x.id)
        FROM build_up_component x LEFT JOIN price_item p ON p.id = x.price_item_id LEFT JOIN build_up s ON s.id = x.component_id WHERE x.build_up_id = b.id) AS components
      FROM build_up b ORDER BY b.code`,
  );
  return {
    items,
    buildUps: rows.map((row) => ({ ...row, components: JSON.parse(row.components) as BuildUpInput['components'] })),
  };
}

/** The same, ready to price with. */
export async function loadPriceBook(sql: Reader): Promise<PriceBook> {
  const { items, buildUps } = await priceBookView(sql);
  return new PriceBook(items, buildUps);
}

/** What an item cost from when on, newest first. */
export async function priceHistory(sql: Reader, code: string): Promise<PriceChange[]> {
  const item = await sql.get(shape({ id: t.whole }), 'SELECT id FROM price_item WHERE code = $1', [code]);
  if (!item) throw new LedrinError('not-found', `There is no price item ${code}`);
  return sql.all(
    shape({ dated: t.day, unitCost: t.unitCost, reason: t.text, actor: t.text }),
    'SELECT dated, unit_cost AS unitCost, reason, actor FROM price_change WHERE price_item_id = $1 ORDER BY dated DESC, id DESC',
    [item.id],
  );
}

const AchievedRow = shape({
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
});
type AchievedRow = RowOf<typeof AchievedRow>;

/**
 * How build-ups did on finished jobs. A budget line's part of the cost on its section, code and type is as large as its
 * part of the original budget there (docs/rules.md); hours likewise. Per unit of the quantity that was estimated.
 */
export async function achieved(sql: Reader): Promise<Achieved[]> {
  const digits = await loadDigits(sql);
  const rows = await sql.all(
    AchievedRow,
    `SELECT job.number AS job, job.name AS jobName, e.build_up AS buildUp, e.id AS estimateLineId, e.quantity, e.unit, b.amount AS assumed, coalesce(b.hours, 0) AS assumedHours,
      (SELECT sum(amount) FROM budget_line WHERE cost_line_id = b.cost_line_id) AS lineBudget, (SELECT coalesce(sum(hours), 0) FROM budget_line WHERE cost_line_id = b.cost_line_id) AS lineHours,
      coalesce((SELECT sum(amount) FROM cost_entry WHERE cost_line_id = b.cost_line_id), 0) AS actual, coalesce((SELECT sum(hours) FROM cost_entry WHERE cost_line_id = b.cost_line_id), 0) AS actualHours
      FROM budget_line b JOIN estimate_line e ON e.id = b.estimate_line_id JOIN cost_line l ON l.id = b.cost_line_id JOIN job ON job.id = l.job_id
      WHERE job.finished_on IS NOT NULL AND e.build_up <> '' ORDER BY e.build_up, job.number, e.id`,
  );
  const found = new Map<string, Achieved & { cost: number; took: number; lines: Set<number> }>();
  for (const row of rows) {
    const key = `${row.buildUp}\u001f${row.job}`;
    const it = found.get(key) ?? {
      buildUp: row.buildUp,
      job: row.job,
      jobName: row.jobName,
      quantity: 0,
      unit: row.unit,
      assumedCost: 0,
      achievedCost: 0,
      assumedHours: 0,
      achievedHours: 0,
      cost: 0,
      took: 0,
      lines: new Set<number>(),
    };
    found.set(key, it);
    if (!it.lines.has(row.estimateLineId)) it.quantity += row.quantity;
    it.lines.add(row.estimateLineId);
    it.assumedCost += row.assumed;
    it.assumedHours += row.assumedHours;
    it.cost += row.lineBudget === 0 ? 0 : multiplyDivide(row.actual, row.assumed, row.lineBudget);
    it.took += row.lineHours === 0 ? 0 : multiplyDivide(row.actualHours, row.assumedHours, row.lineHours);
  }
  return [...found.values()].map(({ cost, took, lines: _, ...it }) => ({
    ...it,
    assumedCost: unitCostOf(it.assumedCost, it.quantity, digits),
    achievedCost: unitCostOf(cost, it.quantity, digits),
    assumedHours: it.quantity === 0 ? 0 : multiplyDivide(it.assumedHours, 10_000, it.quantity),
    achievedHours: it.quantity === 0 ? 0 : multiplyDivide(took, 10_000, it.quantity),
  }));
}
