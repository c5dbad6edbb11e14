import { filledBeside } from '../../../kit/grid/filledRow';
import { showUnitCost, unitCost } from '../../../kit/typed/unitCosts';
import { amount, markup, needed, oneOf, optional, readAt, type Faults } from '../../../kit/typed/codecs';
import { present } from '../../../../core/errors/known';
import { COST_TYPES } from '../../../../core/costs/costType';
import { displayExact } from '../../../../core/money/display';
import { formatQuantity } from '../../../../core/money/rate';
import type { EstimateLine, Part } from '../../../../core/estimates/estimate';
import type { EstimateContent } from '../../../../core/estimates/merge';
import type { GridRow } from '../../../kit/grid/gridTypes';

/** An estimate as typed. A row's hidden `id` leads to its parts. */
export interface EstimateForm {
  name: string;
  overhead: string;
  profit: string;
  rounding: string;
  typeMarkups: Readonly<Record<string, string>>;
  sectionMarkups: Readonly<Record<string, string>>;
  lines: readonly GridRow[];
  parts: Readonly<Record<string, readonly GridRow[]>>;
}

export interface FormContext {
  digits: number;
  costCodes: ReadonlySet<string>;
  buildUps: { has(code: string): boolean };
}

export interface ReadEstimate {
  content: EstimateContent;
  /** By `lines.row.column`, `parts.id.row.column`, or the name of a field. */
  faults: Faults;
  /** The line each row of the grid is; null where the row is empty. */
  places: (number | null)[];
}

/** The form of an estimate as the books hold it. */
export function formOf(content: EstimateContent, digits: number): EstimateForm {
  const ids = content.lines.map((_, i) => `${i}`);
  return {
    name: content.name,
    overhead: markupOrNone.format(content.overhead || null),
    profit: markupOrNone.format(content.profit || null),
    rounding: content.rounding === 0 ? '' : displayExact(content.rounding, digits),
    typeMarkups: Object.fromEntries(COST_TYPES.map((it) => [it, markupOrNone.format(content.typeMarkups[it] ?? null)])),
    sectionMarkups: Object.fromEntries(
      Object.entries(content.sectionMarkups).map(([name, rate]) => [name, markupOrNone.format(rate)]),
    ),
    lines: content.lines.map((it, i) => ({
      id: present(ids[i]),
      line: it.line,
      section: it.section,
      description: it.description,
      quantity: formatQuantity(it.quantity),
      unit: it.unit,
      buildUp: it.buildUp,
      markup: markupOrNone.format(it.markup),
    })),
    parts: Object.fromEntries(
      content.lines
        .map((it, i) => [present(ids[i]), it.parts.map((part) => partRow(part, digits))] as const)
        .filter(([, list]) => list.length > 0),
    ),
  };
}

/** A part as a row of the grid beneath its line. */
export function partRow(part: Part, digits: number): GridRow {
  return {
    item: part.item,
    description: part.description,
    costCode: part.costCode,
    type: part.costType,
    basis: part.basis === 'in-all' ? 'in all' : 'each',
    quantity: formatQuantity(part.quantity),
    unit: part.unit,
    unitCost: part.unitCost === 0 ? '0' : showUnitCost(part.unitCost, digits),
    markup: markupOrNone.format(part.markup),
  };
}

interface ReadLine {
  parts: readonly GridRow[] | undefined;
  context: FormContext;
  line: EstimateLine;
  faults: readonly (readonly [string, string])[];
}
const known = new WeakMap<GridRow, ReadLine>();

