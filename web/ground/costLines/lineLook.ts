import { COST_TYPES } from '../../../core/costs/costType';
import { LINE_FIGURE_NAMES, LINE_FIGURES, type LineKey } from '../../../core/forecast/lineFigures';
import type { EstimateLine } from '../../../wire/jobs';

/** Figures of the table, in its order. */
export const FIGURES = LINE_FIGURE_NAMES.map((figure) => ({ figure, ...LINE_FIGURES[figure] }));

/** What lines can be grouped by, and what a filter can ask of in words. */
export const WORDS = {
  section: 'Section',
  code: 'Cost code',
  type: 'Cost type',
  sov: 'SOV line served',
  state: 'Budget state',
} as const;
export type Wording = keyof typeof WORDS;
export const NO_GROUP = 'none';
export type Grouping = Wording | typeof NO_GROUP;

/** One condition: a column in words holds a text, or a figure is at least or at most an amount. */
export interface Condition {
  column: Wording | LineKey;
  is: 'holds' | 'at-least' | 'at-most';
  /** Text; or minor units, or ten-thousandths of an hour. */
  value: string | number;
}

/** A way of looking at the cost lines of a job that may be saved under a name. */
export interface LineLook {
  /** The view, where the page has several. */
  show?: string;
  by: Grouping;
  conditions: readonly Condition[];
}

/** What stands in a column of words. */
export function wordsOf(line: EstimateLine, column: Wording): string {
  switch (column) {
    case 'section':
      return line.section || 'No section';
    case 'code':
      return `${line.costCode} ${line.description}`;
    case 'type':
      return line.costType;
    case 'sov':
      return line.serves.length === 0 ? 'No SOV line' : line.serves.join(', ');
    case 'state':
      return !line.budgeted ? 'No budget' : line.variance < 0 ? 'Over budget' : 'Within budget';
  }
}

export function isWording(column: Condition['column']): column is Wording {
  return column in WORDS;
}

/** The lines every condition holds for. */
export function filtered(lines: readonly EstimateLine[], conditions: readonly Condition[]): EstimateLine[] {
  return lines.filter((line) =>
    conditions.every(({ column, is, value }) => {
      if (isWording(column)) return wordsOf(line, column).toLowerCase().includes(String(value).trim().toLowerCase());
      return is === 'at-most' ? line[column] <= Number(value) : line[column] >= Number(value);
    }),
  );
}

/** Lines in the order of their groups: types in that of reports, everything else by name. */
export function grouped(lines: readonly EstimateLine[], by: Grouping): EstimateLine[] {
  if (by === NO_GROUP) return [...lines];
  const place = (it: EstimateLine) =>
    by === 'type' ? String(COST_TYPES.indexOf(it.costType as (typeof COST_TYPES)[number])) : wordsOf(it, by);
  return [...lines].sort((a, b) => (place(a) < place(b) ? -1 : place(a) > place(b) ? 1 : 0));
}

export const sumOf = (lines: readonly EstimateLine[], key: LineKey) => lines.reduce((total, line) => total + line[key], 0);

/** What a line is called where it stands under the name of its group, which says part of it already. */
export function lineName(
  {
    section,
    costCode,
    description,
    costType,
  }: Pick<EstimateLine, 'section' | 'costCode' | 'description'> & { costType?: string },
  by: Grouping,
): string {
  const parts = [
    by === 'section' ? '' : section,
    by === 'code' ? '' : `${costCode} ${description}`,
    by === 'type' ? '' : costType,
  ];
  return parts.filter(Boolean).join(' · ') || costCode;
}
