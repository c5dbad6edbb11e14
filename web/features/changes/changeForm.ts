import { isFilled } from '../../kit/grid/filledRow';
import { COST_TYPES } from '../../../core/costs/costType';
import { amount, day, oneOf, optional, quantity, readAt, whole, type Faults } from '../../kit/typed/codecs';
import { present } from '../../../core/errors/known';
import { displayDate } from '../../../core/calendar/displayDate';
import { displayExact } from '../../../core/money/display';
import { formatQuantity, rateOf } from '../../../core/money/rate';
import { extend } from '../../../core/prices/unitCost';
import { multiplyDivide } from '../../../core/money/round';
import type { UnitShare } from '../../../core/prices/buildUp';
import type { ChangeInput, ChangeView } from '../../../wire/changes';
import type { GridRow } from '../../kit/grid/gridTypes';

/** A change order as typed. */
export interface ChangeForm {
  facts: Readonly<Record<'number' | 'title' | 'raisedOn' | 'reference' | 'reason' | 'askedBy' | 'daysAsked', string>>;
  price: readonly GridRow[];
  cost: readonly GridRow[];
}

export interface ReadChange {
  faults: Faults;
  input: ChangeInput;
  price: number;
  cost: number;
}

export function formOf(view: ChangeView, digits: number): ChangeForm {
  const amount = (value: number) => displayExact(value, digits);
  const quantity = (value: number | null) => (value === null ? '' : formatQuantity(value));
  return {
    facts: {
      number: view.number,
      title: view.title,
      raisedOn: displayDate(view.raisedOn),
      reference: view.reference,
      reason: view.reason,
      askedBy: view.askedBy,
      daysAsked: view.daysAsked === null ? '' : String(view.daysAsked),
    },
    price: view.priceLines.map((it) => ({
      line: it.line,
      section: it.section,
      description: it.description,
      quantity: quantity(it.quantity),
      unit: it.unit,
      amount: amount(it.amount),
    })),
    cost: view.costLines.map((it) => ({
      section: it.section,
      code: it.costCode,
      type: it.costType,
      sovLine: it.sovLine,
      description: it.description,
      quantity: quantity(it.quantity),
      unit: it.unit,
      hours: quantity(it.hours),
      amount: amount(it.amount),
    })),
  };
}

export interface ChangeContext {
  digits: number;
  month: string;
  costCodes: ReadonlySet<string>;
  sovLines: ReadonlySet<string>;
}

/** Reads the whole form; faults by `facts.x`, `price.row.column`, `cost.row.column`. */
export function readChange(form: ChangeForm, version: number, context: ChangeContext): ReadChange {
  const faults: Faults = new Map();
  const fact = (key: keyof ChangeForm['facts']) => form.facts[key].trim();
  if (fact('number') === '') faults.set('facts.number', 'Expected a number such as CO3');
  if (fact('title') === '') faults.set('facts.title', 'Expected a title');
  const raisedOn = readAt(faults, 'facts.raisedOn', fact('raisedOn'), day(context.month), '');
  const daysAsked = readAt(faults, 'facts.daysAsked', fact('daysAsked'), optional(whole('days'), null), null);
  const money = amount(context.digits);
  const number = optional(quantity, null);
  const named = new Set<string>();
  const price = form.price.flatMap((row, i) => {
    if (!isFilled(row)) return [];
    const text = (key: string) => (row[key] ?? '').trim();
    const at = (key: string) => `price.${i}.${key}`;
    if (text('line') === '') faults.set(at('line'), 'Expected an SOV line, or the number of a new one');
    else if (named.has(text('line'))) faults.set(at('line'), `Line ${text('line')} is there already`);
    named.add(text('line'));
    if (text('line') !== '' && !context.sovLines.has(text('line')) && text('description') === '')
      faults.set(at('description'), `${text('line')} is a new SOV line; say what it is for`);
    return [
      {
        line: text('line'),
        section: text('section'),
        description: text('description'),
        quantity: readAt(faults, at('quantity'), row.quantity, number, null),
        unit: text('unit'),
        amount: readAt(faults, at('amount'), row.amount, money, 0),
      },
    ];
  });
  const cost = form.cost.flatMap((row, i) => {
    if (!isFilled(row)) return [];
    const text = (key: string) => (row[key] ?? '').trim();
    const at = (key: string) => `cost.${i}.${key}`;
    if (!context.costCodes.has(text('code')))
      faults.set(at('code'), text('code') === '' ? 'Expected a cost code' : `There is no cost code ${text('code')}`);
    if (text('sovLine') !== '' && !context.sovLines.has(text('sovLine')) && !named.has(text('sovLine')))
      faults.set(at('sovLine'), `There is no SOV line ${text('sovLine')}`);
    return [
      {
        section: text('section'),
        costCode: text('code'),
        costType: readAt(faults, at('type'), row.type, oneOf(COST_TYPES), 'other'),
        sovLine: text('sovLine'),
        description: text('description'),
        quantity: readAt(faults, at('quantity'), row.quantity, number, null),
        unit: text('unit'),
        hours: readAt(faults, at('hours'), row.hours, number, null),
        amount: readAt(faults, at('amount'), row.amount, money, 0),
      },
    ];
  });
  return {
    faults,
    price: price.reduce((sum, it) => sum + it.amount, 0),
    cost: cost.reduce((sum, it) => sum + it.amount, 0),
    input: {
      version,
      number: fact('number'),
      title: fact('title'),
      raisedOn,
      reference: fact('reference'),
      reason: fact('reason'),
      askedBy: fact('askedBy'),
      daysAsked,
      price,
      cost,
    },
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
      code: it.costCode,
      type: it.costType,
      sovLine: of.sovLine,
      description: of.description,
      quantity: formatQuantity(quantity),
      unit: of.unit,
      hours: it.hours === 0 ? '' : formatQuantity(multiplyDivide(quantity, it.hours, 10_000)),
      amount: displayExact(present(costs[i]), digits),
    })),
  };
}
