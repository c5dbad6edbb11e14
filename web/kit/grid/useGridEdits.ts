import type { ClipboardEvent } from 'react';
import type { GridColumn, GridRow } from './gridTypes';
import { isFilled } from './filledRow';
import { headedBlock, pasteBlock, pastedOver } from './pasteBlock';
import { boundsOf, fillRange, isOneCell, type Range } from './range';

export interface GridEdits {
  setCell: (row: number, key: string, text: string) => void;
  paste: (event: ClipboardEvent, row: number, column: number) => void;
  /** Fills a column down to its end from a cell. */
  fillDown: (row: number, key: string) => void;
  /** Fills a range down from its first row; one cell, from the one above. */
  fillFromTop: (range: Range) => void;
  /** Repeats the rows of a range over the cells beneath it. */
  fillOver: (from: Range, over: Range) => void;
  empty: (range: Range) => void;
  removeRow: (row: number) => void;
}

interface Options {
  /** The columns that are shown. */
  columns: readonly GridColumn[];
  /** Those that are hidden among them. */
  all: readonly GridColumn[];
  rows: readonly GridRow[];
  onRows: (rows: GridRow[]) => void;
  grows: boolean;
}

/** What changes the rows of a grid. */
export function useGridEdits({ columns, all, rows, onRows, grows }: Options): GridEdits {
  const tidied = (row: GridRow): GridRow =>
    Object.fromEntries(
      Object.entries(row).map(([key, value]) => [key, all.find((it) => it.key === key)?.tidy?.(value) ?? value]),
    );
  /** A range that ends below a grid that does not grow ends with it. */
  const within = (range: Range): Range => {
    const last = (row: number) => (grows ? row : Math.min(row, rows.length - 1));
    return { from: { ...range.from, row: last(range.from.row) }, to: { ...range.to, row: last(range.to.row) } };
  };
  const fill = (range: Range, text: (key: string, down: number) => string) =>
    onRows(fillRange(columns, rows, within(range), text));
  return {
    setCell: (row, key, text) => {
      // Rows that did not change stay the same objects, so that what was worked from them can be saved.
      const next = [...rows];
      while (next.length <= row) next.push({});
      next[row] = { ...next[row], [key]: text };
      onRows(next);
    },
    paste: (event, row, column) => {
      const text = event.clipboardData.getData('text/plain');
      if (!/[\t\n]/.test(text.trimEnd())) return;
      event.preventDefault();
      const headed = grows ? headedBlock(all, text) : null;
      if (headed) return onRows([...rows.slice(0, row), ...headed, ...rows.slice(row).filter(isFilled)]);
      onRows(pasteBlock(rows, text, row, pastedOver(columns, all, column, text), grows).map(tidied));
    },
    fillDown: (row, key) => onRows(rows.map((it, i) => (i > row ? { ...it, [key]: rows[row]?.[key] ?? '' } : { ...it }))),
    fillFromTop: (range) => {
      const { top } = boundsOf(range);
      const source = rows[isOneCell(range) ? top - 1 : top];
      if (source) fill(range, (key) => source[key] ?? '');
    },
    fillOver: (from, over) => {
      const { top, bottom } = boundsOf(from);
      fill(over, (key, down) => rows[top + (down % (bottom - top + 1))]?.[key] ?? '');
    },
    empty: (range) => fill(range, () => ''),
    removeRow: (row) => onRows(rows.filter((_, i) => i !== row).map((it) => ({ ...it }))),
  };
}
