import { COST_TYPES } from '../../core/costs/costType';
import { buildUpFault, type BuildUp } from '../../core/prices/buildUp';
import type { BookCheck } from '../bookFormat/bookCheck';
import { bookFile } from '../bookFormat/bookFile';
import { date, markup, needed, oneOf, percent, REQUIRED, text, unitCost } from '../bookFormat/columns';
import { costCodes, vendors } from '../company/book/bookFiles';
import { BuildUpComponentTable, BuildUpTable, PriceChangeTable, PriceItemTable } from './models';

export const priceItems = bookFile({
  name: 'price_items',
  columns: {
    price_item: text(REQUIRED),
    description: text(REQUIRED),
    unit: text('of labour `h`'),
    cost_type: oneOf(COST_TYPES)(REQUIRED),
    cost_code: text(REQUIRED),
    wage_class: text(),
    unit_cost: unitCost(REQUIRED),
    markup_percent: markup(),
    vendor: text(),
    checked_on: date(),
  },
  key: ['price_item'],
  called: 'price item',
  refers: { cost_code: { to: costCodes }, vendor: { to: vendors } },
  query: `SELECT p.id, p.code AS price_item, p.description, p.unit, p.cost_type, c.code AS cost_code, p.wage_class, p.unit_cost, p.markup_rate AS markup_percent,
    v.code AS vendor, p.checked_on FROM price_item p JOIN cost_code c ON c.id = p.cost_code_id LEFT JOIN vendor v ON v.id = p.vendor_id`,
  check(row, book) {
    if (row.cost_type === 'labour' && row.unit && row.unit !== 'h')
      book.fault(priceItems, row, 'unit', `the unit of labour is the hour, h; "${row.unit}" is another`);
  },
  save: (rows, into): Promise<void> =>
    into.keyed(
      priceItems,
      PriceItemTable,
      rows,
      (row) => [row.price_item],
      (row) => ({
        code: row.price_item,
        description: row.description,
        unit: row.unit ?? (row.cost_type === 'labour' ? 'h' : ''),
        cost_type: row.cost_type,
        cost_code_id: into.id(costCodes, row.cost_code),
        wage_class: row.wage_class ?? '',
        unit_cost: row.unit_cost,
        markup_rate: row.markup_percent,
        vendor_id: row.vendor ? into.id(vendors, row.vendor) : null,
        checked_on: row.checked_on,
      }),
    ),
});

export const priceHistory = bookFile({
  name: 'price_history',
  columns: { price_item: text(REQUIRED), dated: date(REQUIRED), unit_cost: unitCost(REQUIRED), reason: text() },
  key: [],
  refers: { price_item: { to: priceItems } },
  query:
    'SELECT h.id, p.code AS price_item, h.dated, h.unit_cost, h.reason FROM price_change h JOIN price_item p ON p.id = h.price_item_id',
  save: (rows, into): Promise<void> =>
    into.insertAll(
      PriceChangeTable,
      rows.map((row) => ({
        price_item_id: into.id(priceItems, row.price_item),
        dated: row.dated,
        unit_cost: row.unit_cost,
        reason: row.reason ?? '',
        actor: into.actor.name,
      })),
    ),
});

export const buildUps = bookFile({
  name: 'build_ups',
  columns: { build_up: text(REQUIRED), description: text(REQUIRED), unit: text() },
  key: ['build_up'],
  called: 'build-up',
  query: 'SELECT id, code AS build_up, description, unit FROM build_up',
  save: (rows, into): Promise<void> =>
    into.keyed(
      buildUps,
      BuildUpTable,
      rows,
      (row) => [row.build_up],
      (row) => ({ code: row.build_up, description: row.description, unit: row.unit ?? '' }),
    ),
});

export const buildUpComponents = bookFile({
  name: 'build_up_components',
  columns: {
    build_up: text(REQUIRED),
    price_item: text('or component, another build-up'),
    component: text(),
    quantity: needed(REQUIRED),
    waste_percent: percent(),
  },
  key: [],
  refers: {
    build_up: { to: buildUps, whole: 'it is changed there' },
    price_item: { to: priceItems },
    component: { to: buildUps },
  },
  query: `SELECT x.id, b.code AS build_up, p.code AS price_item, s.code AS component, x.quantity, nullif(x.waste_rate, 0) AS waste_percent
    FROM build_up_component x JOIN build_up b ON b.id = x.build_up_id LEFT JOIN price_item p ON p.id = x.price_item_id LEFT JOIN build_up s ON s.id = x.component_id`,
  check(row, book) {
    if (row.price_item === undefined || row.component === undefined) return;
    if ((row.price_item === null) === (row.component === null))
      book.fault(buildUpComponents, row, 'price_item', 'expected a price item, or a build-up in component: one of the two');
  },
  checkAll(rows, book) {
    const fault = buildUpFault(bookBuildUps(book));
    if (!fault) return;
    const at = rows.find((row) => row.build_up === fault.code && row.component === fault.component) ?? { row: 1 };
    const [first = '', ...rest] = fault.message;
    book.fault(buildUpComponents, at, 'component', first.toLowerCase() + rest.join(''));
  },
  save: (rows, into): Promise<void> =>
    into.insertAll(
      BuildUpComponentTable,
      rows.map((row) => ({
        build_up_id: into.id(buildUps, row.build_up),
        price_item_id: row.price_item ? into.id(priceItems, row.price_item) : null,
        component_id: row.component ? into.id(buildUps, row.component) : null,
        quantity: row.quantity,
        waste_rate: row.waste_percent ?? 0,
      })),
    ),
});

/** The book's build-ups by their build-up components alone: enough to see whether they run in a circle. */
function bookBuildUps(book: BookCheck): BuildUp[] {
  const components = book.rowsOf(buildUpComponents);
  return book.rowsOf(buildUps).map((row) => ({
    code: row.build_up ?? '',
    description: '',
    unit: '',
    components: components.flatMap((it) =>
      it.build_up === row.build_up && it.component ? [{ item: '', buildUp: it.component, quantity: 0, waste: 0 }] : [],
    ),
  }));
}
