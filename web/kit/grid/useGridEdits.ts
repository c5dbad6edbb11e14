import { useRef, type ClipboardEvent } from 'react';
import type { GridColumn, GridRow } from './gridTypes';
import { pasteBlock } from './pasteBlock';

/** Changes that can be taken back. */
const MOST_UNDONE = 60;

export interface GridEdits {
  setCell: (row: number, key: string, text: string) => void;
  paste: (event: ClipboardEvent, row: number, column: number) => void;
  fillDown: (row: number, key: string) => void;
  removeRow: (row: number) => void;
  undo: () => void;
}

/** What changes the rows of a grid, each change one that can be taken back. */
export function useGridEdits(
  columns: readonly GridColumn[],
  rows: readonly GridRow[],
  onRows: (rows: GridRow[]) => void,
  grows: boolean,
): GridEdits {
  const past = useRef<(readonly GridRow[])[]>([]);
  const change = (next: GridRow[]) => {
    past.current = [...past.current.slice(-MOST_UNDONE), rows];
    onRows(next);
  };
  const tidied = (row: GridRow): GridRow =>
    Object.fromEntries(
      Object.entries(row).map(([key, value]) => [key, columns.find((it) => it.key === key)?.tidy?.(value) ?? value]),
    );
  return {
    setCell: (row, key, text) => {
      // Rows that did not change stay the same objects, so that what was worked from them can be saved.
      const next = [...rows];
      while (next.length <= row) next.push({});
      next[row] = { ...next[row], [key]: text };
      change(next);
    },
    paste: (event, row, column) => {
      const text = event.clipboardData.getData('text/plain');
      if (!/[\t\n]/.test(text.trimEnd())) return;
      event.preventDefault();
      const keys = columns.map((it) => (it.show ? null : it.key));
      change(pasteBlock(rows, text, row, column, keys, grows).map(tidied));
    },
    fillDown: (row, key) => change(rows.map((it, i) => (i > row ? { ...it, [key]: rows[row]?.[key] ?? '' } : { ...it }))),
    removeRow: (row) => change(rows.filter((_, i) => i !== row).map((it) => ({ ...it }))),
    undo: () => {
      const last = past.current.pop();
      if (last) onRows([...last]);
    },
  };
}
