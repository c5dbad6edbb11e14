import type { BookFileOf } from '../bookFile';
import type { FaultList } from '../../../core/errors/bookFaults';
import { readCell } from '../cells';
import type { Column, Columns, ReadRow } from '../columns';
import { csvBatches, NotUtf8, type CsvRecord } from './csvFile';

/** How the rows of one file are to be read. */
export interface Reading {
  path: string;
  faults: FaultList;
  currencyDigits: number | null;
}

/** What the file as a whole lacks: rows that lean on a column that is not there are not to be blamed for it. */
export interface FileShape {
  /** False where the file is not UTF-8, so that what it holds is unknown. */
  readable: boolean;
  missingColumns: string[];
}

/**
 * Streams the checked rows of a book file, in batches. Each faulty cell is reported and comes as undefined;
 * a ragged or ill-quoted record is reported once, and still offers its key where that can be read.
 */
export async function* bookRows<C extends Columns>(
  file: BookFileOf<C>,
  reading: Reading,
  shape: FileShape,
): AsyncGenerator<ReadRow<C>[]> {
  let toRow: ((record: CsvRecord) => ReadRow<C> | null) | null = null;
  const first = reading.faults.faults.length;
  try {
    for await (const records of csvBatches(reading.path)) {
      const rows: ReadRow<C>[] = [];
      for (const record of records) {
        if (!toRow) {
          toRow = readHeader(file, record, reading, shape);
          continue;
        }
        const row = toRow(record);
        if (row) rows.push(row);
      }
      if (rows.length > 0) yield rows;
    }
    if (!toRow) readHeader(file, { row: 1, cells: [] }, reading, shape);
  } catch (error) {
    if (!(error instanceof NotUtf8)) throw error;
    reading.faults.faults.splice(first);
    reading.faults.add(file.name, 1, '', 'the file is not UTF-8; save it as UTF-8 and try again');
    shape.readable = false;
  }
}

type RowReader<C extends Columns> = (record: CsvRecord) => ReadRow<C> | null;

/** Checks the header and gives back the reader of the records below it. */
function readHeader<C extends Columns>(file: BookFileOf<C>, record: CsvRecord, reading: Reading, shape: FileShape): RowReader<C> {
  const { columns } = file;
  const header = record.cells;
  if (!Array.isArray(header)) {
    reading.faults.add(file.name, 1, '', 'the header is ill-quoted');
    shape.missingColumns.push(...Object.keys(columns));
    return () => null;
  }
  const seen = new Set<string>();
  header.forEach((name) => {
    if (!Object.hasOwn(columns, name))
      reading.faults.add(file.name, 1, name, `unknown column; the file may have ${Object.keys(columns).join(', ')}`);
    else if (seen.has(name)) reading.faults.add(file.name, 1, name, 'the column appears twice');
    seen.add(name);
  });
  for (const [name, column] of Object.entries(columns)) {
    if (seen.has(name)) continue;
    shape.missingColumns.push(name);
    if (column.required) reading.faults.add(file.name, 1, name, 'missing required column');
  }
  return rowReader(file, header, reading);
}

function rowReader<C extends Columns>(
  file: BookFileOf<C>,
  header: readonly string[],
  { faults, currencyDigits }: Reading,
): RowReader<C> {
  const known = Object.entries(file.columns).map(([name, column]) => ({ name, column, at: header.indexOf(name) }));
  const keys: readonly string[] = file.key;
  return ({ row, cells }) => {
    const whole = Array.isArray(cells) && cells.length === header.length;
    const texts = Array.isArray(cells) ? cells : cells.readable;
    if (!Array.isArray(cells))
      faults.add(file.name, row, '', 'ill-quoted record: a quote inside a cell is doubled, and the cell stands in quotes');
    else if (!whole) faults.add(file.name, row, '', `ragged record: ${cells.length} cells where the header has ${header.length}`);
    const read: Record<string, unknown> = { row };
    for (const { name, column, at } of known) {
      const text = at < 0 ? '' : texts[at];
      // Of a record that is not whole only the key is taken, so that what refers to it is not blamed as well.
      if (text === undefined || (!whole && !keys.includes(name))) read[name] = undefined;
      else if (text === '' && (at < 0 || !column.required)) read[name] = column.required ? undefined : null;
      else read[name] = cellValue(name, column, text, row, whole);
    }
    return read as unknown as ReadRow<C>;
  };

  function cellValue(name: string, column: Column<unknown>, text: string, row: number, tell: boolean): unknown {
    const cell = text === '' ? { fault: 'missing required cell' } : readCell(column, text, currencyDigits);
    if ('value' in cell) return cell.value;
    if (tell) faults.add(file.name, row, name, cell.fault);
    return undefined;
  }
}
