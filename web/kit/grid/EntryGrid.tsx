import { useRef, type ReactNode } from 'react';
import { present } from '../../../core/errors/known';
import { GridLine } from './GridLine';
import { useGridEdits } from './useGridEdits';
import { useGridFocus } from './useGridFocus';
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

/**
 * A sheet to type in: arrows, Tab and Enter move, typing replaces, a block pasted from a spreadsheet lands in the
 * cells, Alt ↓ fills a column down, Ctrl Z takes the last change back. A faulty cell says what is wrong, there.
 */
export function EntryGrid(props: EntryGridProps) {
  const { label, columns, rows, onRows, faults, foot, height = 380, grows = true, blank = 1, onRow } = props;
  const box = useRef<HTMLDivElement>(null);
  const shown = grows ? [...rows, ...Array.from({ length: Math.max(1, blank - rows.length) }, () => ({}))] : rows;
  const { go, virtual } = useGridFocus(box, shown.length, columns.length);
  const edits = useGridEdits(columns, rows, onRows, grows);
  const items = virtual.getVirtualItems();
  const before = items[0]?.start ?? 0;
  const after = virtual.getTotalSize() - (items.at(-1)?.end ?? 0);
  return (
    <div ref={box} className="scroll sheet" style={{ maxHeight: height }}>
      <table className="grid-entry" role="grid" aria-label={label} aria-rowcount={shown.length}>
        <GridHead columns={columns} grows={grows} />
        <tbody>
          {before > 0 && <tr style={{ height: before }} aria-hidden="true" />}
          {items.map(({ index }) => (
            <GridLine
              key={index}
              columns={columns}
              row={present(shown[index])}
              index={index}
              numbered={grows}
              removable={grows && index < rows.length}
              faults={faults}
              edits={edits}
              onEnter={() => onRow?.(index)}
              onMove={go}
            />
          ))}
          {after > 0 && <tr style={{ height: after }} aria-hidden="true" />}
        </tbody>
        {foot}
      </table>
    </div>
  );
}

function GridHead({ columns, grows }: Pick<EntryGridProps, 'columns'> & { grows: boolean }) {
  return (
    <thead>
      <tr>
        {grows && (
          <th className="w-[34px]">
            <span className="sr-only">Row</span>
          </th>
        )}
        {columns.map((column) => (
          <th key={column.key} className={column.numeric ? 'text-right' : 'text-left'} style={{ width: column.width }}>
            {column.title}
          </th>
        ))}
        {grows && (
          <th className="w-[30px]">
            <span className="sr-only">Remove</span>
          </th>
        )}
      </tr>
    </thead>
  );
}
