const QUOTE = 34;
const COMMA = 44;
const NEWLINE = 10;
const RETURN = 13;

/** No honest record is longer; a quote left open would otherwise take the rest of the file into memory. */
const LONGEST_RECORD = 1 << 20;

/** A record whose quotes are wrong, with the cells before the one at fault. */
export interface IllQuoted {
  readable: string[];
}
export type Cells = string[] | IllQuoted;

/**
 * Splits CSV text (RFC 4180, CRLF or LF) into records, however the text is cut into chunks.
 * Our own, because the format asks for every fault at once: after an ill-quoted record reading goes on at the
 * next line, where the library tried first lost the records behind it. Empty lines are passed over.
 */
export class CsvRecords {
  private text = '';

  /** Records completed by `chunk`. */
  feed(chunk: string): Cells[] {
    this.text += chunk;
    return this.take(false);
  }

  /** What is left when the file ends. */
  end(): Cells[] {
    return this.take(true);
  }

  private take(atEnd: boolean): Cells[] {
    const records: Cells[] = [];
    let start = 0;
    while (start < this.text.length) {
      const read = readRecord(this.text, start, atEnd);
      if (!read) {
        if (this.text.length - start <= LONGEST_RECORD) break;
        records.push({ readable: [] });
        start = lineEnd(this.text, start);
        continue;
      }
      if (!Array.isArray(read.cells) || read.cells.length > 0) records.push(read.cells);
      start = read.next;
    }
    this.text = this.text.slice(start);
    return records;
  }
}

/** The record at `at` and where the next begins; null where the text ends before the record does. */
function readRecord(text: string, at: number, atEnd: boolean): { cells: Cells; next: number } | null {
  const cells: string[] = [];
  // A quote that never closes spoils its line; the lines behind it are read on their own.
  const begin = at;
  for (;;) {
    const cell = text.charCodeAt(at) === QUOTE ? quotedCell(text, at, atEnd) : bareCell(text, at, atEnd);
    if (cell === 'incomplete') return atEnd ? { cells: { readable: cells }, next: lineEnd(text, begin) } : null;
    if ('illAt' in cell) {
      const next = lineEnd(text, cell.illAt);
      return next === text.length && !atEnd ? null : { cells: { readable: cells }, next };
    }
    at = cell.next;
    const ending = text.charCodeAt(at);
    if (ending === COMMA) {
      cells.push(cell.value);
      at += 1;
      continue;
    }
    if (cells.length > 0 || cell.value !== '' || cell.quoted) cells.push(cell.value);
    return { cells, next: Math.min(text.length, at + (ending === RETURN ? 2 : 1)) };
  }
}

type CellRead = { value: string; next: number; quoted: boolean } | { illAt: number } | 'incomplete';

/** A cell without quotes, up to the comma or line end behind it. */
function bareCell(text: string, at: number, atEnd: boolean): CellRead {
  for (let i = at; i < text.length; i++) {
    const char = text.charCodeAt(i);
    if (char === QUOTE) return { illAt: i };
    if (char === COMMA || char === NEWLINE) return { value: text.slice(at, i), next: i, quoted: false };
    if (char === RETURN) {
      if (i + 1 >= text.length && !atEnd) return 'incomplete';
      if (text.charCodeAt(i + 1) === NEWLINE || i + 1 >= text.length) return { value: text.slice(at, i), next: i, quoted: false };
    }
  }
  return atEnd ? { value: text.slice(at), next: text.length, quoted: false } : 'incomplete';
}

/** A cell in quotes; what follows the closing quote must be a comma or a line end. */
function quotedCell(text: string, at: number, atEnd: boolean): CellRead {
  for (let from = at + 1; ;) {
    const close = text.indexOf('"', from);
    if (close < 0 || (close + 1 >= text.length && !atEnd)) return 'incomplete';
    const after = text.charCodeAt(close + 1);
    if (after === QUOTE) {
      from = close + 2;
      continue;
    }
    if (after === RETURN && close + 2 >= text.length && !atEnd) return 'incomplete';
    const ends =
      close + 1 >= text.length ||
      after === COMMA ||
      after === NEWLINE ||
      (after === RETURN && (text.charCodeAt(close + 2) === NEWLINE || close + 2 >= text.length));
    return ends ? { value: text.slice(at + 1, close).replaceAll('""', '"'), next: close + 1, quoted: true } : { illAt: close };
  }
}

function lineEnd(text: string, at: number): number {
  const end = text.indexOf('\n', at);
  return end < 0 ? text.length : end + 1;
}
