import { memo } from 'react';
import { RemoveButton } from '../RemoveButton';
import { Cell, selecting, type CellKeys } from './GridCell';
import type { GridColumn, GridRow } from './gridTypes';
import type { GridEdits } from './useGridEdits';
import type { Selection } from './useSelection';

interface LineProps {
  columns: readonly GridColumn[];
  row: GridRow;
  index: number;
  numbered: boolean;
  removable: boolean;
  faults: ReadonlyMap<string, string>;
  edits: GridEdits;
  selection: Selection;
  /** What the keys of the grid do in a cell of this row. */
  keysAt: (row: number, column: number) => CellKeys;
  onEnter: (row: number) => void;
  /** Moves to the cell of a row and a column. */
  onMove: (row: number, column: number) => void;
}

/** One row of a grid: its number, its cells, typed or worked out, and its way out. Drawn again only where what it shows is another. */
export const GridLine = memo(function GridLine({
  columns,
  row,
  index,
  numbered,
  removable,
  faults,
  edits,
  selection,
  keysAt,
  onEnter,
  onMove,
}: LineProps) {
  return (
    <tr>
      {numbered && <td className="head">{index + 1}</td>}
      {columns.map((column, at) =>
        column.show ? (
          <td
            key={column.key}
            className={`worked ${column.numeric ? 'figure' : ''}`}
            {...selecting(selection, { row: index, at })}
          >
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
            onEnter={() => onEnter(index)}
            onText={(text) => edits.setCell(index, column.key, text)}
            onMove={(down, across) => onMove(index + down, at + across)}
            onPaste={(event) => edits.paste(event, index, at)}
            onFill={() => edits.fillDown(index, column.key)}
            keys={keysAt(index, at)}
            selection={selection}
          />
        ),
      )}
      {numbered && (
        <td className="worked last">
          {removable && (
            <RemoveButton
              tabIndex={-1}
              className="close"
              label={`Remove row ${index + 1}`}
              onRemove={() => edits.removeRow(index)}
            />
          )}
        </td>
      )}
    </tr>
  );
}, showsTheSame);

/** What it does is always what the grid does at that moment (useLatestActs): only what it shows is compared. */
function showsTheSame(before: LineProps, now: LineProps): boolean {
  const faultsOf = ({ faults, index }: LineProps) => now.columns.map((it) => faults.get(`${index}.${it.key}`) ?? '').join('\n');
  return (
    before.columns === now.columns &&
    before.row === now.row &&
    before.index === now.index &&
    before.numbered === now.numbered &&
    before.removable === now.removable &&
    before.selection === now.selection &&
    (before.faults === now.faults || faultsOf(before) === faultsOf(now))
  );
}
