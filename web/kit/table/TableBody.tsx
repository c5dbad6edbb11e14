import { Fragment, type MouseEvent } from 'react';
import { known } from '../../../core/errors/known';
import { SumCells } from './TableFootRow';
import { classOf } from './TableHead';
import type { TableColumn, TableProps } from './tableTypes';
import type { TableModel } from './useTableModel';

export type BodyProps<Row extends object> = TableProps<Row> & { model: TableModel<Row> };

/** The rows of a table, in their groups where it has any. */
export function TableBody<Row extends object>(props: BodyProps<Row>) {
  const { model, columns, empty, groups } = props;
  const { rows } = model.getRowModel();
  return (
    <tbody>
      {groups
        ? groupsOf(props.rows, rows, groups.of).map(([name, own]) => (
            <Fragment key={name}>
              <GroupHead {...props} groups={groups} name={name} rows={own.map((it) => it.original)} />
              {!groups.folded.has(name) && own.map((row) => <BodyRow key={row.id} {...props} row={row} />)}
            </Fragment>
          ))
        : rows.map((row) => <BodyRow key={row.id} {...props} row={row} />)}
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

type ModelRow<Row extends object> = ReturnType<TableModel<Row>['getRow']>;

/** One row. A cell is selected by pressing it, more of them by dragging. */
export function BodyRow<Row extends object>({ columns, row, isCurrent, rowClass }: BodyProps<Row> & { row: ModelRow<Row> }) {
  return (
    <tr aria-current={isCurrent?.(row.original) || undefined} className={rowClass?.(row.original)}>
      {row.getVisibleCells().map((cell) => {
        const column = columnOf(columns, cell.column.id);
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
            {column.cut === 'two-lines' ? (
              <span className="two-lines">{column.cell(row.original)}</span>
            ) : (
              column.cell(row.original)
            )}
          </td>
        );
      })}
    </tr>
  );
}

function GroupHead<Row extends object>({
  model,
  columns,
  groups,
  name,
  rows,
}: BodyProps<Row> & { groups: NonNullable<TableProps<Row>['groups']>; name: string; rows: readonly Row[] }) {
  const open = !groups.folded.has(name);
  const label = (
    <button type="button" className="fig" aria-expanded={open} onClick={() => groups.onFold(name)}>
      <span aria-hidden="true" className="inline-block w-4">
        {open ? '–' : '+'}
      </span>
      {name} <span className="note font-normal">{rows.length}</span>
    </button>
  );
  return (
    <tr className="fold">
      <SumCells line={{ label, cells: groups.sums(rows) }} model={model} columns={columns} />
    </tr>
  );
}

/** Sorted rows in groups, which stand in the order they were given. */
function groupsOf<Row extends object>(given: readonly Row[], sorted: readonly ModelRow<Row>[], of: (row: Row) => string) {
  const groups = new Map(given.map((row): [string, ModelRow<Row>[]] => [of(row), []]));
  for (const row of sorted) groups.get(of(row.original))?.push(row);
  return [...groups];
}

const byKey = new WeakMap<object, ReadonlyMap<string, unknown>>();

/** The column of this key; looked up in a map, for there are as many cells as rows by columns. */
function columnOf<Row>(columns: readonly TableColumn<Row>[], key: string): TableColumn<Row> {
  const there = byKey.get(columns) ?? new Map(columns.map((it) => [it.key, it]));
  byKey.set(columns, there);
  return known(there, key) as TableColumn<Row>;
}

/** A link or a button in a cell stays what it is. */
function onStart(event: MouseEvent, start: (event: unknown) => void): void {
  if ((event.target as Element).closest('a, button, input, select')) return;
  if (event.detail > 0 && event.shiftKey) event.preventDefault();
  start(event);
}
