import { lazy, Suspense, useRef, type KeyboardEvent } from 'react';
import { FindBox } from './FindBox';
import type { ManyRowsBody } from './ManyRowsBody';
import { InTable } from './InTable';
import { asText, summaryOf, type SelectedCell } from './selection';
import { TableBody } from './TableBody';
import { TableFootRow } from './TableFootRow';
import { TableHead } from './TableHead';
import type { TableColumn, TableProps } from './tableTypes';
import { useFound } from './useFound';
import { useRoomBelow } from './useRoomBelow';
import { useTableModel, type TableModel } from './useTableModel';

/** What holds only the rows in view comes with the first list that is too long. */
const ManyRows = lazy(async () => ({ default: (await import('./ManyRowsBody')).ManyRowsBody })) as unknown as typeof ManyRowsBody;

/**
 * The table of every list: sorted by its heads, searched where it is long, its head and foot in sight, cells selected by dragging or by Shift and arrows,
 * copied as a spreadsheet takes them, and added up in the foot.
 */
export function Table<Row extends object>(given: TableProps<Row>) {
  const { label, columns, height, many, dense = false, even = false, className = '' } = given;
  const found = useFound(given);
  const props = {
    ...given,
    rows: found.rows,
    foot: found.foot,
    empty: found.none ? 'Nothing in the list matches.' : given.empty,
  };
  const box = useRef<HTMLDivElement>(null);
  const room = useRoomBelow(box, height === 'window');
  const model = useTableModel(props);
  const lines = selectedLines(model, columns);
  const summary = summaryOf(lines.flat());
  const table = (
    <table
      className={`ledger ${dense ? 'dense' : ''} ${even ? 'even' : ''} ${height === undefined ? 'static-foot' : ''} ${className}`}
      aria-label={label}
      aria-rowcount={many?.count}
    >
      <TableHead model={model} columns={columns} order={props.order} />
      <InTable value={true}>
        {many ? (
          <Suspense fallback={<tbody />}>
            <ManyRows {...props} model={model} many={many} box={box} />
          </Suspense>
        ) : (
          <TableBody {...props} model={model} />
        )}
      </InTable>
      <TableFootRow model={model} columns={columns} foot={props.foot} summary={summary} />
    </table>
  );
  return (
    <>
      {found.searched && <FindBox label={label} text={found.text} onText={found.setText} />}
      <div
        ref={box}
        className={height === undefined ? 'table-box' : 'table-box scroll'}
        style={{ maxHeight: typeof height === 'number' ? height : room }}
        tabIndex={0}
        role="region"
        aria-label={label}
        onKeyDown={(event) => onKey(event, model, lines, props.onPick)}
      >
        {table}
      </div>
    </>
  );
}

const ARROWS = { ArrowUp: 'up', ArrowDown: 'down', ArrowLeft: 'left', ArrowRight: 'right' } as const;

function onKey<Row extends object>(
  event: KeyboardEvent<HTMLDivElement>,
  model: TableModel<Row>,
  lines: readonly (readonly SelectedCell<Row>[])[],
  onPick?: (rows: readonly Row[]) => void,
): void {
  const direction = ARROWS[event.key as keyof typeof ARROWS];
  const box = event.currentTarget;
  if (event.target !== box) {
    // Back from a figure that was opened, the arrows go on from its cell.
    if (!direction || !(event.target as Element).matches('td .fig')) return;
    box.focus();
  }
  if (direction) {
    event.preventDefault();
    if (lines.length === 0) selectFirst(model);
    else if (event.shiftKey) model.extendCellSelection(direction);
    else model.moveCellSelection(direction);
    requestAnimationFrame(() =>
      box.querySelector('td[data-selected]')?.scrollIntoView?.({ block: 'nearest', inline: 'nearest' }),
    );
  }
  if (event.key === 'Enter') box.querySelector<HTMLElement>(`td[data-selected] :is(.fig, a, button)`)?.click();
  if (event.key === ' ' && onPick && lines.length > 0) {
    event.preventDefault();
    onPick(selectedRows(model));
  }
  if (event.key === 'Escape') model.resetCellSelection(true);
  if ((event.ctrlKey || event.metaKey) && event.key === 'c' && lines.length > 0)
    void navigator.clipboard.writeText(asText(lines));
}

/** The selected cells that are worth something, line by line. */
function selectedLines<Row extends object>(model: TableModel<Row>, columns: readonly TableColumn<Row>[]): SelectedCell<Row>[][] {
  if (model.state.cellSelection.length === 0) return [];
  const byKey = new Map(columns.map((it) => [it.key, it]));
  return model
    .getRowModel()
    .rows.map((row) =>
      row.getVisibleCells().flatMap((cell) => {
        const column = byKey.get(cell.column.id);
        return cell.getIsSelected() && column?.value ? [{ column, value: column.value(row.original) }] : [];
      }),
    )
    .filter((cells) => cells.length > 0);
}

function selectFirst<Row extends object>(model: TableModel<Row>): void {
  const [row] = model.getRowModel().rows;
  const [cell] = row?.getVisibleCells() ?? [];
  if (row && cell) model.setFocusedCell(row.id, cell.column.id);
}

function selectedRows<Row extends object>(model: TableModel<Row>): Row[] {
  const { rows } = model.getRowModel();
  return rows.filter((row) => row.getVisibleCells().some((cell) => cell.getIsSelected())).map((row) => row.original);
}