/** Reads the whole form. Rows that did not change since the last reading are not read again. */
export function readEstimate(form: EstimateForm, context: FormContext): ReadEstimate {
  const faults: Faults = new Map();
  const places: (number | null)[] = [];
  const lines: EstimateLine[] = [];
  const seen = new Set<string>();
  form.lines.forEach((row, i) => {
    const parts = form.parts[row.id ?? ''];
    if (!hasText(row) && !parts?.some(hasText)) return places.push(null);
    const read = readLine(row, parts, context);
    for (const [at, message] of read.faults) faults.set(at.startsWith('parts.') ? at : `lines.${i}.${at}`, message);
    if (read.line.line !== '' && seen.has(read.line.line))
      faults.set(`lines.${i}.line`, `Line ${read.line.line} is there already; each line has a number of its own`);
    seen.add(read.line.line);
    places.push(lines.length);
    return lines.push(read.line);
  });
  const rounding = readAt(faults, 'rounding', form.rounding, optional(amount(context.digits), 0), 0);
  if (form.name.trim() === '') faults.set('name', 'Expected a name');
  const rates = (of: Readonly<Record<string, string>>, which: string) =>
    Object.fromEntries(
      Object.entries(of)
        .map(([name, typed]) => [name, readAt(faults, `${which}.${name}`, typed, markupOrNone, null)] as const)
        .filter((it): it is readonly [string, number] => it[1] !== null),
    );
  const content: EstimateContent = {
    name: form.name.trim(),
    overhead: readAt(faults, 'overhead', form.overhead, markupOrNone, null) ?? 0,
    profit: readAt(faults, 'profit', form.profit, markupOrNone, null) ?? 0,
    rounding,
    typeMarkups: rates(form.typeMarkups, 'typeMarkups'),
    sectionMarkups: rates(form.sectionMarkups, 'sectionMarkups'),
    lines,
  };
  return { content, faults, places };
}

const markupOrNone = optional(markup, null);
/** A line without a quantity is of one. */
const quantityOrOne = optional(needed, 10_000);
const costOrNone = optional(unitCost(2), 0);

/** A row carries its own number beside what is typed. */
const hasText = filledBeside('id');

function readLine(row: GridRow, parts: readonly GridRow[] | undefined, context: FormContext): ReadLine {
  const there = known.get(row);
  if (there && there.parts === parts && there.context === context) return there;
  const faults: Faults = new Map();
  const text = (key: string) => (row[key] ?? '').trim();
  if (text('line') === '') faults.set('line', 'Expected a line number');
  if (text('description') === '') faults.set('description', 'Expected a description');
  if (text('buildUp') !== '' && !context.buildUps.has(text('buildUp')))
    faults.set('buildUp', `There is no build-up ${text('buildUp')}`);
  const line: EstimateLine = {
    line: text('line'),
    section: text('section'),
    description: text('description'),
    quantity: readAt(faults, 'quantity', row.quantity, quantityOrOne, 0),
    unit: text('unit'),
    buildUp: text('buildUp'),
    markup: readAt(faults, 'markup', row.markup, markupOrNone, null),
    parts: (parts ?? []).flatMap((it, k) => (hasText(it) ? [readPart(it, `parts.${row.id}.${k}`, faults, context)] : [])),
  };
  const read: ReadLine = { parts, context, line, faults: [...faults] };
  known.set(row, read);
  return read;
}

function readPart(row: GridRow, at: string, faults: Faults, { costCodes }: FormContext): Part {
  const text = (key: string) => (row[key] ?? '').trim();
  if (text('costCode') === '') faults.set(`${at}.costCode`, 'Expected a cost code');
  else if (!costCodes.has(text('costCode'))) faults.set(`${at}.costCode`, `There is no cost code ${text('costCode')}`);
  const basis = text('basis').toLowerCase();
  if (basis !== '' && !'in all'.startsWith(basis) && !'each'.startsWith(basis))
    faults.set(`${at}.basis`, 'Expected “each”, for each unit of the line, or “in all”');
  return {
    item: text('item'),
    description: text('description'),
    costCode: text('costCode'),
    costType: readAt(faults, `${at}.type`, row.type, oneOf(COST_TYPES), 'other'),
    basis: basis !== '' && 'in all'.startsWith(basis) ? 'in-all' : 'per-unit',
    quantity: readAt(faults, `${at}.quantity`, row.quantity, quantityOrOne, 0),
    unit: text('unit'),
    unitCost: readAt(faults, `${at}.unitCost`, row.unitCost, costOrNone, 0),
    markup: readAt(faults, `${at}.markup`, row.markup, markupOrNone, null),
  };
}
