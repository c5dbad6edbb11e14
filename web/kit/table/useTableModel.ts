import {
  cellSelectionFeature,
  columnVisibilityFeature,
  createSortedRowModel,
  rowSortingFeature,
  tableFeatures,
  useTable,
  type ColumnDef,
} from '@tanstack/react-table';
import { useMemo } from 'react';
import { compareValues } from './compareValues';
import type { TableColumn, TableProps } from './tableTypes';

const FEATURES = tableFeatures({
  rowSortingFeature,
  sortedRowModel: createSortedRowModel(),
  columnVisibilityFeature,
  cellSelectionFeature,
});
export type Features = typeof FEATURES;

/** A table's rows in their order, its columns in sight, and the cells that are selected. */
export function useTableModel<Row extends object>({ columns, rows, rowKey, hidden, sorted }: TableProps<Row>) {
  const defs = useMemo(() => columns.map((it) => definitionOf(it)), [columns]);
  const data = useMemo(() => [...rows], [rows]);
  return useTable<Features, Row>({
    features: FEATURES,
    columns: defs,
    data,
    getRowId: rowKey,
    enableSortingRemoval: true,
    initialState: { sorting: sorted ? [{ id: sorted.key, desc: sorted.descending }] : [] },
    state: { columnVisibility: Object.fromEntries([...(hidden ?? [])].map((key) => [key, false])) },
  });
}

export type TableModel<Row extends object> = ReturnType<typeof useTableModel<Row>>;

function definitionOf<Row extends object>(column: TableColumn<Row>): ColumnDef<Features, Row> {
  const { key, value } = column;
  return {
    id: key,
    accessorFn: (row) => value?.(row) ?? null,
    enableSorting: value !== undefined && !column.unsorted,
    sortFn: (a, b) => compareValues(a.getValue(key), b.getValue(key)),
  };
}
