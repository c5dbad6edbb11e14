import { present } from '../../../core/errors/known';
import type { GridColumn, GridRow } from './gridTypes';

/** Which column of a sheet goes into which of ours: our key → the sheet's column, from 0; null for none. */
export type Matching = Record<string, number | null>;

/** Ours that can be filled from a sheet. */
export function fillable(columns: readonly GridColumn[]): GridColumn[] {
  return columns.filter((it) => !it.show);
}

const plain = (text: string) => text.toLowerCase().replace(/[^a-z0-9%]/g, '');

/**
 * The matching to begin with: the one remembered for a sheet with the same heads, else columns whose heads are, begin with or
 * hold our titles or keys. Each column of the sheet is used once.
 */
export function proposeMatching(columns: readonly GridColumn[], heads: readonly string[], remembered: Matching | null): Matching {
  if (remembered) return remembered;
  const usedColumns = new Set<number>();
  const matching: Matching = Object.fromEntries(fillable(columns).map((it) => [it.key, null]));
  const tests: ((head: string, name: string) => boolean)[] = [
    (head, name) => head === name,
    (head, name) => head.startsWith(name) || name.startsWith(head),
    (head, name) => head.includes(name) || name.includes(head),
  ];
  for (const fits of tests)
    for (const column of fillable(columns)) {
      if (matching[column.key] !== null) continue;
      const names = [plain(column.title), plain(column.key)].filter(Boolean);
      const at = heads.findIndex(
        (head, i) => !usedColumns.has(i) && plain(head) !== '' && names.some((name) => fits(plain(head), name)),
      );
      if (at < 0) continue;
      matching[column.key] = at;
      usedColumns.add(at);
    }
  return matching;
}

/** The rows of a sheet as rows of the grid, tidied as if they were typed. Rows with nothing in a matched column are left out. */
export function matchedRows(columns: readonly GridColumn[], matching: Matching, rows: readonly (readonly string[])[]): GridRow[] {
  return rows
    .map((row) =>
      Object.fromEntries(
        fillable(columns)
          .filter((it) => matching[it.key] !== null && matching[it.key] !== undefined)
          .map((it) => {
            const text = row[present(matching[it.key])] ?? '';
            return [it.key, text !== '' && it.tidy ? it.tidy(text) : text];
          }),
      ),
    )
    .filter((row) => Object.values(row).some((text) => text !== ''));
}
