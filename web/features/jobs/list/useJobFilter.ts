import { useMemo } from 'react';
import { useSearchParams } from 'react-router';
import { isEnded } from '../../../../core/jobs/jobStatus';
import { ratio } from '../../../../core/money/rate';
import type { ListedJob } from '../../../../wire/jobs';

export type JobSortKey =
  | 'number'
  | 'name'
  | 'status'
  | 'clientName'
  | 'manager'
  | 'contractSum'
  | 'estimate'
  | 'margin'
  | 'moved'
  | 'complete'
  | 'overUnder';

const KEYS = ['q', 'status', 'manager', 'client', 'kind', 'department'] as const;
export type JobFilterKey = (typeof KEYS)[number];

/** What the list of jobs shows, as its address says. */
export interface JobFilter extends Record<JobFilterKey, string> {
  sort: JobSortKey;
  descending: boolean;
  set: (key: JobFilterKey, value: string) => void;
  /** Sorts by a column; by the same again, the other way round. */
  sortBy: (key: JobSortKey) => void;
}

export function useJobFilter(): JobFilter {
  const [params, setParams] = useSearchParams();
  return useMemo(() => {
    const setAll = (changes: Record<string, string>) =>
      setParams(
        (before) => {
          const next = new URLSearchParams(before);
          for (const [key, value] of Object.entries(changes))
            if (value) next.set(key, value);
            else next.delete(key);
          return next;
        },
        { replace: true },
      );
    const sort = (params.get('sort') ?? 'number') as JobSortKey;
    const descending = params.get('order') === 'down';
    const asked = Object.fromEntries(KEYS.map((key) => [key, params.get(key) ?? ''])) as Record<JobFilterKey, string>;
    return {
      ...asked,
      sort,
      descending,
      set: (key, value) => setAll({ [key]: value }),
      sortBy: (key) => setAll({ sort: key, order: sort === key && !descending ? 'down' : '' }),
    };
  }, [params, setParams]);
}

/** By how much the margin moved since the end of last month, in millionths; null where the job was not in the schedule then. */
export function movedMargin(job: Pick<ListedJob, 'margin' | 'inSchedule' | 'before'>): number | null {
  if (!job.before || !job.inSchedule) return null;
  return job.margin - ratio(job.before.contractSum - job.before.estimate, job.before.contractSum);
}

function valueOf(job: ListedJob, key: JobSortKey): string | number {
  if (key === 'overUnder') return job.overbilled - job.underbilled;
  return key === 'moved' ? (movedMargin(job) ?? 0) : job[key];
}

/** The jobs that match, sorted. */
export function shownJobs(
  jobs: readonly ListedJob[],
  { q, status, manager, client, kind, department, sort, descending }: JobFilter,
): ListedJob[] {
  const wanted = q.toLowerCase();
  const sign = descending ? -1 : 1;
  return jobs
    .filter(
      (job) =>
        (status ? job.status === status : !isEnded(job.status)) &&
        (!manager || job.manager === manager) &&
        (!client || job.client === client) &&
        (!kind || job.kind === kind) &&
        (!department || job.department === department) &&
        `${job.number} ${job.name} ${job.clientName}`.toLowerCase().includes(wanted),
    )
    .sort((a, b) => {
      // A tender without a price has no figures to be sorted by: it comes last either way.
      const unpriced = Number(a.contractSum === 0) - Number(b.contractSum === 0);
      if (unpriced !== 0 && sort !== 'number') return unpriced;
      const [x, y] = [valueOf(a, sort), valueOf(b, sort)];
      return sign * (x < y ? -1 : x > y ? 1 : 0);
    });
}
