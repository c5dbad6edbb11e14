import { useMemo } from 'react';
import type { WorkedBefore } from '../../../../core/labour/likelyTasks';
import { grouped } from '../../../../core/lists/grouped';
import type { TimeLists } from '../../../../wire/weekSheets';
import { useWorkedBeforeQuery } from '../../../ground/api/api';

/** What the people of a sheet worked on in the weeks before, and their teams, as far as it takes hours now. */
export function useWorkedBefore({ jobs }: TimeLists, week: string): WorkedBefore {
  const { data } = useWorkedBeforeQuery({ on: week });
  return useMemo(() => {
    const takes = new Set(jobs.map((it) => it.number));
    const taken = <Row extends { job: string }>(rows: readonly Row[] = []) => rows.filter((it) => takes.has(it.job));
    const teams = [...grouped(taken(data?.teams), (it) => it.employee)];
    return {
      tasks: grouped(taken(data?.tasks), (it) => it.employee),
      teams: new Map(teams.map(([employee, rows]) => [employee, rows.map((it) => it.job)])),
    };
  }, [jobs, data]);
}
