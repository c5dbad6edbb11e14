import { LedrinError } from '../../core/errors/ledrinError';
import { elements, openParts, type Parts } from './parts';
import { SHARED_TEXTS, SHEET_COLUMNS, SHEET_ROWS, unreadable } from './limits';

/** The rows of a workbook's first sheet, read as a stream: what lies beyond the limits is never in memory. */
export async function workbookRows(content: Buffer): Promise<string[][]> {
  try {
    const parts = await openParts(content);
    const { path, epoch1904 } = await firstSheet(parts);
    const cells: CellReading = { strings: await sharedStrings(parts), dates: await dateStyles(parts), epoch1904 };
    return await sheetRows(parts, path, cells);
  } catch (error) {
    if (error instanceof LedrinError) throw error;
    throw unreadable('it is not a workbook that can be read; save it as XLSX or CSV');
  }
}

/** What the text of a cell is worked from: the strings cells share, which styles are dates, and the day dates count from. */
interface CellReading {
  strings: readonly string[];
  dates: readonly boolean[];
  epoch1904: boolean;
}

async function firstSheet(parts: Parts): Promise<{ path: string; epoch1904: boolean }> {
  let id = '';
  let epoch1904 = false;
  await elements(parts, 'xl/workbook.xml', {
    open: (name, at) => {
      if (name === 'sheet' && id === '') id = at['r:id'] ?? '';
      if (name === 'workbookPr') epoch1904 = ['1', 'true'].includes(at.date1904 ?? '');
    },
  });
  let target = '';
  await elements(parts, 'xl/_rels/workbook.xml.rels', {
    open: (name, at) => void (name === 'Relationship' && at.Id === id && (target = at.Target ?? '')),
  });
  if (target === '') throw unreadable('it has no sheet');
  return { path: target.startsWith('/') ? target.slice(1) : `xl/${target}`, epoch1904 };
}

async function sharedStrings(parts: Parts): Promise<string[]> {
  const strings: string[] = [];
  let phonetic = 0;
  await elements(parts, 'xl/sharedStrings.xml', {
    open: (name) => {
      if (name === 'si' && strings.push('') > SHARED_TEXTS)
        throw unreadable(`it has more than ${SHARED_TEXTS.toLocaleString('en')} texts; save the sheet in a workbook of its own`);
      if (name === 'rPh') phonetic++;
    },
    text: (text, inside) => void (inside === 't' && phonetic === 0 && (strings[strings.length - 1] += text)),
    close: (name) => void (name === 'rPh' && phonetic--),
  });
  return strings;
}

/** Which of the cell styles show a number as a date. */
async function dateStyles(parts: Parts): Promise<boolean[]> {
  const formats = new Map<string, string>();
  const styles: boolean[] = [];
  let inCells = false;
  await elements(parts, 'xl/styles.xml', {
    open: (name, at) => {
      if (name === 'numFmt') formats.set(at.numFmtId ?? '', at.formatCode ?? '');
      if (name === 'cellXfs') inCells = true;
      if (name === 'xf' && inCells) styles.push(isDateFormat(at.numFmtId ?? '0', formats));
    },
    close: (name) => void (name === 'cellXfs' && (inCells = false)),
  });
  return styles;
}

function isDateFormat(id: string, formats: ReadonlyMap<string, string>): boolean {
  const number = Number(id);
  if ((number >= 14 && number <= 22) || (number >= 45 && number <= 47)) return true;
  const code = formats.get(id)?.replace(/"[^"]*"|\\.|\[[^\]]*\]/g, '') ?? '';
  return /[dmyh]/i.test(code);
}

async function sheetRows(parts: Parts, path: string, reading: CellReading): Promise<string[][]> {
  const rows: string[][] = [];
  let row: string[] = [];
  let cell: { column: number; type: string; style: number; text: string } | null = null;
  await elements(parts, path, {
    open: (name, at) => {
      if (name === 'row') row = [];
      if (name === 'c') cell = { column: columnOf(at.r, row.length), type: at.t ?? 'n', style: Number(at.s ?? 0), text: '' };
    },
    text: (text, inside) => void (cell && (inside === 'v' || inside === 't') && (cell.text += text)),
    close: (name) => {
      if (name === 'c' && cell && cell.column < SHEET_COLUMNS) {
        while (row.length <= cell.column) row.push('');
        row[cell.column] = cellText(cell, reading);
      }
      if (name === 'row' && row.some((it) => it !== '')) rows.push(row);
    },
    enough: () => rows.length > SHEET_ROWS,
  });
  return rows;
}

/** The column of a cell's address, from 0; the next one where it has none. */
function columnOf(address: string | undefined, next: number): number {
  const letters = /^[A-Z]{1,3}/.exec(address ?? '')?.[0];
  if (!letters) return next;
  return [...letters].reduce((column, letter) => column * 26 + letter.charCodeAt(0) - 64, 0) - 1;
}

function cellText({ type, style, text }: { type: string; style: number; text: string }, reading: CellReading): string {
  if (type === 's') return (reading.strings[Number(text)] ?? '').trim();
  if (type === 'b') return String(text === '1');
  if (type === 'd') return text.slice(0, 10);
  const number = Number(text);
  if (type !== 'n' || text === '' || !Number.isFinite(number)) return text.trim();
  if (reading.dates[style]) return dateText(number, reading.epoch1904);
  // What a spreadsheet shows as 0.1 + 0.2 is not 0.30000000000000004 to the person who typed it.
  return String(Number(number.toPrecision(15)));
}

/** A serial date as 2031-04-30: days since 30 Dec 1899, or since 1904. */
function dateText(serial: number, epoch1904: boolean): string {
  const day = Math.floor(serial) + (epoch1904 ? 1462 : 0) - 25_569;
  const date = new Date(day * 86_400_000);
  return Number.isNaN(date.getTime()) ? String(serial) : date.toISOString().slice(0, 10);
}
