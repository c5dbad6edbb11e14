import { dayOf } from '../acts/audit';
import { CostCodeTable, VendorTable } from '../company/models';
import type { Command } from '../acts/command';
import { BookRefused, FaultList } from '../../core/errors/bookFaults';
import { bookRows } from '../bookFormat/csv/readRows';
import type { ReadRow, Row } from '../bookFormat/columns';
import { priceItems } from './bookFiles';
import { loadDigits } from '../company/company';
import type { PriceItemInput } from '../../wire/prices';
import { idsByCode, savePriceItems } from './prices';

/**
 * Takes a price list in the columns of price_items.csv: new items are added, known ones saved again, all or nothing. Throws
 * BookRefused with every fault by row. Gives back how many items it had.
 */
export async function importPrices(command: Command, path: string): Promise<number> {
  const { sql, actor } = command;
  const faults = new FaultList();
  const rows: ReadRow<typeof priceItems.columns>[] = [];
  const reading = { path, faults, currencyDigits: await loadDigits(sql) };
  for await (const batch of bookRows(priceItems, reading, { readable: true, missingColumns: [] })) rows.push(...batch);
  const [codes, vendors] = [await idsByCode(sql, CostCodeTable), await idsByCode(sql, VendorTable)];
  const seen = new Set<string>();
  for (const row of rows) {
    const at = (column: string, message: string) => faults.add('price_items', row.row, column, message);
    if (row.price_item && seen.has(row.price_item)) at('price_item', `duplicate key: ${row.price_item} appears twice`);
    seen.add(row.price_item ?? '');
    if (row.cost_code && !codes.has(row.cost_code)) at('cost_code', `unknown reference: there is no cost code ${row.cost_code}`);
    if (row.vendor && !vendors.has(row.vendor)) at('vendor', `unknown reference: there is no vendor ${row.vendor}`);
    if (row.cost_type === 'labour' && row.unit && row.unit !== 'h') at('unit', 'the unit of labour is the hour, h');
  }
  if (rows.length === 0 && !faults.any) faults.add('price_items', 1, '', 'there is no item in the file');
  if (faults.any) throw new BookRefused(faults.faults);
  const on = dayOf(actor);
  await savePriceItems(command, {
    removed: [],
    items: (rows as Row<typeof priceItems.columns>[]).map(itemOf),
    on,
    reason: 'Price list imported',
  });
  command.note('price list', { items: rows.length });
  return rows.length;
}

function itemOf(row: Row<typeof priceItems.columns>): PriceItemInput {
  return {
    code: row.price_item,
    description: row.description,
    unit: row.unit ?? '',
    costType: row.cost_type,
    costCode: row.cost_code,
    wageClass: row.wage_class ?? '',
    unitCost: row.unit_cost,
    markup: row.markup_percent,
    vendor: row.vendor ?? '',
    checkedOn: row.checked_on,
  };
}
