import { known } from '../../../core/errors/known';
import type { TableColumn } from './tableTypes';
import type { TableModel } from './useTableModel';

/** The heads of a table; one that can be sorted by is pressed for it: up, down, as given. */
export function TableHead<Row extends object>({
  model,
  columns,
}: {
  model: TableModel<Row>;
  columns: readonly TableColumn<Row>[];
}) {
  const byKey = new Map(columns.map((it) => [it.key, it]));
  return (
    <thead>
      <tr>
        {model.getHeaderGroups()[0]?.headers.map((header) => {
          const column = known(byKey, header.column.id);
          const sorted = header.column.getIsSorted();
          return (
            <th
              key={header.id}
              className={classOf(column)}
              style={column.width === undefined ? undefined : { width: column.width }}
              aria-sort={sorted ? (sorted === 'desc' ? 'descending' : 'ascending') : undefined}
            >
              {header.column.getCanSort() ? (
                <button type="button" className="fig" title="Sort" onClick={header.column.getToggleSortingHandler()}>
                  {column.title}
                  {sorted ? (sorted === 'desc' ? ' ↓' : ' ↑') : ''}
                </button>
              ) : (
                column.title
              )}
            </th>
          );
        })}
      </tr>
    </thead>
  );
}

export function classOf<Row>({ number, right, stays, cut }: TableColumn<Row>): string {
  return [number || right ? 'num' : '', stays ? 'stays' : '', cut ? 'truncate' : ''].filter(Boolean).join(' ');
}
