import { SortHead } from './SortHead';
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
            <SortHead
              key={header.id}
              className={classOf(column)}
              width={column.width}
              way={sorted ? (sorted === 'desc' ? 'down' : 'up') : null}
              onSort={header.column.getCanSort() ? () => header.column.toggleSorting() : undefined}
            >
              {column.title}
            </SortHead>
          );
        })}
      </tr>
    </thead>
  );
}

export function classOf<Row>({ number, right, stays, cut }: TableColumn<Row>): string {
  return [number || right ? 'num' : '', stays ? 'stays' : '', cut ? 'truncate' : ''].filter(Boolean).join(' ');
}
