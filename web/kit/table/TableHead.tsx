import { SortHead } from './SortHead';
import { known } from '../../../core/errors/known';
import type { TableColumn, TableProps } from './tableTypes';
import type { TableModel } from './useTableModel';

/** The heads of a table; one that can be sorted by is pressed for it: up, down, as given. */
export function TableHead<Row extends object>({
  model,
  columns,
  order,
}: {
  model: TableModel<Row>;
  columns: readonly TableColumn<Row>[];
  order?: TableProps<Row>['order'];
}) {
  const byKey = new Map(columns.map((it) => [it.key, it]));
  return (
    <thead>
      <tr>
        {model.getHeaderGroups()[0]?.headers.map((header) => {
          const column = known(byKey, header.column.id);
          const sorted = order ? order.key === column.key && (order.descending ? 'desc' : 'asc') : header.column.getIsSorted();
          const sort = () => (order ? order.onOrder(column.key) : header.column.toggleSorting());
          return (
            <SortHead
              key={header.id}
              className={`${classOf(column)} ${column.wraps ? 'wraps' : ''}`}
              width={column.width}
              way={sorted ? (sorted === 'desc' ? 'down' : 'up') : null}
              onSort={header.column.getCanSort() ? sort : undefined}
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
  return [number || right ? 'num' : '', stays ? 'stays' : '', cut === true ? 'truncate' : ''].filter(Boolean).join(' ');
}
