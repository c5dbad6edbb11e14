import { COST_TYPES } from '../../../../core/costs/costType';
import { keyAmong } from '../../../kit/draft/useDraftParts';
import { ROW_KEY, UNSEEN, type GridRow } from '../../../kit/grid/gridTypes';
import type { EstimateForm } from './estimateForm';

/** An estimate as the lists of rows that its draft is made of. */
export type EstimateParts = Record<'facts' | 'typeMarkups' | 'sectionMarkups' | 'lines' | 'parts', GridRow[]>;

const FACTS = ['name', 'overhead', 'profit', 'rounding'] as const;
/** What a fact or a markup is of; nobody types it. */
const OF = `${UNSEEN}of`;
/** The key of the line that a part is of. */
const LINE = `${UNSEEN}line`;

const factRow = (of: string, value: string): GridRow => ({ [ROW_KEY]: of, [OF]: of, value });
const valuesOf = (rows: readonly GridRow[]) => Object.fromEntries(rows.map((it) => [it[OF] ?? '', it.value ?? '']));

/** The form as rows. Rows that did not change are the same ones. */
export function partsOf(form: EstimateForm, lineKey: (key: string) => string = (key) => key): EstimateParts {
  const partRow = (row: GridRow, line: string) => (row[LINE] === line ? row : { ...row, [LINE]: line });
  return {
    facts: FACTS.map((it) => factRow(it, form[it])),
    typeMarkups: COST_TYPES.map((it) => factRow(it, form.typeMarkups[it] ?? '')),
    sectionMarkups: Object.entries(form.sectionMarkups).map(([section, rate]) => factRow(section, rate)),
    lines: [...form.lines],
    parts: Object.entries(form.parts).flatMap(([key, rows]) => rows.map((row) => partRow(row, lineKey(key)))),
  };
}

/** The same of a form that was just read: its lines get their full names where they become a draft. */
export const firstPartsOf = (form: EstimateForm) => partsOf(form, (key) => keyAmong('lines', key));

export function formOfParts({ facts, typeMarkups, sectionMarkups, lines, parts }: EstimateParts): EstimateForm {
  const { name = '', overhead = '', profit = '', rounding = '' } = valuesOf(facts);
  const byLine: Record<string, GridRow[]> = {};
  for (const row of parts) (byLine[row[LINE] ?? ''] ??= []).push(row);
  return {
    name,
    overhead,
    profit,
    rounding,
    typeMarkups: valuesOf(typeMarkups),
    sectionMarkups: valuesOf(sectionMarkups),
    lines,
    parts: byLine,
  };
}

/**
 * The names that the rows of a saved form have wherever it is read, by the names they were typed under: a line by its number, a part by
 * its place in the line.
 */
export function savedNames({ lines, parts }: EstimateForm): Map<string, string> {
  const names = new Map<string, string>();
  for (const row of lines) {
    const key = row[ROW_KEY];
    if (!key) continue;
    const line = (row.line ?? '').trim();
    names.set(key, keyAmong('lines', line));
    (parts[key] ?? []).forEach((part, k) => {
      if (part[ROW_KEY]) names.set(part[ROW_KEY], keyAmong('parts', `${line} ${k + 1}`));
    });
  }
  return names;
}

/** A form with rows under other names. */
export function renamed(form: EstimateForm, names: ReadonlyMap<string, string>): EstimateForm {
  const nameOf = (key = '') => names.get(key) ?? key;
  const row = (it: GridRow): GridRow =>
    nameOf(it[ROW_KEY]) === (it[ROW_KEY] ?? '') ? it : { ...it, [ROW_KEY]: nameOf(it[ROW_KEY]) };
  return {
    ...form,
    lines: form.lines.map(row),
    parts: Object.fromEntries(Object.entries(form.parts).map(([key, rows]) => [nameOf(key), rows.map(row)])),
  };
}

/** What a row of the draft is, for whoever reads what was brought together: `line 3`, `overhead`. */
export function rowTitle(key: string): string {
  const [part = '', ...rest] = key.split('/');
  const name = rest.join('/');
  switch (part) {
    case 'facts':
      return name;
    case 'typeMarkups':
      return `markup on ${name}`;
    case 'sectionMarkups':
      return `markup of section ${name}`;
    case 'lines':
      return `line ${name}`;
    default:
      return `what line ${name.split(' ').slice(0, -1).join(' ')} is made of`;
  }
}
