import { isFilled } from '../grid/filledRow';
import { ROW_KEY, UNSEEN, type GridRow } from '../grid/gridTypes';

let made = 0;
/** A name that no other row has, of this window or another. */
export const newKey = () => `${Date.now().toString(36)}.${(made++).toString(36)}.${Math.random().toString(36).slice(2, 8)}`;

/** The rows, each with anything in it under a key of its own; a copied row gets a new one. */
export function withKeys(rows: readonly GridRow[]): GridRow[] {
  const seen = new Set<string>();
  return rows.map((row) => {
    const key = row[ROW_KEY];
    if (key !== undefined && key !== '' && !seen.has(key)) {
      seen.add(key);
      return row;
    }
    if (!isFilled(row)) return row;
    const own = newKey();
    seen.add(own);
    return { ...row, [ROW_KEY]: own };
  });
}

/** What a row says, to be compared. */
const textOf = (row: GridRow | undefined): string =>
  JSON.stringify(
    Object.entries(row ?? {})
      .filter(([key, cell]) => !key.startsWith(UNSEEN) && (cell ?? '') !== '')
      .sort(([a], [b]) => (a < b ? -1 : 1)),
  );

/** Whether two lists say the same, blank rows and keys apart. */
export function sameRows(a: readonly GridRow[], b: readonly GridRow[]): boolean {
  return JSON.stringify(a.filter(isFilled).map(textOf)) === JSON.stringify(b.filter(isFilled).map(textOf));
}

interface Merged {
  rows: GridRow[];
  /** Keys of rows that were changed elsewhere alone. */
  taken: string[];
  /** Keys of rows in which both changed the same: what was typed here stands. */
  clashes: string[];
}

const keyed = (rows: readonly GridRow[]) => new Map(rows.flatMap((it) => (it[ROW_KEY] ? [[it[ROW_KEY], it] as const] : [])));

/**
 * Brings together what was typed over `base` here and elsewhere, row by row under its key and cell by cell; `whole`: a row that was
 * changed here stands as a whole, since its cells follow from one another. What only one side changed, added or removed is taken;
 * where both changed, what was typed here stands, and nothing that was typed is lost.
 */
export function mergeRows(base: readonly GridRow[], mine: readonly GridRow[], theirs: readonly GridRow[], whole = false): Merged {
  const [before, own, other] = [keyed(base), keyed(mine), keyed(theirs)];
  const taken: string[] = [];
  const clashes: string[] = [];
  const mergedRow = (key: string): GridRow | null => {
    const [was, here, there] = [before.get(key), own.get(key), other.get(key)];
    const [changedHere, changedThere] = [textOf(here) !== textOf(was), textOf(there) !== textOf(was)];
    if (!here && !there) return null;
    if (changedThere && !changedHere) taken.push(key);
    if (!changedHere) return there ?? null;
    if (!changedThere) return here ?? null;
    if (!here || !there || whole) {
      if (textOf(here) !== textOf(there)) clashes.push(key);
      return here ?? there ?? null;
    }
    const cells = { ...there };
    for (const column of Object.keys({ ...was, ...here })) {
      const [first, mine, theirs] = [was?.[column] ?? '', here[column] ?? '', there[column] ?? ''];
      if (mine === first) continue;
      if (theirs !== first && theirs !== mine && !clashes.includes(key)) clashes.push(key);
      cells[column] = mine;
    }
    return { ...cells, [ROW_KEY]: key };
  };
  const order = inBothOrders([...other.keys()], [...own.keys()]);
  const rows = order.map(mergedRow).filter((it) => it !== null);
  return { rows, taken, clashes };
}

/** The keys of both, in the order of the first; those of the second alone after the one they follow there. */
function inBothOrders(first: readonly string[], second: readonly string[]): string[] {
  const order = [...first];
  second.forEach((key, i) => {
    if (order.includes(key)) return;
    const previous = second[i - 1];
    order.splice(previous === undefined ? 0 : order.indexOf(previous) + 1, 0, key);
  });
  return order;
}
