import { parse } from 'csv-parse/sync';
import readXlsxFile from 'read-excel-file/node';
import { LedrinError } from '../../../core/errors/ledrinError';

/** The most a sheet to be matched may hold. */
export const SHEET_ROWS = 6000;
const SHEET_COLUMNS = 60;

/**
 * A spreadsheet or CSV file as rows of text, to be matched with our columns: the first sheet of a workbook, or a CSV with
 * commas, semicolons or tabs. Numbers come as plain decimals, days as 2031-04-30. Throws bad-input where it is neither.
 */
export async function readSheet(content: Buffer): Promise<string[][]> {
  const rows = content.subarray(0, 2).toString('latin1') === 'PK' ? await workbookRows(content) : csvRows(content);
  const filled = rows.map((row) => row.slice(0, SHEET_COLUMNS)).filter((row) => row.some((cell) => cell !== ''));
  if (filled.length === 0) throw unreadable('there is nothing in it');
  if (filled.length > SHEET_ROWS) throw unreadable(`it has more than ${SHEET_ROWS} rows`);
  return filled;
}

async function workbookRows(content: Buffer): Promise<string[][]> {
  try {
    const [first] = await readXlsxFile(content);
    return (first?.data ?? []).map((row) => row.map(cellText));
  } catch {
    throw unreadable('it is no workbook that can be read; save it as XLSX or CSV');
  }
}

function cellText(cell: unknown): string {
  if (cell === null || cell === undefined) return '';
  if (cell instanceof Date) return cell.toISOString().slice(0, 10);
  // What a spreadsheet shows as 0.1 + 0.2 is no 0.30000000000000004 to the person who typed it.
  if (typeof cell === 'number') return String(Number(cell.toPrecision(15)));
  return String(cell as string | boolean).trim();
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
      relax_column_count: true,
      relax_quotes: true,
      skip_empty_lines: true,
    }) as string[][];
  } catch {
    throw unreadable('its quotes do not close');
  }
}

function unreadable(why: string): LedrinError {
  return new LedrinError('bad-input', `file: ${why}`, [{ field: 'file', message: why }]);
}
