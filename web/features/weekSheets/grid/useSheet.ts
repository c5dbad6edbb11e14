import { useMemo } from 'react';
import { doubledHours, type DoubledHours, type TaskTime } from '../../../../core/labour/doubledHours';
import { grouped } from '../../../../core/lists/grouped';
import type { DayHours, TaskHours, TimeLineInput, TimeLists } from '../../../../wire/weekSheets';
import { useHoursOfWeekQuery, useTaskHoursQuery } from '../../../ground/api/api';
import { useAsOf } from '../../../ground/asOf';
import type { GridRow } from '../../../kit/grid/gridTypes';
import { useDraftRows } from '../../../kit/draft/useDraftRows';
import { readSheet, sheetCodecs, type ReadSheet, type SheetCodecs } from './readSheet';
import { splitHours, sumOfClasses, type ByClass } from './splitHours';

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
  const { rows, settled, setRows, changed, notice, forget } = useDraftRows({ name: `week-sheet ${kept}`, seen, start });
  const read = useMemo(() => readSheet(settled, codecs, week), [settled, codecs, week]);
  const { data } = useHoursOfWeekQuery({ on: week });
  const there = useMemo(() => data?.hours ?? [], [data]);
  const { figures, split } = useFigures(read, settled.length, lists, { there, sheet, corrects });
  const doubled = useMemo(() => doubledOn(read.lines, there, sheet), [read.lines, there, sheet]);
  // While the rest follows, nothing is sent: it would be what was there before the last key.
  return { codecs, rows, setRows, changed, notice, forget, read, figures, split, doubled, there, settling: rows !== settled };
}

/** Hours of the lines that stand on another sheet too, for the same person, day and task. */
export function doubledOn<Line extends TimeLineInput>(
  lines: readonly Line[],
  there: readonly DayHours[],
  sheet: string,
): DoubledHours<Line>[] {
  const elsewhere = there.flatMap(({ job, ...it }) => (it.sheet !== sheet && job !== null ? [{ ...it, job }] : []));
  return doubledHours(lines, elsewhere satisfies readonly TaskTime[]);
}

interface Beside {
  there: readonly DayHours[];
  sheet: string;
  corrects: boolean;
}

function useFigures(
  read: ReadSheet,
  count: number,
  lists: TimeLists,
  { there, sheet, corrects }: Beside,
): { figures: RowFigures[]; split: ByClass[] } {
  const { asOf } = useAsOf();
  const jobs = [...new Set(read.lines.map((it) => it.job).filter(Boolean))].sort().join(',');
  const { data } = useTaskHoursQuery({ jobs, asOf }, { skip: jobs === '' });
  return useMemo(() => {
    const tasks = new Map((data?.tasks ?? []).map((it) => [taskKey(it), it]));
    // What is posted by the sheet itself stands in the rows where it is corrected, and beside them where it is not.
    const others = there.filter((it) => it.sheet !== sheet || (it.posted && !corrects));
    const split = splitHours(read.lines, others, lists.rules, sheet);
    const hoursBy = (of: readonly (TimeLineInput | (DayHours & { job: string }))[]) =>
      new Map([...grouped(of, taskKey)].map(([key, them]) => [key, them.reduce((sum, it) => sum + it.hours, 0)]));
    const typedOn = hoursBy(read.lines);
    const corrected = hoursBy(
      there.flatMap(({ job, ...it }) => (corrects && it.sheet === sheet && it.posted && job !== null ? [{ ...it, job }] : [])),
    );
    const byRow = grouped(
      read.places.map((it, i) => ({ row: it.row, i })),
      (it) => it.row,
    );
    const figures = Array.from({ length: count }, (_, row): RowFigures => {
      const own = (byRow.get(row) ?? []).map((it) => it.i);
      const [first] = own.flatMap((i) => read.lines[i] ?? []);
      const key = first ? taskKey(first) : '';
      return {
        hours: own.reduce((sum, i) => sum + (read.lines[i]?.hours ?? 0), 0),
        classes: sumOfClasses(own.flatMap((i) => split[i] ?? [])),
        task:
          first && first.job !== '' && data
            ? taskOf(tasks.get(key), (typedOn.get(key) ?? 0) - (corrected.get(key) ?? 0), sheet)
            : null,
      };
    });
    return { figures, split };
  }, [data, read, there, sheet, corrects, lists.rules, count]);
}

const taskKey = (it: { job: string; section: string; costCode: string }) => JSON.stringify([it.job, it.section, it.costCode]);

/** What is left of a task: its budget less what is posted, what waits on other sheets, and what is typed here. */
const taskOf = (task: TaskHours | undefined, typed: number, sheet: string) => {
  const waiting = (task?.waiting ?? []).reduce((sum, it) => sum + (it.sheet === sheet ? 0 : it.hours), 0);
  return {
    budgeted: task?.budgeted ?? 0,
    left: (task?.budgeted ?? 0) - (task?.used ?? 0) - waiting - typed,
  };
};

export type { SheetCodecs };
