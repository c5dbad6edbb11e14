import { useMemo } from 'react';
import { useSearchParams } from 'react-router';
import type { JobListRow } from '../../../../wire/jobs';
import { useCurrency } from '../../../ground/company';
import { MeasureKey } from '../../../kit/Measure';
import { Legend } from '../../../kit/Signs';
import { JobRow, JobTotals } from './JobRow';

type SortKey =
  'number' | 'name' | 'status' | 'clientName' | 'manager' | 'contractSum' | 'estimate' | 'margin' | 'complete' | 'overUnder';

const HEADS: readonly { key: SortKey; title: string; numeric?: boolean; width?: number | string }[] = [
  { key: 'number', title: 'Job', width: 60 },
  { key: 'name', title: 'Name' },
  { key: 'status', title: 'Status', width: 88 },
  { key: 'clientName', title: 'Client', width: 118 },
  { key: 'manager', title: 'Manager', width: 98 },
  { key: 'contractSum', title: 'Contract sum', numeric: true, width: 118 },
  { key: 'estimate', title: 'Estimate at completion', numeric: true, width: 118 },
  { key: 'margin', title: 'Margin %', numeric: true, width: 68 },
  { key: 'complete', title: 'Complete %', numeric: true, width: 78 },
  { key: 'overUnder', title: 'Over / under billed', numeric: true, width: 126 },
];

const valueOf = (job: JobListRow, key: SortKey): string | number =>
  key === 'overUnder' ? job.overbilled - job.underbilled : job[key];

export function JobTable({ jobs }: { jobs: readonly JobListRow[] }) {
  const [params, setParams] = useSearchParams();
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
  const set = (key: string, value: string) => setAll({ [key]: value });
  const [search, status, manager, client] = ['q', 'status', 'manager', 'client'].map((key) => params.get(key) ?? '') as [
    string,
    string,
    string,
    string,
  ];
  const sort = (params.get('sort') ?? 'number') as SortKey;
  const descending = params.get('order') === 'down';
  const shown = useMemo(() => {
    const wanted = search.toLowerCase();
    const kept = jobs.filter(
      (job) =>
        (!status || job.status === status) &&
        (!manager || job.manager === manager) &&
        (!client || job.client === client) &&
        `${job.number} ${job.name} ${job.clientName}`.toLowerCase().includes(wanted),
    );
    const sign = descending ? -1 : 1;
    return [...kept].sort((a, b) => {
      // A tender without a price has no figures to be sorted by: it comes last either way.
      const unpriced = Number(a.contractSum === 0) - Number(b.contractSum === 0);
      if (unpriced !== 0 && sort !== 'number') return unpriced;
      const [x, y] = [valueOf(a, sort), valueOf(b, sort)];
      return sign * (x < y ? -1 : x > y ? 1 : 0);
    });
  }, [jobs, search, status, manager, client, sort, descending]);
  const distinct = (value: (job: JobListRow) => string) => [...new Set(jobs.map(value))].filter(Boolean).sort();
  const sortBy = (key: SortKey) => setAll({ sort: key, order: sort === key && !descending ? 'down' : '' });
  const pick = (label: string, key: string, value: string, options: readonly (readonly [string, string])[]) => (
    <select
      aria-label={label}
      className="box"
      style={{ width: 170 }}
      value={value}
      onChange={(event) => set(key, event.target.value)}
    >
      <option value="">{label}: all</option>
      {options.map(([option, name]) => (
        <option key={option} value={option}>
          {name}
        </option>
      ))}
    </select>
  );
  return (
    <>
      <div className="mb-2 flex flex-wrap items-center gap-2">
        <input
          className="box"
          style={{ width: 210 }}
          type="search"
          placeholder="Find a job"
          aria-label="Find a job"
          value={search}
          onChange={(event) => set('q', event.target.value)}
        />
        {pick(
          'Status',
          'status',
          status,
          distinct((job) => job.status).map((it) => [it, it]),
        )}
        {pick(
          'Manager',
          'manager',
          manager,
          distinct((job) => job.manager).map((it) => [it, it]),
        )}
        {pick('Client', 'client', client, [...new Map(jobs.map((job) => [job.client, job.clientName]))])}
        <span className="ml-auto">
          <MeasureKey />
        </span>
      </div>
      <div className="scroll" style={{ maxHeight: 'calc(100vh - 178px)' }}>
        <table className="ledger even">
          <thead>
            <tr>
              {HEADS.slice(0, 2).map((head) => (
                <SortHead key={head.key} head={head} sort={sort} descending={descending} onSort={sortBy} />
              ))}
              <th style={{ width: 136 }}>Measure</th>
              {HEADS.slice(2).map((head) => (
                <SortHead key={head.key} head={head} sort={sort} descending={descending} onSort={sortBy} />
              ))}
            </tr>
          </thead>
          <tbody>
            {shown.map((job) => (
              <JobRow key={job.number} job={job} />
            ))}
          </tbody>
          <JobTotals jobs={shown} all={shown.length === jobs.length} />
        </table>
      </div>
      <p className="note mt-2 flex flex-wrap gap-x-6 text-[12.5px]">
        <Legend names={['over', 'under', 'loss']} />
        <span>
          Amounts in <Currency />. Tenders and jobs not yet awarded are not in the totals.
        </span>
      </p>
    </>
  );
}

function Currency() {
  return <>{useCurrency().code}</>;
}

function SortHead({
  head,
  sort,
  descending,
  onSort,
}: {
  head: (typeof HEADS)[number];
  sort: SortKey;
  descending: boolean;
  onSort: (key: SortKey) => void;
}) {
  const active = sort === head.key;
  return (
    <th
      className={head.numeric ? 'num' : ''}
      style={{ width: head.width, whiteSpace: 'normal' }}
      aria-sort={active ? (descending ? 'descending' : 'ascending') : undefined}
    >
      <button type="button" className="fig" style={{ fontWeight: 600 }} onClick={() => onSort(head.key)}>
        {head.title}
        {active ? (descending ? ' ↓' : ' ↑') : ''}
      </button>
    </th>
  );
}
