import { present } from '../../../core/errors/known';
import { ROW_KEY, type GridRow } from './gridTypes';

/**
 * The rows of one section once more for each name, after the rows that are there. `numbered` is the column whose numbers must
 * stay one of a kind: the copy of line 3 for the second name becomes 3-2, and so on until it is free.
 */
export function repeatRows(
  rows: readonly GridRow[],
  section: string,
  names: readonly string[],
  numbered: string | null,
): GridRow[] {
  const own = rows.filter((row) => (row.section ?? '').trim() === section);
  const usedNumbers = new Set(numbered ? rows.map((row) => row[numbered] ?? '') : []);
  const free = (line: string, from: number): string => {
    for (let count = from; ; count++) if (!usedNumbers.has(`${line}-${count}`)) return `${line}-${count}`;
  };
  return names.flatMap((name, i) =>
    own.map((row) => {
      const next: GridRow = { ...row, section: name };
      delete next[ROW_KEY];
      if (numbered && (row[numbered] ?? '') !== '') {
        next[numbered] = free(present(row[numbered]), i + 2);
        usedNumbers.add(next[numbered]);
      }
      return next;
    }),
  );
}
