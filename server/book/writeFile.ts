import { createWriteStream, type WriteStream } from 'node:fs';
import { once } from 'node:events';
import { join } from 'node:path';
import { formatCents } from '../../core/money/cents';
import { formatPercentShortest, formatQuantity } from '../../core/money/rate';
import { formatUnitCost } from '../../core/prices/unitCost';
import { loadDigits } from '../company/company';
import type { Reader } from '../db/sql';
import { csvText } from '../reportFiles/reportCsv';
import type { BookFile } from '../bookFormat/bookFile';
import type { Column } from '../bookFormat/columns';

const PAGE = 5000;

type BookRecord = Record<string, string | number | null> & { id: number };

/** One file of the book as text, its header always there. */
export async function fileText(sql: Reader, file: BookFile): Promise<string> {
  const digits = await loadDigits(sql);
  let text = csvText([Object.keys(file.columns)]);
  for await (const part of recordsOf(sql, file, digits)) text += part;
  return text;
}

/** Writes one file of the book into `folder`; one with nothing in it is left out. */
export async function writeFile(sql: Reader, folder: string, file: BookFile, digits: number): Promise<void> {
  let out: WriteStream | null = null;
  for await (const part of recordsOf(sql, file, digits)) {
    if (!out) {
      out = createWriteStream(join(folder, `${file.name}.csv`));
      out.write(csvText([Object.keys(file.columns)]));
    }
    if (!out.write(part)) await once(out, 'drain');
  }
  if (!out) return;
  out.end();
  await once(out, 'finish');
}

/** The records of a file without its header, a page at a time. */
async function* recordsOf(sql: Reader, file: BookFile, digits: number): AsyncGenerator<string> {
  const columns = Object.entries(file.columns);
  let after: number | null = null;
  do {
    const read: BookRecord[] = await pageAfter(sql, file, after);
    const page = read.length < PAGE ? read : wholeIds(read);
    if (page.length > 0)
      yield csvText(page.map((row) => columns.map(([name, column]) => cellOf(column, row[name] ?? null, row, digits))));
    after = read.length < PAGE ? null : (page.at(-1)?.id ?? null);
  } while (after !== null);
}

/** A full page may end between two rows of one id: they come with the next page. */
function wholeIds(read: readonly BookRecord[]): readonly BookRecord[] {
  const last = read.at(-1)?.id;
  const whole = read.filter(({ id }) => id !== last);
  if (whole.length === 0) throw new Error(`More than ${PAGE} rows of one id`);
  return whole;
}

/** A page of rows; `id` is then their place, where they go out in another order than they were entered in. */
async function pageAfter(sql: Reader, { query, order }: BookFile, id: number | null): Promise<BookRecord[]> {
  const [rows, place] =
    order === undefined ? [query, 'id'] : [`SELECT *, row_number() OVER (ORDER BY ${order}) AS place FROM (${query})`, 'place'];
  const page = await sql.anyRows(
    `SELECT * FROM (${rows}) ${id === null ? '' : `WHERE ${place} > ${Number(id)}`} ORDER BY ${place} LIMIT ${PAGE}`,
  );
  return page.map((row) => ({ ...row, id: Number(row[place]) })) as BookRecord[];
}

function cellOf(column: Column<unknown>, value: string | number | null, row: BookRecord, digits: number): string {
  if (value === null) return '';
  switch (column.kind) {
    case 'amount':
      return formatCents(Number(value), digits);
    case 'percent':
    case 'markup':
      return formatPercentShortest(Number(value));
    case 'unit-cost':
      return formatUnitCost(Number(value), digits);
    case 'needed':
    case 'quantity':
      return formatQuantity(Number(value));
    case 'boolean':
      return value === 1 ? 'yes' : '';
    case 'forecast-value':
      return forecastValue(String(row.method), Number(value), digits);
    default:
      return String(value);
  }
}

function forecastValue(method: string, value: number, digits: number): string {
  if (method === 'to-complete') return formatCents(value, digits);
  return method === 'percent' ? formatPercentShortest(value) : formatQuantity(value);
}
