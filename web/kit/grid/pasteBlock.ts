import { at } from '../../../core/errors/known';
import type { GridColumn, GridRow } from './gridTypes';
import { matchedRows, proposeMatching } from './matchColumns';

/**
 * Lays a block of tab-separated text, as spreadsheets copy it, over rows from a cell on. `typed` names the columns in
 * order, from that cell on. Cells in quotes may hold tabs and line breaks.
 */
export function pasteBlock(
  rows: readonly GridRow[],
  text: string,
  row: number,
  typed: readonly string[],
  grows: boolean,
): GridRow[] {
  const next = rows.map((it) => ({ ...it }));
  readCells(text).forEach((cells, down) => {
    if (row + down >= next.length && !grows) return;
    while (next.length <= row + down) next.push({});
    cells.slice(0, typed.length).forEach((cell, across) => (at(next, row + down)[at(typed, across)] = cell.trim()));
  });
  return next;
}

/**
 * A block that begins with the heads of its columns, as rows of the grid: each column goes where its head says, and the heads are
 * not a row. Null where the first line is no heads: fewer than two of them, or fewer than half, name a column.
 */
export function headedBlock(columns: readonly GridColumn[], text: string): GridRow[] | null {
  const [heads = [], ...lines] = readCells(text);
  const named = heads.filter((it) => it.trim() !== '');
  if (lines.length === 0 || named.some((it) => /\d/.test(it))) return null;
  const matching = proposeMatching(columns, heads, null);
  const matched = Object.values(matching).filter((it) => it !== null).length;
  return matched >= 2 && matched * 2 >= named.length ? matchedRows(columns, matching, lines) : null;
}

/**
 * The columns a block fills from a column on: those that are shown; where it is wider than they are, the hidden ones too. Columns that
 * are worked out, or only help to type the others, are passed over.
 */
export function pastedOver(
  shown: readonly GridColumn[],
  all: readonly GridColumn[],
  column: number,
  text: string,
): readonly string[] {
  const keysFrom = (columns: readonly GridColumn[], first: GridColumn | undefined) =>
    columns.slice(first ? columns.findIndex((it) => it.key === first.key) : 0).flatMap((it) => (it.show ? [] : [it.key]));
  const inSight = keysFrom(shown, shown[column]);
  const width = Math.max(...readCells(text).map((cells) => cells.length));
  const help = new Set(all.flatMap((it) => (it.isHelp && it !== shown[column] ? [it.key] : [])));
  return width <= inSight.length ? inSight : keysFrom(all, shown[column]).filter((it) => !help.has(it));
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
