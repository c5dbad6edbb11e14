import { filledBeside } from '../../kit/grid/filledRow';
import { stableText } from '../../kit/stableText';
import { COST_TYPES } from '../../../core/costs/costType';
import { showUnitCost, unitCost } from '../../kit/typed/unitCosts';
import { day, markup, oneOf, optional, readAt, type Faults } from '../../kit/typed/codecs';
import { displayDate } from '../../../core/calendar/displayDate';
import type { PriceItemInput } from '../../../wire/prices';
import type { GridRow } from '../../kit/grid/gridTypes';

/** A row carries the code its item had beside what is typed. */
const hasItem = filledBeside('was');

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
    markup: optional(markup, null).format(item.markup),
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
    if (!hasItem(row)) return [];
    const at = (key: string) => `${i}.${key}`;
    if (text('code') === '') faults.set(at('code'), 'Expected a code');
    if (seen.has(text('code'))) faults.set(at('code'), `${text('code')} is there already; each item has a code of its own`);
    seen.add(text('code'));
    if (text('description') === '') faults.set(at('description'), 'Expected a description');
    const costType = readAt(faults, at('type'), row.type, oneOf(COST_TYPES), 'other');
    if (text('costCode') === '') faults.set(at('costCode'), 'Expected a cost code');
    else if (!context.costCodes.has(text('costCode'))) faults.set(at('costCode'), `There is no cost code ${text('costCode')}`);
    if (text('vendor') !== '' && !context.vendors.has(text('vendor')))
      faults.set(at('vendor'), `There is no vendor ${text('vendor')}`);
    const item: PriceItemInput = {
      code: text('code'),
      description: text('description'),
      unit: costType === 'labour' ? 'h' : text('unit'),
      costType,
      costCode: text('costCode'),
      wageClass: text('wageClass'),
      unitCost: readAt(faults, at('unitCost'), row.unitCost, unitCost(2), 0),
      markup: readAt(faults, at('markup'), row.markup, optional(markup, null), null),
      vendor: text('vendor'),
      checkedOn: readAt(faults, at('checked'), row.checked, optional(day(context.month), null), null),
    };
    const before = known.get(item.code);
    return before && stableText(before) === stableText(item) ? [] : [{ row: i, item }];
  });
  return { faults, changed };
}
