import { noteRepeated, readRows, rowOf } from '../../kit/grid/rowCodecs';
import { filledBeside } from '../../kit/grid/filledRow';
import { stableText } from '../../../core/lists/stableText';
import { COST_TYPES } from '../../../core/costs/costType';
import { unitCost } from '../../kit/typed/unitCosts';
import { among, day, markup, oneOf, optional, words, type Faults } from '../../kit/typed/codecs';
import type { PriceItemInput } from '../../../wire/prices';
import type { GridRow } from '../../kit/grid/gridTypes';

/** A row carries the code its item had beside what is typed. */
const hasItem = filledBeside('was');

/** How the columns of the price list are read. */
export function itemCodecs({ month, costCodes, vendors, digits }: ItemContext) {
  return {
    code: words('Expected a code'),
    description: words('Expected a description'),
    unit: words(),
    costType: oneOf(COST_TYPES),
    costCode: among(costCodes, 'cost code'),
    wageClass: words(),
    unitCost: unitCost(digits),
    markup: optional(markup, null),
    vendor: optional(among(vendors, 'vendor'), ''),
    checkedOn: optional(day(month), null),
  };
}

interface ItemContext {
  month: string;
  costCodes: ReadonlySet<string>;
  vendors: ReadonlySet<string>;
  digits: number;
}
type ItemCodecs = ReturnType<typeof itemCodecs>;

/** A price item as a row of the grid. `was` is the code it has in the books, so that a row is known again. */
export function itemRow(item: PriceItemInput, codecs: ItemCodecs): GridRow {
  return { was: item.code, ...rowOf(codecs, item) };
}

export interface ReadItems {
  faults: Faults;
  /** Items that are new or differ from the books, with the row each stands in. */
  changed: { row: number; item: PriceItemInput }[];
}

/** Reads the rows and says what differs from the books. Empty rows are passed over. */
export function readItems(rows: readonly GridRow[], books: readonly PriceItemInput[], codecs: ItemCodecs): ReadItems {
  const faults: Faults = new Map();
  const known = new Map(books.map((it) => [it.code, it]));
  const read = readRows(codecs, rows, faults, { filled: hasItem });
  noteRepeated(read, 'code', (code) => `${code} is there already; each item has a code of its own`);
  const changed = read.flatMap(({ row, value }) => {
    const item: PriceItemInput = { ...value, unit: value.costType === 'labour' ? 'h' : value.unit };
    const before = known.get(item.code);
    return before && stableText(before) === stableText(item) ? [] : [{ row, item }];
  });
  return { faults, changed };
}
