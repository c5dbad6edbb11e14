import { startTransition, useEffect, useMemo, useRef, useState } from 'react';
import { grouped } from '../../../../core/lists/grouped';
import type { DayHours, TaskHours, TimeLists } from '../../../../wire/weekSheets';
import { useHoursOfWeekQuery, useTaskHoursQuery } from '../../../ground/api/api';
import { useAsOf } from '../../../ground/asOf';
import type { GridRow } from '../../../kit/grid/gridTypes';
import { readSheet, sheetCodecs, type ReadSheet, type SheetCodecs } from './readSheet';
import { splitHours, sumOfClasses, type ByClass } from './splitHours';

const KEPT = 'ledrin.week-sheet.';

interface Stored {
  seen: string;
  rows: GridRow[];
}

function stored(key: string): Stored | null {
  try {
    const kept = JSON.parse(localStorage.getItem(KEPT + key) ?? 'null') as Stored | null;
    return kept && Array.isArray(kept.rows) ? kept : null;
  } catch {
    return null;
  }
}

/** Longer than the time between two keys, and too short to be waited for. */
const PAUSE = 300;

/** What follows from a value waits for a pause in typing, so that a key is shown at once however much follows from it. */
function useSettled<Value>(value: Value): Value {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => startTransition(() => setSettled(value)), PAUSE);
    return () => clearTimeout(timer);
  }, [value]);
  return settled;
}

/** Rows typed and not sent yet survive a reload and a change of page; `seen` is what they were typed over. */
function useStoredRows(key: string, seen: string, start: readonly GridRow[]) {
  const [rows, setRows] = useState<GridRow[]>(() => {
    const kept = stored(key);
    return kept?.seen === seen ? kept.rows : [...start];
  });
  const settled = useSettled(rows);
  const before = useMemo(() => JSON.stringify(start), [start]);
  const changed = useMemo(() => JSON.stringify(settled) !== before, [settled, before]);
  useEffect(() => {
    if (changed) localStorage.setItem(KEPT + key, JSON.stringify({ seen, rows: settled }));
    else localStorage.removeItem(KEPT + key);
  }, [key, seen, settled, changed]);
  // Whoever leaves before the pause keeps the last keys as well.
  const latest = useRef({ rows, sent: false });
  latest.current.rows = rows;
  useEffect(() => {
    const keep = () => {
      const { rows: typed, sent } = latest.current;
      if (!sent && JSON.stringify(typed) !== before) localStorage.setItem(KEPT + key, JSON.stringify({ seen, rows: typed }));
    };
    window.addEventListener('pagehide', keep);
    return () => {
      window.removeEventListener('pagehide', keep);
      keep();
    };
  }, [key, seen, before]);
  const forget = () => {
    latest.current.sent = true;
    localStorage.removeItem(KEPT + key);
  };
  return { rows, settled, setRows, changed, forget };
}

/** What is worked out of a row: its hours, how they are cut, and what is left of its task. */
export interface RowFigures {
  hours: number;
  classes: ByClass;
  /** Null: of no job. `budgeted` 0 where the task has no budget. */
  task: { budgeted: number; left: number } | null;
}

export type Sheet = ReturnType<typeof useSheet>;

interface Options {
  lists: TimeLists;
  week: string;
  /** What the draft is known by in this browser. */
  kept: string;
  seen: string;
  start: readonly GridRow[];
  /** The sheet itself, whose posted lines are in the grid or beside it. */
  sheet: string;
  /** What is posted by the sheet itself does not count: it is corrected here. */
  corrects?: boolean;
}

/** A week sheet as it is typed. */
export function useSheet({ lists, week, kept, seen, start, sheet, corrects = false }: Options) {
  const codecs = useMemo(() => sheetCodecs(lists), [lists]);
  const { rows, settled, setRows, changed, forget } = useStoredRows(kept, seen, start);
  const read = useMemo(() => readSheet(settled, codecs, week), [settled, codecs, week]);
  const { data: there } = useHoursOfWeekQuery({ on: week });
  const posted = useMemo(() => (there?.hours ?? []).filter((it) => !corrects || it.sheet !== sheet), [there, corrects, sheet]);
  const figures = useFigures(read, settled.length, lists, posted);
  // While the rest follows, nothing is sent: it would be what was there before the last key.
  return { codecs, rows, setRows, changed, forget, read, figures, settling: rows !== settled };
}

function useFigures(read: ReadSheet, count: number, lists: TimeLists, posted: readonly DayHours[]): RowFigures[] {
  const { asOf } = useAsOf();
  const jobs = [...new Set(read.lines.map((it) => it.job).filter(Boolean))].sort().join(',');
  const { data } = useTaskHoursQuery({ jobs, asOf }, { skip: jobs === '' });
  return useMemo(() => {
    const tasks = new Map((data?.tasks ?? []).map((it) => [taskKey(it), it]));
    const split = splitHours(read.lines, posted, lists.rules);
    const typedOn = new Map(
      [...grouped(read.lines, taskKey)].map(([key, of]) => [key, of.reduce((sum, it) => sum + it.hours, 0)]),
    );
    const byRow = grouped(
      read.places.map((it, i) => ({ row: it.row, i })),
      (it) => it.row,
    );
    return Array.from({ length: count }, (_, row): RowFigures => {
      const own = (byRow.get(row) ?? []).map((it) => it.i);
      const [first] = own.flatMap((i) => read.lines[i] ?? []);
      return {
        hours: own.reduce((sum, i) => sum + (read.lines[i]?.hours ?? 0), 0),
        classes: sumOfClasses(own.flatMap((i) => split[i] ?? [])),
        task: first && first.job !== '' && data ? taskOf(tasks.get(taskKey(first)), typedOn.get(taskKey(first)) ?? 0) : null,
      };
    });
  }, [data, read, posted, lists.rules, count]);
}

const taskKey = (it: { job: string; section: string; costCode: string }) => JSON.stringify([it.job, it.section, it.costCode]);

const taskOf = (task: TaskHours | undefined, typed: number) => ({
  budgeted: task?.budgeted ?? 0,
  left: (task?.budgeted ?? 0) - (task?.used ?? 0) - typed,
});

export type { SheetCodecs };
