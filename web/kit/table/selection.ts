import type { TableColumn } from './tableTypes';

/** One selected cell: what its column is worth on its row. */
export interface SelectedCell<Row> {
  column: TableColumn<Row>;
  value: string | number | null;
}

/** Selected cells as a spreadsheet takes them: rows by line, cells by tab, numbers as they are written. */
export function asText<Row>(lines: readonly (readonly SelectedCell<Row>[])[]): string {
  return lines.map((cells) => cells.map(cellText).join('\t')).join('\n');
}

/** What a cell is worth, as it is written. */
export function cellText<Row>({ column, value }: SelectedCell<Row>): string {
  if (value === null) return '';
  return typeof value === 'number' && column.number ? column.number(value) : String(value);
}

/** Sum, count and average of the numbers among the selected cells, written as their column writes them; null where there are fewer than two. */
export function summaryOf<Row>(cells: readonly SelectedCell<Row>[]): { count: number; sum: string; average: string } | null {
  const numbers = cells.flatMap(({ column, value }) => (typeof value === 'number' && column.number ? [{ column, value }] : []));
  const write = numbers[0]?.column.number;
  // Money and hours do not add up.
  if (numbers.length < 2 || !write || numbers.some((it) => it.column.number !== write)) return null;
  const sum = numbers.reduce((total, it) => total + it.value, 0);
  return { count: numbers.length, sum: write(sum), average: write(Math.round(sum / numbers.length)) };
}
