import { COST_TYPES } from '../../../core/costs/costType';
import type { Texts } from '../../kit/form/codecSchema';
import { noteRepeated, readCells, readRows, rowOf } from '../../kit/grid/rowCodecs';
import { among, amount, day, oneOf, optional, quantity, whole, words, type Faults } from '../../kit/typed/codecs';
import { present } from '../../../core/errors/known';
import { displayExact } from '../../../core/money/display';
import { formatQuantity, rateOf } from '../../../core/money/rate';
import { extend } from '../../../core/prices/unitCost';
import { multiplyDivide } from '../../../core/money/round';
import type { UnitShare } from '../../../core/prices/buildUp';
import type { ChangeInput, TypedChange } from '../../../wire/changes';
import { rowsUnderKeys } from '../../kit/draft/useDraftParts';
import type { GridRow } from '../../kit/grid/gridTypes';

/** How what is typed of a change order is read: its facts, its price side, its cost side. */
export function changeCodecs({ digits, month, costCodes }: ChangeContext) {
  const ofWork = { section: words(), description: words(), quantity: optional(quantity, null), unit: words() };
  return {
    facts: {
      number: words('Expected a number such as CO3'),
      title: words('Expected a title'),
      raisedOn: day(month),
      reference: words(),
      reason: words(),
      askedBy: words(),
      daysAsked: optional(whole('days'), null),
    },
    price: { line: words('Expected an SOV line, or the number of a new one'), ...ofWork, amount: amount(digits) },
    cost: {
      ...ofWork,
      costCode: among(costCodes, 'cost code', '; add it below, or choose another'),
      costType: oneOf(COST_TYPES),
      sovLine: words(),
      hours: optional(quantity, null),
      amount: amount(digits),
    },
  };
}
export type ChangeCodecs = ReturnType<typeof changeCodecs>;

export interface ChangeContext {
  digits: number;
  month: string;
  costCodes: ReadonlySet<string>;
}

/** The two sides of a change order as typed. */
export interface ChangeSides {
  price: readonly GridRow[];
  cost: readonly GridRow[];
}

/** A change order as typed. */
export interface ChangeForm extends ChangeSides {
  facts: Texts<ChangeCodecs['facts']>;
}

export interface ReadChange {
  faults: Faults;
  input: ChangeInput;
  price: number;
  cost: number;
  /** The row of the grid each line of a side came from. */
  rowOf: { price: number[]; cost: number[] };
}

export function formOf(view: TypedChange, codecs: ChangeCodecs): ChangeForm {
  return {
    facts: rowOf(codecs.facts, view) as ChangeForm['facts'],
    price: rowsUnderKeys(
      view.priceLines,
      (it) => it.line,
      (it) => rowOf(codecs.price, it),
    ),
    cost: rowsUnderKeys(
      view.costLines,
      (it) => JSON.stringify([it.section, it.costCode, it.costType, it.sovLine]),
      (it) => rowOf(codecs.cost, it),
    ),
  };
}

/** Reads the whole form; faults by `facts.x`, `price.row.column`, `cost.row.column`. */
export function readChange(form: ChangeForm, version: number, codecs: ChangeCodecs, sovLines: ReadonlySet<string>): ReadChange {
  const faults: Faults = new Map();
  const facts = readCells(codecs.facts, form.facts, faults, 'facts.');
  const price = readRows(codecs.price, form.price, faults, { under: 'price.' });
  noteRepeated(price, 'line', (line) => `Line ${line} is there already`);
  for (const { value: it, fault } of price)
    if (it.line !== '' && !sovLines.has(it.line) && it.description === '')
      fault('description', `${it.line} is a new SOV line; say what it is for`);
  const cost = readRows(codecs.cost, form.cost, faults, { under: 'cost.' });
  const named = new Set(price.map((it) => it.value.line));
  for (const { value: it, fault } of cost)
    if (it.sovLine !== '' && !sovLines.has(it.sovLine) && !named.has(it.sovLine))
      fault('sovLine', `There is no SOV line ${it.sovLine}`);
  return {
    faults,
    price: price.reduce((sum, it) => sum + it.value.amount, 0),
    cost: cost.reduce((sum, it) => sum + it.value.amount, 0),
    input: { version, ...facts, price: price.map((it) => it.value), cost: cost.map((it) => it.value) },
    rowOf: { price: price.map((it) => it.row), cost: cost.map((it) => it.row) },
  };
}

/** Cost rows for `quantity` of something priced by shares of a unit, and the price of them at `markup`. */
export function pricedRows(
  of: { description: string; unit: string; section: string; sovLine: string },
  quantity: number,
  shares: readonly UnitShare[],
  markup: number,
  digits: number,
): { cost: GridRow[]; price: number } {
  const costs = shares.map((it) => extend(quantity, it.cost, digits));
  const total = costs.reduce((sum, it) => sum + it, 0);
  return {
    price: total + rateOf(markup, total),
    cost: shares.map((it, i) => ({
      section: of.section,
      costCode: it.costCode,
      costType: it.costType,
      sovLine: of.sovLine,
      description: of.description,
      quantity: formatQuantity(quantity),
      unit: of.unit,
      hours: it.hours === 0 ? '' : formatQuantity(multiplyDivide(quantity, it.hours, 10_000)),
      amount: displayExact(present(costs[i]), digits),
    })),
  };
}
