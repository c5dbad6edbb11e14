import type { ForecastLine } from '../../../wire/forecasts';
import type { LookedLines } from '../../ground/costLines/useLookedLines';
import type { GridRow } from '../../kit/grid/gridTypes';
import type { Faults } from '../../kit/typed/codecs';

/** A group of lines that is shown: its name, and its lines by their places in the forecast. */
export interface ShownGroup {
  name: string;
  /** All of them. */
  lines: readonly number[];
  folded: boolean;
}

/** What of a forecast is in sight: places in the forecast, in the order they are looked at. */
export interface ShownLines {
  /** Of the rows of the grid, each. */
  places: readonly number[];
  /** Null where lines are not grouped. */
  groups: readonly ShownGroup[] | null;
  /** Groups whose names stand above a row of the grid; above none of them, beneath the last. */
  above: ReadonlyMap<number, readonly ShownGroup[]>;
  /** Lines that stand in the forecast and hold to no condition. */
  whole: boolean;
}

/** The lines of a forecast as the cost lines of the job are looked at; one that came since the others were read stands last. */
export function shownLines(lines: readonly ForecastLine[], looked: LookedLines | null): ShownLines {
  const all = lines.map((_, i) => i);
  if (!looked) return { places: all, groups: null, above: new Map(), whole: true };
  const placeOf = new Map(lines.map(({ id }, i) => [id, i]));
  const wanted = looked.lines.flatMap(({ id }) => placeOf.get(id) ?? []);
  const ordered = looked.whole ? [...new Set([...wanted, ...all])] : wanted;
  const { groupOf, folded, whole } = looked;
  if (!groupOf) return { places: ordered, groups: null, above: new Map(), whole };
  const byName = new Map<string, number[]>();
  for (const place of ordered) {
    const name = groupOf(lines[place]?.id ?? 0);
    byName.set(name, [...(byName.get(name) ?? []), place]);
  }
  const groups = [...byName].map(([name, own]): ShownGroup => ({ name, lines: own, folded: folded.has(name) }));
  const above = new Map<number, ShownGroup[]>();
  const places: number[] = [];
  for (const group of groups) {
    above.set(places.length, [...(above.get(places.length) ?? []), group]);
    if (!group.folded) places.push(...group.lines);
  }
  return { places, groups, above, whole };
}

/** Rows of the whole forecast after those in sight were typed in. */
export function laidBack(next: readonly GridRow[], { places }: ShownLines, before: readonly GridRow[]): GridRow[] {
  const rows = [...before];
  places.forEach((place, i) => {
    const row = next[i];
    if (row) rows[place] = row;
  });
  return rows;
}

/** Faults of the lines in sight, by their rows of the grid; and how many are of lines that are not in sight. */
export function faultsShown(faults: Faults, { places }: ShownLines): { shown: Faults; hidden: number } {
  const rowOf = new Map(places.map((place, i) => [place, i]));
  const shown: Faults = new Map();
  for (const [at, message] of faults) {
    const [place, column] = [at.slice(0, at.indexOf('.')), at.slice(at.indexOf('.'))];
    const row = rowOf.get(Number(place));
    if (row !== undefined) shown.set(`${row}${column}`, message);
  }
  return { shown, hidden: faults.size - shown.size };
}
