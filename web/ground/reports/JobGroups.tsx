import { useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import { JOB_GROUPS, JOB_GROUP_NAMES, type JobGroup } from '../../../core/jobs/jobGroups';
import type { ReportReply } from '../../../wire/reports';
import { Choice } from '../../kit/choice/Choice';
import type { Option } from '../../kit/choice/options';
import { toggled } from '../../kit/table/toggled';
import type { TableGroups } from '../../kit/table/tableTypes';
import { useListsQuery } from '../api/api';
import { useAsOf } from '../asOf';

/** What a report over jobs is grouped by and narrowed to: it stands in the address, so that it can be sent along. */
export interface OverJobs {
  by?: JobGroup;
  department?: string;
  kind?: string;
}

const NARROWED = ['department', 'kind'] as const;

/** What the address says, in the order the server is asked. */
export function useOverJobs(): OverJobs {
  const [params] = useSearchParams();
  return useMemo(() => {
    const by = JOB_GROUP_NAMES.find((it) => it === params.get('by'));
    const narrowed = NARROWED.flatMap((name) => (params.get(name) ? [[name, params.get(name)] as const] : []));
    return { ...(by ? { by } : {}), ...Object.fromEntries(narrowed) };
  }, [params]);
}

/** Chooses it; a list that the company has nothing in is not offered. */
export function JobGroupChoice({ over, among = JOB_GROUP_NAMES }: { over: OverJobs; among?: readonly JobGroup[] }) {
  const { asOf } = useAsOf();
  const { data: lists } = useListsQuery({ asOf });
  const [, setParams] = useSearchParams();
  const set = (name: string, value: string) =>
    setParams(
      (before) => {
        const next = new URLSearchParams(before);
        if (value) next.set(name, value);
        else next.delete(name);
        return next;
      },
      { replace: true },
    );
  const rows = { department: lists?.departments ?? [], kind: lists?.kinds ?? [] };
  const offered = among.filter((it) => (it === 'department' || it === 'kind' ? rows[it].length > 0 : true));
  if (offered.length === 0) return null;
  return (
    <div className="mb-2 flex flex-wrap items-center gap-2">
      {NARROWED.filter((it) => offered.includes(it)).map((name) => (
        <Choice
          key={name}
          aria-label={JOB_GROUPS[name].title}
          className="box w-[200px]"
          value={over[name] ?? ''}
          options={[
            ['', `${JOB_GROUPS[name].title}: all`],
            ...rows[name].map((it): Option => [it.code, `${it.code} ${it.name}`]),
          ]}
          onChange={(chosen) => set(name, chosen)}
        />
      ))}
      <Choice
        aria-label="Grouped by"
        className="box w-[220px]"
        value={over.by ?? ''}
        options={[['', 'Not grouped'], ...offered.map((it): Option => [it, `Grouped by ${JOB_GROUPS[it].title.toLowerCase()}`])]}
        onChange={(chosen) => set('by', chosen)}
      />
    </div>
  );
}

type Row = Record<string, string | number>;

/** The groups of a report as a table folds them; `cells`: what a group comes to, by column. */
export function useReportGroups<R extends Row>(
  groups: ReportReply['groups'],
  cells: (total: Row) => ReturnType<TableGroups<R>['sums']>,
): TableGroups<R> | undefined {
  const [folded, setFolded] = useState<ReadonlySet<string>>(new Set());
  return useMemo(() => {
    if (!groups) return undefined;
    const byCode = new Map(groups.map((it) => [it.code, it]));
    const groupOf = (row: Row | undefined) => byCode.get(String(row?.group ?? ''));
    return {
      of: (row) => groupOf(row)?.name ?? '',
      sums: (rows) => cells(groupOf(rows[0])?.total ?? {}),
      folded,
      onFold: (name) => setFolded((before) => toggled(before, name)),
    };
  }, [groups, cells, folded]);
}
