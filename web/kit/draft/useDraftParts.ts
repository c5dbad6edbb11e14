import { useMemo } from 'react';
import { PART, ROW_KEY, type GridRow } from '../grid/gridTypes';
import { useDraftRows } from './useDraftRows';

/** The parts of a document, each a list of rows; what is no list, such as its facts, is a list of one row. */
type Parts<Part extends string> = Readonly<Record<Part, readonly GridRow[]>>;

interface Options<Part extends string> {
  /** What the draft is known by in this browser, such as `change 2107/CO3`. */
  name: string;
  /** The version of the document that is typed over; of a new one what it would be called. */
  seen: string;
  version?: number;
  start: Parts<Part>;
  onElsewhere?: () => void;
}

const SEPARATOR = '/';

const entries = <Part extends string>(parts: Parts<Part>) => Object.entries(parts) as [Part, readonly GridRow[]][];

/** What names a row among those of all parts, by the key it has within its own. */
export const keyAmong = (part: string, key: string) => `${part}${SEPARATOR}${key}`;

/** The rows of all parts as one list. */
function joined<Part extends string>(parts: Parts<Part>): GridRow[] {
  return entries(parts).flatMap(([part, rows]) => rows.map((row) => (row[PART] === part ? row : { ...row, [PART]: part })));
}

/** Keys that name a row within its part name it among all. */
function withOwnKeys<Part extends string>(parts: Parts<Part>): Parts<Part> {
  const keyed = (part: Part, row: GridRow) => (row[ROW_KEY] ? { ...row, [ROW_KEY]: keyAmong(part, row[ROW_KEY]) } : row);
  return Object.fromEntries(
    entries(parts).map(([part, rows]) => [part, rows.map((row) => keyed(part, row))]),
  ) as unknown as Parts<Part>;
}

function apart<Part extends string>(rows: readonly GridRow[], names: readonly Part[]): Record<Part, GridRow[]> {
  const parts = Object.fromEntries(names.map((it) => [it, [] as GridRow[]])) as Record<Part, GridRow[]>;
  for (const row of rows) parts[row[PART] as Part]?.push(row);
  return parts;
}

/**
 * A document of several parts, typed and not sent: as `useDraftRows` holds the rows of one. The parts of `start` keep their names for
 * as long as the page is open.
 */
export function useDraftParts<Part extends string>({ start, ...of }: Options<Part>) {
  const all = useMemo(() => joined(withOwnKeys(start)), [start]);
  const draft = useDraftRows({ ...of, start: all });
  const names = Object.keys(start) as Part[];
  const text = names.join(SEPARATOR);
  const parts = useMemo(() => apart(draft.rows, text.split(SEPARATOR) as Part[]), [draft.rows, text]);
  return {
    parts,
    changed: draft.changed,
    isTyped: draft.isTyped,
    notice: draft.notice,
    merged: draft.merged,
    forget: draft.forget,
    discard: draft.discard,
    setParts: (next: Partial<Parts<Part>>) => draft.setRows(joined({ ...parts, ...next })),
    rewrite: (next: Parts<Part>) => draft.rewrite(joined(next)),
    /** What is typed now, or `sent`, is saved as another version. */
    saved: (version: number, sent: Parts<Part> = parts) =>
      draft.saved({ seen: String(version), version, rows: sent === parts ? draft.rows : joined(sent) }),
  };
}

/** Lines as rows under keys that they have whenever the same lines are opened again; `of`: what names a line. */
export function rowsUnderKeys<Line>(lines: readonly Line[], of: (line: Line) => string, row: (line: Line) => GridRow): GridRow[] {
  const counts = new Map<string, number>();
  return lines.map((line) => {
    const key = of(line);
    const count = (counts.get(key) ?? 0) + 1;
    counts.set(key, count);
    return { ...row(line), [ROW_KEY]: `${key} ${count}` };
  });
}
