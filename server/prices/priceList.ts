import { PRICE_ITEMS, BUILD_UPS, PRICE_ITEM_ID, PRICE_CHANGES, ACHIEVED } from './queries';
import { PriceList } from '../../core/prices/buildUp';
import { LedrinError } from '../../core/errors/ledrinError';
import { multiplyDivide } from '../../core/money/round';
import { unitCostOf } from '../../core/prices/unitCost';
import type { Achieved, BuildUpInput, PriceListView, PriceChange } from '../../wire/prices';
import type { Reader } from '../db/sql';
import { loadDigits } from '../company/company';

/** The whole price list, items and build-ups by code. */
export async function priceListView(sql: Reader): Promise<PriceListView> {
  const items = await sql.all(PRICE_ITEMS);
  const rows = await sql.all(BUILD_UPS);
  return {
    items,
    buildUps: rows.map((row) => ({ ...row, components: JSON.parse(row.components) as BuildUpInput['components'] })),
  };
}

/** The same, ready to price with. */
export async function loadPriceList(sql: Reader): Promise<PriceList> {
  const { items, buildUps } = await priceListView(sql);
  return new PriceList(items, buildUps);
}

/** What an item cost from when on, newest first. */
export async function priceHistory(sql: Reader, code: string): Promise<PriceChange[]> {
  const item = await sql.get(PRICE_ITEM_ID, [code]);
  if (!item) throw new LedrinError('not-found', `There is no price item ${code}`);
  return sql.all(PRICE_CHANGES, [item.id]);
}

/**
 * How build-ups did on finished jobs. A budget line's part of the cost on its section, code and type is as large as its
 * part of the original budget there (docs/rules.md); hours likewise. Per unit of the quantity that was estimated.
 */
export async function achieved(sql: Reader): Promise<Achieved[]> {
  const digits = await loadDigits(sql);
  const rows = await sql.all(ACHIEVED);
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
