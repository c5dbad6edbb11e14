import { at } from '../../../core/errors/known';
import type { GridRow } from './gridTypes';

/**
 * Lays a block of tab-separated text, as spreadsheets copy it, over rows from a cell on. `keys` names the columns in
 * order; null is a column that is worked out, and is passed over. Cells in quotes may hold tabs and line breaks.
 */
export function pasteBlock(
  rows: readonly GridRow[],
  text: string,
  row: number,
  column: number,
  keys: readonly (string | null)[],
  grows: boolean,
): GridRow[] {
  const next = rows.map((it) => ({ ...it }));
  const typed = keys.slice(column).filter((key): key is string => key !== null);
  readCells(text).forEach((cells, down) => {
    if (row + down >= next.length && !grows) return;
    while (next.length <= row + down) next.push({});
    cells.slice(0, typed.length).forEach((cell, across) => (at(next, row + down)[at(typed, across)] = cell.trim()));
  });
  return next;
}

function readCells(text: string): string[][] {
  const cell = /("(?:[^"]|"")*"|[^\t\n]*)(\t|\n|$)/g;
  const lines: string[][] = [[]];
  const body = text.replace(/\r\n?/g, '\n').replace(/\n$/, '');
  for (let match = cell.exec(body); match; match = cell.exec(body)) {
    const [, raw = '', end] = match;
    at(lines, -1).push(raw.startsWith('"') && raw.endsWith('"') && raw.length > 1 ? raw.slice(1, -1).replaceAll('""', '"') : raw);
    if (end === '\n') lines.push([]);
    if (end === '') break;
  }
  return lines;
}
