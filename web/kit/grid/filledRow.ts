import { UNSEEN, type GridRow } from './gridTypes';

/** Tells rows in which something is typed; `own` are the cells that the page itself fills. */
export function filledBeside(...own: readonly string[]): (row: GridRow) => boolean {
  return (row) => {
    for (const key of Object.keys(row))
      if (!key.startsWith(UNSEEN) && !own.includes(key) && (row[key] ?? '').trim() !== '') return true;
    return false;
  };
}

/** True where something is typed in a row. */
export const isFilled: (row: GridRow) => boolean = filledBeside();
