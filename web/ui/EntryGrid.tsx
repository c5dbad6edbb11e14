import { useVirtualizer } from '@tanstack/react-virtual';
import { useCallback, useEffect, useRef, useState, type ClipboardEvent, type KeyboardEvent, type ReactNode } from 'react';
import { pasteBlock } from './pasteBlock';

export type GridRow = Record<string, string>;

export interface Offer {
  value: string;
  label: string;
}

export interface GridColumn {
  key: string;
  title: string;
  width: number | string;
  /** Right-aligned figures. */
  numeric?: boolean;
  /** What the cell may complete to, best first. */
  offers?: (row: GridRow) => readonly Offer[];
  /** Turns what was typed into how it is kept, when the cell is left: `1250` → `1,250.00`. */
  tidy?: (text: string) => string;
  /** A cell that is worked out, not typed. */
  show?: (row: GridRow, index: number) => ReactNode;
}

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
}

const ROW_HEIGHT = 28;

/**
 * A sheet to type in: arrows, Tab and Enter move, typing replaces, a block pasted from a spreadsheet lands in the
 * cells, Alt ↓ fills a column down, Ctrl Z takes the last change back. A faulty cell says what is wrong, there.
 */
export function EntryGrid({ label, columns, rows, onRows, faults, foot, height = 380, grows = true, blank = 1 }: EntryGridProps) {
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
    const next = rows.map((it) => ({ ...it }));
    while (next.length <= row) next.push({});
    next[row]![key] = text;
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
            const row = shown[index]!;
            return (
              <tr key={index}>
                {grows && <td className="head">{index + 1}</td>}
                {columns.map((column, at) =>
                  column.show ? (
                    <td key={column.key} className={`worked ${column.numeric ? 'sum' : ''}`}>
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
                        className="press bare"
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

interface CellProps {
  column: GridColumn;
  row: GridRow;
  index: number;
  at: number;
  label: string;
  fault: string | undefined;
  onText: (text: string) => void;
  onMove: (down: number, across: number) => void;
  onPaste: (event: ClipboardEvent) => void;
  onFill: () => void;
  onUndo: () => void;
}

const MOST_OFFERS = 9;

function Cell({ column, row, index, at, label, fault, onText, onMove, onPaste, onFill, onUndo }: CellProps) {
  const value = row[column.key] ?? '';
  const [typed, setTyped] = useState<string | null>(null);
  const [picked, setPicked] = useState(0);
  const [focused, setFocused] = useState(false);
  const text = typed ?? value;
  const offers = typed !== null && column.offers ? matching(column.offers(row), typed) : [];
  const id = `cell-${index}-${column.key}`;

  const commit = (next: string) => {
    setTyped(null);
    const tidied = column.tidy ? column.tidy(next) : next;
    if (tidied !== value) onText(tidied);
  };
  const leave = () => {
    if (typed === null) return;
    commit(offers.length > 0 && typed !== '' && !offers.some((it) => it.value === typed) ? offers[picked]!.value : typed);
  };
  const keys = (event: KeyboardEvent<HTMLInputElement>) => {
    const input = event.currentTarget;
    const whole = input.selectionStart === 0 && input.selectionEnd === input.value.length;
    const act = (work: () => void) => {
      event.preventDefault();
      work();
    };
    if (event.altKey && event.key === 'ArrowDown')
      return act(() => {
        leave();
        onFill();
      });
    if ((event.ctrlKey || event.metaKey) && event.key === 'z') return act(() => (typed === null ? onUndo() : setTyped(null)));
    if (offers.length > 0 && event.key === 'ArrowDown') return act(() => setPicked((picked + 1) % offers.length));
    if (offers.length > 0 && event.key === 'ArrowUp') return act(() => setPicked((picked + offers.length - 1) % offers.length));
    if (event.key === 'Escape') return act(() => setTyped(null));
    if (event.key === 'Enter')
      return act(() => {
        leave();
        onMove(event.shiftKey ? -1 : 1, 0);
      });
    if (event.key === 'ArrowDown')
      return act(() => {
        leave();
        onMove(1, 0);
      });
    if (event.key === 'ArrowUp')
      return act(() => {
        leave();
        onMove(-1, 0);
      });
    if (event.key === 'ArrowRight' && (whole || input.selectionStart === input.value.length))
      return act(() => {
        leave();
        onMove(0, 1);
      });
    if (event.key === 'ArrowLeft' && (whole || input.selectionEnd === 0))
      return act(() => {
        leave();
        onMove(0, -1);
      });
  };
  return (
    <td className={fault ? 'wrong' : ''}>
      <input
        data-cell={`${index}:${at}`}
        className={column.numeric ? 'num' : ''}
        aria-label={label}
        aria-invalid={fault ? true : undefined}
        aria-describedby={fault ? `${id}-fault` : undefined}
        value={text}
        {...(column.offers
          ? {
              role: 'combobox',
              'aria-expanded': offers.length > 0,
              'aria-controls': `${id}-offers`,
              'aria-autocomplete': 'list' as const,
            }
          : {})}
        onChange={(event) => {
          setTyped(event.target.value);
          setPicked(0);
        }}
        onKeyDown={keys}
        onPaste={onPaste}
        onFocus={(event) => {
          setFocused(true);
          event.target.select();
        }}
        onBlur={() => {
          setFocused(false);
          leave();
        }}
        autoComplete="off"
        spellCheck={false}
      />
      {offers.length > 0 && focused && (
        <div className="offer" role="listbox" id={`${id}-offers`}>
          {offers.map((offer, i) => (
            <div
              key={offer.value}
              role="option"
              aria-selected={i === picked}
              onMouseDown={(event) => {
                event.preventDefault();
                commit(offer.value);
              }}
            >
              <b>{offer.value}</b>
              <span className="note">{offer.label}</span>
            </div>
          ))}
        </div>
      )}
      {fault && (
        <span id={`${id}-fault`} className={focused && offers.length === 0 ? 'said' : 'sr-only'}>
          {fault}
        </span>
      )}
    </td>
  );
}

/** Offers that start with what was typed, then those that hold it anywhere. */
function matching(offers: readonly Offer[], typed: string): Offer[] {
  const wanted = typed.trim().toLowerCase();
  if (wanted === '') return [];
  const starts = offers.filter((it) => it.value.toLowerCase().startsWith(wanted));
  const holds = offers.filter((it) => !starts.includes(it) && `${it.value} ${it.label}`.toLowerCase().includes(wanted));
  return [...starts, ...holds].slice(0, MOST_OFFERS);
}
