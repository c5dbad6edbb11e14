import type { PriceItemInput } from '../../../wire/prices';
import { ROW_KEY, type GridRow } from '../../kit/grid/gridTypes';

/**
 * Rows in which a price item was chosen since, with what the item says where nothing is typed: code, type, supplier, and the description
 * with its unit. What stands there stays.
 */
export function withChosenItems(
  next: readonly GridRow[],
  before: readonly GridRow[],
  items: ReadonlyMap<string, PriceItemInput>,
): GridRow[] {
  if (items.size === 0) return [...next];
  const chosen = new Map(before.map((row, i) => [row[ROW_KEY] ?? i, row.item ?? '']));
  return next.map((row, i) => {
    const code = (row.item ?? '').trim();
    const item = items.get(code);
    if (!item || chosen.get(row[ROW_KEY] ?? i) === row.item) return row;
    const brought = {
      costCode: item.costCode,
      costType: item.costType,
      party: item.vendor,
      description: item.unit === '' ? item.description : `${item.description}, ${item.unit}`,
    };
    const empty = Object.entries(brought).filter(([key, value]) => value !== '' && (row[key] ?? '').trim() === '');
    return empty.length === 0 ? row : { ...row, ...Object.fromEntries(empty) };
  });
}
