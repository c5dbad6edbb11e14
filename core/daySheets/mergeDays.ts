import { stableText } from '../lists/stableText';
import { DAY_LISTS, DAY_TEXTS, type DayList, type DaySheet } from './daySheet';

type Row = Readonly<Record<string, unknown>>;
type Part = DayList | (typeof DAY_TEXTS)[number];

/** One thing that both changed, each in another way. Null: removed. */
export interface DayClash {
  part: Part;
  mine: Row | string | null;
  theirs: Row | string | null;
}

export interface MergedDays {
  /** Everything that only one has changed; where both have, theirs. */
  merged: DaySheet;
  clashes: DayClash[];
}

/** What says that two rows of a part are about the same thing. */
const SAME: Readonly<Record<DayList, readonly string[]>> = {
  hours: ['employee', 'section', 'costCode', 'workKind', 'pay', 'charged'],
  quantities: ['section', 'costCode', 'unit'],
  equipment: ['name', 'charged'],
  subcontractors: ['name'],
  deliveries: ['name', 'reference', 'charged'],
  visitors: ['name'],
  incidents: ['name'],
  instructions: ['name'],
  photos: ['photo'],
  signatures: ['number'],
};

/**
 * Brings two versions of a day sheet together that come from one: `base` as both had it, `mine` as it was changed without a
 * connection, `theirs` as it was changed meanwhile. Nothing of either is lost: what both changed is a clash, for a person to decide.
 */
export function mergeDays(base: DaySheet, mine: DaySheet, theirs: DaySheet): MergedDays {
  const merged = { ...theirs };
  const clashes: DayClash[] = [];
  for (const part of DAY_TEXTS) {
    const [text, clash] = mergeOne(base[part], mine[part], theirs[part]);
    merged[part] = text ?? '';
    if (clash) clashes.push({ part, mine: mine[part], theirs: theirs[part] });
  }
  for (const part of DAY_LISTS) mergeList(part, { base, mine, theirs }, merged, clashes);
  return { merged, clashes };
}

/** Three versions of one value: the one that changed; theirs, and true, where both did. */
function mergeOne<T>(base: T, mine: T, theirs: T): [T, boolean] {
  const [was, here, there] = [base, mine, theirs].map((it) => stableText(it));
  if (here === there || here === was) return [theirs, false];
  return there === was ? [mine, false] : [theirs, true];
}

function mergeList(
  part: DayList,
  { base, mine, theirs }: Readonly<Record<'base' | 'mine' | 'theirs', DaySheet>>,
  merged: DaySheet,
  clashes: DayClash[],
): void {
  const [was, here, there] = [base, mine, theirs].map((it) => named(part, it[part] as unknown as Row[])) as [Named, Named, Named];
  const rows: Row[] = [];
  for (const name of new Set([...there.keys(), ...here.keys()])) {
    const [row, clash] = mergeOne(was.get(name) ?? null, here.get(name) ?? null, there.get(name) ?? null);
    if (row) rows.push(row);
    if (clash) clashes.push({ part, mine: here.get(name) ?? null, theirs: there.get(name) ?? null });
  }
  (merged as unknown as Record<DayList, readonly Row[]>)[part] = rows;
}

type Named = ReadonlyMap<string, Row>;

/** Rows by what they are about; the second about the same thing by its place among them. */
function named(part: DayList, rows: readonly Row[]): Named {
  const found = new Map<string, Row>();
  for (const row of rows) {
    const about = stableText(SAME[part].map((it) => row[it]));
    let count = 0;
    while (found.has(`${about} ${count}`)) count += 1;
    found.set(`${about} ${count}`, row);
  }
  return found;
}

/** The merged sheet with a clash decided for mine. */
export function takeMine(day: DaySheet, { part, mine, theirs }: DayClash): DaySheet {
  if (part === 'weather' || part === 'notes') return { ...day, [part]: mine };
  const [away, rows] = [stableText(theirs), day[part] as unknown as Row[]];
  const at = theirs === null ? -1 : rows.findIndex((it) => stableText(it) === away);
  const next = at === -1 ? [...rows, ...(mine ? [mine] : [])] : rows.flatMap((it, i) => (i === at ? (mine ? [mine] : []) : [it]));
  return { ...day, [part]: next };
}
