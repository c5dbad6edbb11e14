import { useMemo, useState } from 'react';
import type { EstimateLine } from '../../../wire/jobs';
import { toggled } from '../../kit/table/toggled';
import type { TableGroups } from '../../kit/table/tableTypes';
import { filtered, grouped, NO_GROUP, wordsOf, type LineLook } from './lineLook';

/** The cost lines of a job as somebody looks at them, the same in every view of them. */
export interface LookedLines {
  look: LineLook;
  setLook: (look: LineLook) => void;
  /** Those every condition holds for, in the order of their groups. */
  lines: readonly EstimateLine[];
  /** There are lines at all. */
  anything: boolean;
  /** No line is left out. */
  whole: boolean;
  /** Null where they are not grouped. */
  groupOf: ((id: number) => string) | null;
  folded: ReadonlySet<string>;
  onFold: (group: string) => void;
  foldAll: () => void;
}

export function useLookedLines(all: readonly EstimateLine[]): LookedLines {
  const [look, setLook] = useState<LineLook>({ by: 'section', conditions: [] });
  const [folded, setFolded] = useState<ReadonlySet<string>>(new Set());
  const { by, conditions } = look;
  return useMemo(() => {
    const lines = grouped(filtered(all, conditions), by);
    const groups = by === NO_GROUP ? null : new Map(all.map((it) => [it.id, wordsOf(it, by)]));
    return {
      look,
      setLook: (next) => {
        setLook(next);
        if (next.by !== by) setFolded(new Set());
      },
      lines,
      anything: all.length > 0,
      whole: lines.length === all.length,
      groupOf: groups && ((id) => groups.get(id) ?? ''),
      folded,
      onFold: (name) => setFolded(toggled(folded, name)),
      foldAll: () => setFolded(new Set(folded.size > 0 || !groups ? [] : groups.values())),
    };
  }, [all, look, by, conditions, folded]);
}

/** Rows of the lines that are looked at, in their order. */
export function rowsLookedAt<Row extends { id: number }>({ lines }: LookedLines, rows: readonly Row[]): Row[] {
  const byId = new Map(rows.map((it) => [it.id, it]));
  return lines.flatMap(({ id }) => byId.get(id) ?? []);
}

/** The groups of the lines, for a table with a row of each; undefined where they are not grouped. */
export function groupsLookedAt<Row extends { id: number }>(
  { groupOf, folded, onFold }: LookedLines,
  sums: TableGroups<Row>['sums'],
): TableGroups<Row> | undefined {
  return groupOf ? { of: ({ id }) => groupOf(id), sums, folded, onFold } : undefined;
}
