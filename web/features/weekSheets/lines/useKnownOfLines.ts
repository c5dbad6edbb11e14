import { useMemo } from 'react';
import type { SheetLine } from '../../../../wire/weekSheets';
import { useTaskHoursQuery, useWeekCostQuery } from '../../../ground/api/api';
import { useAsOf } from '../../../ground/asOf';
import { useMay } from '../../../ground/person';
import type { KnownOfLines } from './sheetRows';

const keyOf = (it: { job: string; section: string; costCode: string }) => JSON.stringify([it.job, it.section, it.costCode]);

/** What whoever decides on lines should know of them: their cost, where they may, and what is left of each task with all that waits. */
export function useKnownOfLines(week: string, waiting: readonly SheetLine[], decides: boolean): KnownOfLines | undefined {
  const { asOf } = useAsOf();
  const mayKnow = useMay()('read-books');
  const jobs = [...new Set(waiting.map((it) => it.job).filter(Boolean))].sort().join(',');
  const { data: tasks } = useTaskHoursQuery({ jobs, asOf }, { skip: !decides || jobs === '', refetchOnMountOrArgChange: true });
  const { data: cost } = useWeekCostQuery({ on: week }, { skip: !decides || !mayKnow, refetchOnMountOrArgChange: true });
  return useMemo(() => {
    if (!decides) return undefined;
    const byTask = new Map((tasks?.tasks ?? []).map((it) => [keyOf(it), it]));
    return {
      costs: cost ? new Map(cost.lines.map((it) => [it.id, it.cost])) : null,
      left: (line) => {
        if (line.job === '' || !tasks) return null;
        const { budgeted = 0, used = 0, waiting: open = [] } = byTask.get(keyOf(line)) ?? {};
        return { budgeted, left: budgeted - used - open.reduce((sum, it) => sum + it.hours, 0) };
      },
    };
  }, [decides, tasks, cost]);
}
