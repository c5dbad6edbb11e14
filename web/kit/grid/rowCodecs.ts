import type { Codecs, Values } from '../form/codecSchema';
import { readAt, tidyOf, type Codec, type Faults } from '../typed/codecs';
import { isFilled } from './filledRow';
import type { GridColumn, GridRow } from './gridTypes';

/** One row of a grid as it was read, and where it stands. */
export interface ReadRow<Columns extends Codecs> {
  row: number;
  value: Values<Columns>;
  /** Notes what is wrong with a cell that can be read by itself. */
  fault: (column: keyof Columns & string, message: string) => void;
}

/**
 * Reads the rows of a grid by the codecs of its columns; blank ones are passed over. Faults are noted by `row.column`, after `under`:
 * `price.` for the grid of prices among others.
 */
export function readRows<Columns extends Codecs>(
  codecs: Columns,
  rows: readonly GridRow[],
  faults: Faults,
  { under = '', filled = isFilled }: { under?: string; filled?: (row: GridRow) => boolean } = {},
): ReadRow<Columns>[] {
  return rows.flatMap((typed, row) => (filled(typed) ? [readRow(codecs, typed, row, faults, under)] : []));
}

function readRow<Columns extends Codecs>(
  codecs: Columns,
  typed: GridRow,
  row: number,
  faults: Faults,
  under: string,
): ReadRow<Columns> {
  const at = `${under}${row}.`;
  return {
    row,
    value: readCells(codecs, typed, faults, at),
    fault: (column, message) => void faults.set(at + column, message),
  };
}

/** What is typed in cells, or in fields, by their codecs; faults by their names, after `under`. */
export function readCells<Columns extends Codecs>(
  codecs: Columns,
  typed: Readonly<Record<string, string | undefined>>,
  faults: Faults,
  under = '',
): Values<Columns> {
  const read = Object.entries(codecs).map(([key, codec]) => [key, readAt(faults, under + key, typed[key], codec)] as const);
  return Object.fromEntries(read) as Values<Columns>;
}

/** Values as the row of a grid shows them. */
export function rowOf<Columns extends Codecs>(codecs: Columns, values: Readonly<Values<Columns>>): GridRow {
  return Object.fromEntries(Object.entries(codecs).map(([key, codec]) => [key, codec.format(values[key])]));
}

/** How a column is typed in that is read by this codec: figures to the right, tidied when left, a calendar for days. */
export function typedBy(codec: Codec<unknown>): Pick<GridColumn, 'codec' | 'numeric' | 'tidy' | 'month'> {
  return {
    codec,
    numeric: codec.look === 'figure',
    tidy: tidyOf(codec),
    ...(codec.month !== undefined && { month: codec.month }),
  };
}

/** The columns of a grid, each typed in as its codec says; those without one are worked out. */
export function columnsOf(codecs: Codecs, columns: readonly GridColumn[]): GridColumn[] {
  return columns.map((column) => {
    const codec = codecs[column.key];
    return codec ? { ...typedBy(codec), ...column } : column;
  });
}

/** Notes a fault at each row whose `column` says the same as a row before it. */
export function noteRepeated<Columns extends Codecs>(
  rows: readonly ReadRow<Columns>[],
  column: keyof Columns & string,
  message: (value: string) => string,
): void {
  const seen = new Set<unknown>();
  for (const { value, fault } of rows) {
    if (value[column] !== '' && seen.has(value[column])) fault(column, message(String(value[column])));
    seen.add(value[column]);
  }
}
