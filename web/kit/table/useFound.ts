import { useMemo, useState } from 'react';
import { displayDate } from '../../../core/calendar/displayDate';
import { cellText } from './selection';
import type { TableColumn, TableFoot, TableProps } from './tableTypes';

/** A list that is shorter is read at a glance: it has no box to find rows with. */
const SHORT = 8;
const ISO_DAY = /^\d{4}-\d{2}-\d{2}$/;

/** The rows in which every word of a text is found, as the columns write them; the foot then is of these rows alone. */
export function useFound<Row extends object>({ columns, rows, foot, many, order, unsearched }: TableProps<Row>) {
  const [text, setText] = useState('');
  const searched = !unsearched && !many && !order && (rows.length > SHORT || text !== '');
  const found = useMemo(() => foundRows(rows, columns, text), [rows, columns, text]);
  const narrowed = searched && found.length < rows.length;
  return {
    text,
    setText,
    searched,
    rows: narrowed ? found : rows,
    foot: narrowed && foot ? footOf(found, rows.length, columns, foot) : foot,
    none: narrowed && found.length === 0,
  };
}

function foundRows<Row>(rows: readonly Row[], columns: readonly TableColumn<Row>[], text: string): readonly Row[] {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  if (words.length === 0) return rows;
  return rows.filter((row) => {
    const written = columns
      .map((column) => writtenOf(column, row))
      .join('\n')
      .toLowerCase();
    return words.every((word) => written.includes(word));
  });
}

function writtenOf<Row>(column: TableColumn<Row>, row: Row): string {
  const written = cellText({ column, value: column.value?.(row) ?? null });
  return ISO_DAY.test(written) ? displayDate(written) : written;
}

/** What the found rows come to, under the columns that the whole list adds up. */
function footOf<Row>(
  found: readonly Row[],
  of: number,
  columns: readonly TableColumn<Row>[],
  foot: TableFoot | readonly TableFoot[],
): TableFoot {
  const keys = new Set([foot].flat().flatMap(({ cells }) => Object.keys(cells).filter((key) => cells[key] !== '')));
  const sums = columns.flatMap(({ key, adds, value, number }) =>
    keys.has(key) && adds && value && number
      ? [[key, number(found.reduce((sum, row) => sum + Number(value(row) ?? 0), 0))] as const]
      : [],
  );
  return { label: `${found.length} of ${of} found`, cells: Object.fromEntries(sums) };
}
