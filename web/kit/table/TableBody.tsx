import type { MouseEvent } from 'react';
import { known } from '../../../core/errors/known';
import { classOf } from './TableHead';
import type { TableProps } from './tableTypes';
import type { TableModel } from './useTableModel';

/** The rows of a table. A cell is selected by pressing it, more of them by dragging. */
export function TableBody<Row extends object>({
  model,
  columns,
  empty,
  isCurrent,
}: TableProps<Row> & { model: TableModel<Row> }) {
  const byKey = new Map(columns.map((it) => [it.key, it]));
  const { rows } = model.getRowModel();
  return (
    <tbody>
      {rows.map((row) => (
        <tr key={row.id} aria-current={isCurrent?.(row.original) || undefined}>
          {row.getVisibleCells().map((cell) => {
            const column = known(byKey, cell.column.id);
            const value = column.cut ? column.value?.(row.original) : undefined;
            return (
              <td
                key={cell.id}
                className={classOf(column)}
                title={value === undefined || value === null ? undefined : String(value)}
                data-selected={cell.getIsSelected() || undefined}
                onMouseDown={(event) => onStart(event, cell.getSelectionStartHandler())}
                onMouseEnter={cell.getSelectionExtendHandler()}
              >
                {column.cell(row.original)}
              </td>
            );
          })}
        </tr>
      ))}
      {rows.length === 0 && empty !== undefined && (
        <tr>
          <td colSpan={columns.length} className="note">
            {empty}
          </td>
        </tr>
      )}
    </tbody>
  );
}

/** A link or a button in a cell stays what it is. */
function onStart(event: MouseEvent, start: (event: unknown) => void): void {
  if ((event.target as Element).closest('a, button, input, select')) return;
  if (event.detail > 0 && event.shiftKey) event.preventDefault();
  start(event);
}
