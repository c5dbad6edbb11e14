import { isFilled } from '../../../kit/grid/filledRow';
import { unitCost } from '../../../kit/typed/unitCosts';
import { readCells, readRows, rowOf } from '../../../kit/grid/rowCodecs';
import {
  among,
  amount,
  markup,
  needed,
  oneOf,
  optional,
  readAt,
  words,
  type Codec,
  type Faults,
} from '../../../kit/typed/codecs';
import { COST_TYPES } from '../../../../core/costs/costType';
import { displayExact } from '../../../../core/money/display';
import type { EstimateContent, EstimateLine, Part } from '../../../../core/estimates/estimate';
import { ROW_KEY, type GridRow } from '../../../kit/grid/gridTypes';

/** An estimate as typed. The parts of a line stand under the key of its row. */
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
  /** By `lines.row.column`, under `partsAt(key)` by row and column, or the name of a field. */
  faults: Faults;
  /** The line each row of the grid is; null where the row is empty. */
  places: (number | null)[];
}

const markupOrNone = optional(markup, null);
/** A line without a quantity is of one. */
const quantityOrOne: Codec<number> = { ...optional(needed, 10_000), format: needed.format };

/** Whether a part is for each unit of its line or for the whole line; nothing typed is each. */
const basis: Codec<Part['basis']> = {
  parse: (text) => {
    const typed = text.trim().toLowerCase();
    if ('each'.startsWith(typed)) return { ok: true, value: 'per-unit' };
    if ('in all'.startsWith(typed)) return { ok: true, value: 'in-all' };
    return { ok: false, message: 'Expected “each”, for each unit of the line, or “in all”' };
  },
  format: (value) => (value === 'in-all' ? 'in all' : 'each'),
  nothing: 'per-unit',
};

/** How the columns of the lines are read; a build-up is then one of the price list's. */
const LINE = {
  line: words('Expected a line number'),
  section: words(),
  description: words('Expected a description'),
  quantity: quantityOrOne,
  unit: words(),
  buildUp: words(),
  markup: markupOrNone,
};
/** How the columns of a line's parts are read; the cost code is then one of the company's. */
const PART = {
  item: words(),
  description: words(),
  costCode: words(),
  costType: oneOf(COST_TYPES),
  basis,
  quantity: quantityOrOne,
  unit: words(),
  unitCost: optional(unitCost(2), 0),
  markup: markupOrNone,
};

/** The form of an estimate as the books hold it. */
export function formOf(content: EstimateContent, digits: number): EstimateForm {
  return {
    name: content.name,
    overhead: markupOrNone.format(content.overhead || null),
    profit: markupOrNone.format(content.profit || null),
    rounding: content.rounding === 0 ? '' : displayExact(content.rounding, digits),
    typeMarkups: Object.fromEntries(COST_TYPES.map((it) => [it, markupOrNone.format(content.typeMarkups[it] ?? null)])),
    sectionMarkups: Object.fromEntries(
      Object.entries(content.sectionMarkups).map(([name, rate]) => [name, markupOrNone.format(rate)]),
    ),
    lines: content.lines.map((it) => ({ [ROW_KEY]: it.line, ...rowOf(LINE, it) })),
    parts: Object.fromEntries(
      content.lines
        .filter((it) => it.parts.length > 0)
        .map((it) => [it.line, it.parts.map((part, k) => ({ [ROW_KEY]: `${it.line} ${k + 1}`, ...partRow(part, digits) }))]),
    ),
  };
}

/** A part as a row of the grid beneath its line. */
export function partRow(part: Part, digits: number): GridRow {
  return rowOf({ ...PART, costCode: words(), unitCost: unitCost(digits) }, part);
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
    const parts = form.parts[row[ROW_KEY] ?? ''];
    if (!isFilled(row) && !parts?.some(isFilled)) return places.push(null);
    const read = readLine(row, parts, context);
    for (const [at, message] of read.faults) faults.set(at.startsWith('parts ') ? at : `lines.${i}.${at}`, message);
    if (read.line.line !== '' && seen.has(read.line.line))
      faults.set(`lines.${i}.line`, `Line ${read.line.line} is there already; each line has a number of its own`);
    seen.add(read.line.line);
    places.push(lines.length);
    return lines.push(read.line);
  });
  const rounding = readAt(faults, 'rounding', form.rounding, optional(amount(context.digits), 0));
  if (form.name.trim() === '') faults.set('name', 'Expected a name');
  const rates = (of: Readonly<Record<string, string>>, which: string) =>
    Object.fromEntries(
      Object.entries(of)
        .map(([name, typed]) => [name, readAt(faults, `${which}.${name}`, typed, markupOrNone)] as const)
        .filter((it): it is readonly [string, number] => it[1] !== null),
    );
  const content: EstimateContent = {
    name: form.name.trim(),
    overhead: readAt(faults, 'overhead', form.overhead, markupOrNone) ?? 0,
    profit: readAt(faults, 'profit', form.profit, markupOrNone) ?? 0,
    rounding,
    typeMarkups: rates(form.typeMarkups, 'typeMarkups'),
    sectionMarkups: rates(form.sectionMarkups, 'sectionMarkups'),
    lines,
  };
  return { content, faults, places };
}

/** Where the faults of the parts of a line stand; a key may have any character in it. */
export const partsAt = (key: string) => `parts ${JSON.stringify(key)}.`;

const sameList = (a: readonly GridRow[] = [], b: readonly GridRow[] = []) =>
  a.length === b.length && a.every((it, i) => it === b[i]);

function readLine(row: GridRow, parts: readonly GridRow[] | undefined, context: FormContext): ReadLine {
  const there = known.get(row);
  if (there && sameList(there.parts, parts) && there.context === context) return there;
  const faults: Faults = new Map();
  const buildUp = optional(among(context.buildUps, 'build-up'), '');
  const part = { ...PART, costCode: among(context.costCodes, 'cost code') };
  const under = partsAt(row[ROW_KEY] ?? '');
  const line: EstimateLine = {
    ...readCells({ ...LINE, buildUp }, row, faults),
    parts: readRows(part, parts ?? [], faults, { under, filled: isFilled }).map((it) => it.value),
  };
  const read: ReadLine = { parts, context, line, faults: [...faults] };
  known.set(row, read);
  return read;
}
