import type { GridColumn, GridRow } from './gridTypes';

/** A cell of a grid: its row, and its column by place. */
export interface Place {
  row: number;
  at: number;
}

/** Cells from one corner to another, in any direction. */
export interface Range {
  from: Place;
  to: Place;
}

interface Bounds {
  top: number;
  bottom: number;
  left: number;
  right: number;
}

export function boundsOf({ from, to }: Range): Bounds {
  return {
    top: Math.min(from.row, to.row),
    bottom: Math.max(from.row, to.row),
    left: Math.min(from.at, to.at),
    right: Math.max(from.at, to.at),
  };
}

export function holds(range: Range | null, { row, at }: Place): boolean {
  if (!range) return false;
  const { top, bottom, left, right } = boundsOf(range);
  return row >= top && row <= bottom && at >= left && at <= right;
}

export const isOneCell = ({ from, to }: Range) => from.row === to.row && from.at === to.at;

/** What a cell says; a worked-out one only where it is shown as text. */
function textOf(column: GridColumn, row: GridRow, index: number): string {
  const shown = column.show?.(row, index);
  return column.show ? (typeof shown === 'string' ? shown : '') : (row[column.key] ?? '');
}

/** The cells of a range as a spreadsheet takes them: rows by line, cells by tab. */
export function rangeText(columns: readonly GridColumn[], rows: readonly GridRow[], range: Range): string {
  const { top, bottom, left, right } = boundsOf(range);
  const lines = Array.from({ length: bottom - top + 1 }, (_, i) =>
    columns.slice(left, right + 1).map((column) => quoted(textOf(column, rows[top + i] ?? {}, top + i))),
  );
  return lines.map((cells) => cells.join('\t')).join('\n');
}

const quoted = (text: string) => (/[\t\n"]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text);

/** The rows with the typed cells of a range set by `text`, which is told the row's place in the range; rows are added where it is longer. */
export function fillRange(
  columns: readonly GridColumn[],
  rows: readonly GridRow[],
  range: Range,
  text: (key: string, down: number) => string,
): GridRow[] {
  const { top, bottom, left, right } = boundsOf(range);
  const keys = columns.slice(left, right + 1).flatMap((it) => (it.show ? [] : [it.key]));
  const next = [...rows];
  while (next.length <= bottom) next.push({});
  for (let row = top; row <= bottom; row++)
    next[row] = { ...next[row], ...Object.fromEntries(keys.map((key) => [key, text(key, row - top)])) };
  return next;
}

/** What figures of a range come to, in the words of their column; null where fewer than two can be added up. */
export function rangeSummary(
  columns: readonly GridColumn[],
  rows: readonly GridRow[],
  range: Range,
): { count: number; sum: string; average: string } | null {
  const { top, bottom, left, right } = boundsOf(range);
  const found = columns.slice(left, right + 1).flatMap(({ key, codec, show }) => {
    if (show || !codec?.adds) return [];
    return rows.slice(top, bottom + 1).flatMap((row) => {
      const text = (row[key] ?? '').trim();
      const read = text === '' ? null : codec.parse(text);
      return read?.ok && typeof read.value === 'number' ? [{ codec, value: read.value }] : [];
    });
  });
  const first = found[0]?.codec;
  // Money and hours do not add up.
  if (found.length < 2 || !first || found.some((it) => it.codec.adds !== first.adds)) return null;
  const sum = found.reduce((total, it) => total + it.value, 0);
  return { count: found.length, sum: first.format(sum), average: first.format(Math.round(sum / found.length)) };
}
