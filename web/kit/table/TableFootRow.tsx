import type { TableColumn, TableFoot } from './tableTypes';
import { classOf } from './TableHead';
import type { TableModel } from './useTableModel';

/** The foot of a table: its totals, and what the selected cells come to. */
export function TableFootRow<Row extends object>({
  model,
  columns,
  foot,
  summary,
}: {
  model: TableModel<Row>;
  columns: readonly TableColumn<Row>[];
  foot: TableFoot | readonly TableFoot[] | undefined;
  summary: { count: number; sum: string; average: string } | null;
}) {
  const lines = foot === undefined ? [] : [foot].flat();
  if (lines.length === 0 && !summary) return null;
  return (
    <tfoot>
      {lines.map((line, i) => (
        <tr key={i}>
          <SumCells line={line} model={model} columns={columns} />
        </tr>
      ))}
      {summary && (
        <tr className="selection">
          <td colSpan={model.getVisibleLeafColumns().length} aria-live="polite">
            {summary.count} selected: sum <b className="figure">{summary.sum}</b>, average{' '}
            <span className="figure">{summary.average}</span>
          </td>
        </tr>
      )}
    </tfoot>
  );
}

/** A line of sums: what it says, under the columns before its first figure, and the figures. */
export function SumCells<Row extends object>({
  line,
  model,
  columns,
}: {
  line: TableFoot;
  model: TableModel<Row>;
  columns: readonly TableColumn<Row>[];
}) {
  const shown = new Set(model.getVisibleLeafColumns().map((it) => it.id));
  const visible = columns.filter(({ key }) => shown.has(key));
  const first = visible.findIndex(({ key }) => Object.hasOwn(line.cells, key));
  const span = first < 0 ? visible.length : first;
  return (
    <>
      {span > 0 && (
        <td colSpan={span} className={visible[0]?.stays ? 'stays' : ''}>
          {line.label}
        </td>
      )}
      {visible.slice(span).map((column) => (
        <td key={column.key} className={classOf(column)}>
          {line.cells[column.key]}
        </td>
      ))}
    </>
  );
}
