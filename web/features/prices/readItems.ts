import { displayDate } from '../../../core/calendar/displayDate';
import type { PriceItemInput } from '../../../wire/prices';
import type { GridRow } from '../../kit/grid/gridTypes';
import { readDate } from '../../kit/typed/readDate';
import { markupText, readCostType, readMarkup, readUnitCost, showUnitCost, type Faults } from '../../kit/typed/readCells';

/** A price item as a row of the grid. `was` is the code it has in the books, so that a row is known again. */
export function itemRow(item: PriceItemInput, digits: number): GridRow {
  return {
    was: item.code,
    code: item.code,
    description: item.description,
    unit: item.unit,
    type: item.costType,
    costCode: item.costCode,
    wageClass: item.wageClass,
    unitCost: item.unitCost === 0 ? '0' : showUnitCost(item.unitCost, digits),
    markup: markupText(item.markup),
    vendor: item.vendor,
    checked: displayDate(item.checkedOn),
  };
}

export interface ReadItems {
  faults: Faults;
  /** Items that are new or differ from the books, with the row each stands in. */
  changed: { row: number; item: PriceItemInput }[];
}

/** Reads the rows and says what differs from the books. Empty rows are passed over. */
export function readItems(
  rows: readonly GridRow[],
  books: readonly PriceItemInput[],
  context: { month: string; costCodes: ReadonlySet<string>; vendors: ReadonlySet<string> },
): ReadItems {
  const faults: Faults = new Map();
  const known = new Map(books.map((it) => [it.code, it]));
  const seen = new Set<string>();
  const changed = rows.flatMap((row, i) => {
    const text = (key: string) => (row[key] ?? '').trim();
    if (!Object.entries(row).some(([key, value]) => key !== 'was' && value.trim() !== '')) return [];
    const at = (key: string) => `${i}.${key}`;
    if (text('code') === '') faults.set(at('code'), 'Expected a code');
    if (seen.has(text('code'))) faults.set(at('code'), `${text('code')} is there already; each item has a code of its own`);
    seen.add(text('code'));
    if (text('description') === '') faults.set(at('description'), 'Expected a description');
    const costType = readCostType(faults, at('type'), row.type);
    if (text('costCode') === '') faults.set(at('costCode'), 'Expected a cost code');
    else if (!context.costCodes.has(text('costCode'))) faults.set(at('costCode'), `There is no cost code ${text('costCode')}`);
    if (text('vendor') !== '' && !context.vendors.has(text('vendor')))
      faults.set(at('vendor'), `There is no vendor ${text('vendor')}`);
    if (text('unitCost') === '') faults.set(at('unitCost'), 'Expected what one unit costs');
    const checkedOn = text('checked') === '' ? null : readDate(text('checked'), context.month);
    if (text('checked') !== '' && !checkedOn)
      faults.set(at('checked'), `"${text('checked')}" is not a valid date; enter one such as 30 Apr 2031`);
    const item: PriceItemInput = {
      code: text('code'),
      description: text('description'),
      unit: costType === 'labour' ? 'h' : text('unit'),
      costType,
      costCode: text('costCode'),
      wageClass: text('wageClass'),
      unitCost: readUnitCost(faults, at('unitCost'), row.unitCost),
      markup: readMarkup(faults, at('markup'), row.markup),
      vendor: text('vendor'),
      checkedOn,
    };
    const before = known.get(item.code);
    return before && JSON.stringify(before) === JSON.stringify(item) ? [] : [{ row: i, item }];
  });
  return { faults, changed };
}
