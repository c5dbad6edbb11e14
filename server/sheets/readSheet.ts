import { readFileSync } from 'node:fs';
import { parse } from 'csv-parse/sync';
import { SHEET_COLUMNS, SHEET_ROWS, unreadable } from './limits';
import { workbookRows } from './workbook';

/** Bytes of one row of a CSV file. */
const LONGEST_ROW = 200_000;

/**
 * A spreadsheet or CSV file as rows of text, to be matched with our columns: the first sheet of a workbook, or a CSV with
 * commas, semicolons or tabs. Numbers come as plain decimals, dates as 2031-04-30. Reading stops at the limits. Throws
 * bad-input where it is neither.
 */
export async function readSheet(path: string): Promise<string[][]> {
  const content = readFileSync(path);
  const rows = content.subarray(0, 2).toString('latin1') === 'PK' ? await workbookRows(content) : csvRows(content);
  const filled = rows.map((row) => row.slice(0, SHEET_COLUMNS)).filter((row) => row.some((cell) => cell !== ''));
  if (filled.length === 0) throw unreadable('there is nothing in it');
  if (filled.length > SHEET_ROWS) throw unreadable(`it has more than ${SHEET_ROWS} rows`);
  return filled;
}

function csvRows(content: Buffer): string[][] {
  let text: string;
  try {
    text = new TextDecoder('utf-8', { fatal: true }).decode(content);
  } catch {
    throw unreadable('it is not UTF-8; save it as UTF-8 or XLSX');
  }
  const head = text.split('\n', 1)[0] ?? '';
  const count = (delimiter: string) => head.split(delimiter).length;
  const delimiter = [',', ';', '\t'].reduce((best, it) => (count(it) > count(best) ? it : best));
  try {
    return parse(text, {
      delimiter,
      bom: true,
      trim: true,
      to: SHEET_ROWS + 1,
      max_record_size: LONGEST_ROW,
      relax_column_count: true,
      relax_quotes: true,
      skip_empty_lines: true,
    }) as string[][];
  } catch (error) {
    const tooLong = (error as { code?: string }).code === 'CSV_MAX_RECORD_SIZE';
    throw unreadable(
      tooLong ? `it has a row of more than ${LONGEST_ROW.toLocaleString('en')} characters` : 'its quotes do not close',
    );
  }
}
