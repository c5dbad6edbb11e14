import { present } from '../../../core/errors/known';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useCallback, useEffect, useRef, type ClipboardEvent, type ReactNode } from 'react';
import { pasteBlock } from './pasteBlock';
import { Cell } from './GridCell';
import type { GridColumn, GridRow } from './gridTypes';

export interface EntryGridProps {
  label: string;
  columns: readonly GridColumn[];
  rows: readonly GridRow[];
  onRows: (rows: GridRow[]) => void;
  /** What is wrong, by `row.column`. */
  faults: ReadonlyMap<string, string>;
  /** The total row. */
  foot?: ReactNode;
  height?: number | string;
  /** False where rows are given and none is added. */
  grows?: boolean;
  /** Blank rows shown at least, so that there is a sheet to type on. */
  blank?: number;
  /** Shown which row the cursor is in. */
  onRow?: (row: number) => void;
}

const ROW_HEIGHT = 28;

/**
 * A sheet to type in: arrows, Tab and Enter move, typing replaces, a block pasted from a spreadsheet lands in the
 * cells, Alt ↓ fills a column down, Ctrl Z takes the last change back. A faulty cell says what is wrong, there.
 */
export function EntryGrid({
  label,
  columns,
  rows,
  onRows,
  faults,
  foot,
  height = 380,
  grows = true,
  blank = 1,
  onRow,
}: EntryGridProps) {
  const box = useRef<HTMLDivElement>(null);
  const past = useRef<(readonly GridRow[])[]>([]);
  const wanted = useRef<{ row: number; column: number } | null>(null);
  const shown = grows ? [...rows, ...Array.from({ length: Math.max(1, blank - rows.length) }, () => ({}))] : rows;
  const virtual = useVirtualizer({
    count: shown.length,
    getScrollElement: () => box.current,
    estimateSize: () => ROW_HEIGHT,
    overscan: 16,
    initialRect: { width: 1000, height: 600 },
  });

  const change = useCallback(
    (next: GridRow[]) => {
      past.current = [...past.current.slice(-60), rows];
      onRows(next);
    },
    [rows, onRows],
  );
  const undo = () => {
    const last = past.current.pop();
    if (last) onRows([...last]);
  };
  const setCell = (row: number, key: string, text: string) => {
    // Rows that did not change stay the same objects, so that what was worked from them can be saved.
    const next = [...rows];
    while (next.length <= row) next.push({});
    next[row] = { ...next[row], [key]: text };
    change(next);
  };
  const go = (row: number, column: number) => {
    const at = Math.max(0, Math.min(shown.length - 1, row));
    const col = Math.max(0, Math.min(columns.length - 1, column));
    wanted.current = { row: at, column: col };
    virtual.scrollToIndex(at);
    focusWanted();
  };
  const focusWanted = () => {
    const to = wanted.current;
    if (!to) return;
    const input = box.current?.querySelector<HTMLInputElement>(`[data-cell="${to.row}:${to.column}"]`);
    if (!input) return;
    wanted.current = null;
    input.focus();
    input.select();
  };
  useEffect(focusWanted);

  const paste = (event: ClipboardEvent, row: number, column: number) => {
    const text = event.clipboardData.getData('text/plain');
    if (!/[\t\n]/.test(text.trimEnd())) return;
    event.preventDefault();
    const keys = columns.map((it) => (it.show ? null : it.key));
    const tidied = pasteBlock(rows, text, row, column, keys, grows);
    change(
      tidied.map((it) =>
        Object.fromEntries(
          Object.entries(it).map(([key, value]) => [key, columns.find((col) => col.key === key)?.tidy?.(value) ?? value]),
        ),
      ),
    );
  };
  const fillDown = (row: number, key: string) =>
    change(rows.map((it, i) => (i > row ? { ...it, [key]: rows[row]?.[key] ?? '' } : { ...it })));
  const removeRow = (row: number) => change(rows.filter((_, i) => i !== row).map((it) => ({ ...it })));

  const items = virtual.getVirtualItems();
  const before = items[0]?.start ?? 0;
  const after = virtual.getTotalSize() - (items.at(-1)?.end ?? 0);
  return (
    <div ref={box} className="scroll sheet" style={{ maxHeight: height }}>
      <table className="grid-entry" role="grid" aria-label={label} aria-rowcount={shown.length}>
        <thead>
          <tr>
            {grows && (
              <th style={{ width: 34 }}>
                <span className="sr-only">Row</span>
              </th>
            )}
            {columns.map((column) => (
              <th key={column.key} style={{ width: column.width, textAlign: column.numeric ? 'right' : 'left' }}>
                {column.title}
              </th>
            ))}
            {grows && (
              <th style={{ width: 30 }}>
                <span className="sr-only">Remove</span>
              </th>
            )}
          </tr>
        </thead>
        <tbody>
          {before > 0 && <tr style={{ height: before }} aria-hidden="true" />}
          {items.map(({ index }) => {
            const row = present(shown[index]);
            return (
              <tr key={index}>
                {grows && <td className="head">{index + 1}</td>}
                {columns.map((column, at) =>
                  column.show ? (
                    <td key={column.key} className={`worked ${column.numeric ? 'figure' : ''}`}>
                      {column.show(row, index)}
                    </td>
                  ) : (
                    <Cell
                      key={column.key}
                      column={column}
                      row={row}
                      index={index}
                      at={at}
                      label={`${column.title}, row ${index + 1}`}
                      fault={faults.get(`${index}.${column.key}`)}
                      onEnter={() => onRow?.(index)}
                      onText={(text) => setCell(index, column.key, text)}
                      onMove={(down, across) => go(index + down, at + across)}
                      onPaste={(event) => paste(event, index, at)}
                      onFill={() => fillDown(index, column.key)}
                      onUndo={undo}
                    />
                  ),
                )}
                {grows && (
                  <td className="worked" style={{ borderRight: 0 }}>
                    {index < rows.length && (
                      <button
                        type="button"
                        tabIndex={-1}
                        className="button bare"
                        style={{ height: 24, padding: 0 }}
                        aria-label={`Remove row ${index + 1}`}
                        title="Remove this row"
                        onClick={() => removeRow(index)}
                      >
                        ×
                      </button>
                    )}
                  </td>
                )}
              </tr>
            );
          })}
          {after > 0 && <tr style={{ height: after }} aria-hidden="true" />}
        </tbody>
        {foot}
      </table>
    </div>
  );
}
