import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useLayoutEffect, useRef, type RefObject } from 'react';

const ROW_HEIGHT = 28;

/** Which rows are drawn, and moving from cell to cell: to one that is not drawn yet, by scrolling to it first. */
export function useGridFocus(
  box: RefObject<HTMLDivElement | null>,
  { rows: rowCount, columns: columnCount }: { rows: number; columns: number },
  headings?: ReadonlyMap<number, readonly unknown[]>,
) {
  const wanted = useRef<{ row: number; column: number } | null>(null);
  const virtual = useVirtualizer({
    count: rowCount,
    getScrollElement: () => box.current,
    estimateSize: (row) => ROW_HEIGHT * (1 + (headings?.get(row)?.length ?? 0)),
    overscan: 8,
    initialRect: { width: 1000, height: 600 },
  });
  // Only where headings stand elsewhere, whatever they say: to measure draws every row again.
  const layout = [...(headings ?? [])].map(([row, of]) => `${row}:${of.length}`).join(' ');
  useLayoutEffect(() => virtual.measure(), [virtual, layout]);
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
  const go = (row: number, column: number) => {
    const within = (value: number, count: number) => Math.max(0, Math.min(count - 1, value));
    wanted.current = { row: within(row, rowCount), column: within(column, columnCount) };
    virtual.scrollToIndex(wanted.current.row);
    focusWanted();
  };
  return { go, virtual };
}
