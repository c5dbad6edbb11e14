import { useMemo } from 'react';
import { Link, useSearchParams } from 'react-router';
import { totalProgress } from '../../../core/progress/workInProgress';
import type { JobListRow } from '../../../wire/jobs';
import { useAsOf, useKeepMonth } from '../../app/asOf';
import { useCurrency } from '../../app/company';
import { faultOf } from '../../app/faults';
import { Fig } from '../../app/Fig';
import { MeasureKey, SmallMeasure } from '../../ui/Measure';
import { Legend, Sign } from '../../ui/Signs';
import { Empty, Refused, Waiting } from '../../ui/States';
import { useDeleteDraftMutation, useJobListQuery } from './api';

type SortKey = 'number' | 'name' | 'customerName' | 'manager' | 'contractSum' | 'estimate' | 'margin' | 'complete' | 'overUnder';

const HEADS: readonly { key: SortKey; title: string; numeric?: boolean; width?: number | string }[] = [
  { key: 'number', title: 'Job', width: 64 },
  { key: 'name', title: 'Name' },
  { key: 'customerName', title: 'Client', width: 170 },
  { key: 'manager', title: 'Manager', width: 112 },
  { key: 'contractSum', title: 'Contract sum', numeric: true, width: 122 },
  { key: 'estimate', title: 'Estimate at completion', numeric: true, width: 122 },
  { key: 'margin', title: 'Margin %', numeric: true, width: 76 },
  { key: 'complete', title: 'Complete %', numeric: true, width: 82 },
  { key: 'overUnder', title: 'Over / under billed', numeric: true, width: 142 },
];

const valueOf = (job: JobListRow, key: SortKey): string | number =>
  key === 'overUnder' ? job.overbilled - job.underbilled : job[key];

/** All jobs, one a line, with their measure: made to find the one that went wrong. */
export function JobListPage() {
  const { month } = useAsOf();
  const { data, error, refetch } = useJobListQuery({ asOf: month });
  const keep = useKeepMonth();
  if (error)
    return (
      <div className="page">
        <Refused message={faultOf(error).message} onRetry={refetch} />
      </div>
    );
  if (!data) return <Waiting what="the jobs" />;
  return (
    <div className="page">
      <div className="mb-3 flex items-end justify-between gap-6">
        <h1>Jobs</h1>
        <Link className="press main" to={keep('/jobs/new')}>
          New job
        </Link>
      </div>
      <Drafts drafts={data.drafts} />
      {data.jobs.length === 0 ? (
        <Empty title="No job yet">
          <Link className="press main" to={keep('/jobs/new')}>
            Type or paste the first job
          </Link>
          <Link className="press" to={keep('/set-up')}>
            Import a book
          </Link>
        </Empty>
      ) : (
        <JobTable jobs={data.jobs} />
      )}
    </div>
  );
}

function Drafts({ drafts }: { drafts: readonly { id: number; content: Record<string, unknown>; savedAt: string }[] }) {
  const keep = useKeepMonth();
  const [deleteDraft] = useDeleteDraftMutation();
  if (drafts.length === 0) return null;
  return (
    <ul className="sheet mb-3 list-none px-3 py-1">
      {drafts.map((draft) => {
        const facts = (draft.content.facts ?? {}) as Record<string, string>;
        return (
          <li key={draft.id} className="flex items-center gap-3">
            <span className="note">Half-made:</span>
            <Link to={keep(`/jobs/new?draft=${draft.id}`)}>
              {[facts.number, facts.name || 'job without a name'].filter(Boolean).join(' ')}
            </Link>
            <span className="note text-[12.5px]">
              kept {new Date(draft.savedAt).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })}
            </span>
            <button type="button" className="press bare" onClick={() => void deleteDraft(draft.id)}>
              Throw away
            </button>
          </li>
        );
      })}
    </ul>
  );
}

function JobTable({ jobs }: { jobs: readonly JobListRow[] }) {
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
        (!client || job.customer === client) &&
        `${job.number} ${job.name} ${job.customerName}`.toLowerCase().includes(wanted),
    );
    const sign = descending ? -1 : 1;
    return [...kept].sort((a, b) => {
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
        {pick('Client', 'client', client, [...new Map(jobs.map((job) => [job.customer, job.customerName]))])}
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

function JobRow({ job }: { job: JobListRow }) {
  const keep = useKeepMonth();
  const of = (figure: string) => ({ figure, job: job.number });
  return (
    <tr style={{ color: job.inSchedule ? 'inherit' : 'var(--soft)' }}>
      <td>
        <Link to={keep(`/jobs/${encodeURIComponent(job.number)}`)}>
          <b>{job.number}</b>
        </Link>
      </td>
      <td className="cut" title={job.name}>
        <Link to={keep(`/jobs/${encodeURIComponent(job.number)}`)} style={{ color: 'var(--ink)' }}>
          {job.name}
        </Link>
        {job.status !== 'on-site' && <span className="note"> · {job.status}</span>}
      </td>
      <td>{job.contractSum !== 0 && <SmallMeasure figures={job} label={`Measure of ${job.number}`} />}</td>
      <td className="cut" title={job.customerName}>
        {job.customerName}
      </td>
      <td className="cut">{job.manager}</td>
      <td className="num">
        <Fig value={job.contractSum} of={of('contractSum')} label="Contract sum" />
      </td>
      <td className="num">
        <Fig value={job.estimate} of={of('estimate')} label="Estimate at completion" />
      </td>
      <td className="num">
        {job.margin < 0 && <Sign name="loss" bare />} <Fig value={job.margin} unit="percent" of={of('margin')} label="Margin" />
      </td>
      <td className="num">
        <Fig value={job.complete} unit="percent" of={of('complete')} label="Complete" />
      </td>
      <td className="num">
        <OverUnder over={job.overbilled} under={job.underbilled} job={job.number} />
      </td>
    </tr>
  );
}

/** Over- or underbilled, with its sign; one of the two is always nothing. */
export function OverUnder({ over, under, job }: { over: number; under: number; job?: string }) {
  if (over === 0 && under === 0) return <>–</>;
  const name = over > 0 ? 'over' : 'under';
  return (
    <span className="inline-flex items-center gap-2">
      <Sign name={name} bare />
      <Fig
        value={over || under}
        of={{ figure: over > 0 ? 'overbilled' : 'underbilled', job }}
        label={over > 0 ? 'Overbilled' : 'Underbilled'}
      />
    </span>
  );
}

function JobTotals({ jobs, all }: { jobs: readonly JobListRow[]; all: boolean }) {
  const { show } = useCurrency();
  const counted = jobs.filter((job) => job.inSchedule);
  const total = totalProgress(counted);
  // The workings of a total are those of all jobs: a filtered list shows plain sums.
  const figure = (key: 'contractSum' | 'estimate' | 'margin' | 'complete', label: string, unit: 'money' | 'percent' = 'money') =>
    all ? (
      <Fig value={total[key]} unit={unit} of={{ figure: key }} label={label} />
    ) : unit === 'percent' ? (
      (total[key] / 10_000).toFixed(1)
    ) : (
      show(total[key])
    );
  return (
    <tfoot>
      <tr>
        <td colSpan={2}>
          {counted.length} {counted.length === 1 ? 'job' : 'jobs'} in the schedule
        </td>
        <td>
          <SmallMeasure figures={{ ...total, received: 0 }} label="Measure of all jobs" />
        </td>
        <td colSpan={2} />
        <td className="num">{figure('contractSum', 'Contract sums')}</td>
        <td className="num">{figure('estimate', 'Estimates at completion')}</td>
        <td className="num">{figure('margin', 'Margin', 'percent')}</td>
        <td className="num">{figure('complete', 'Complete', 'percent')}</td>
        <td className="num">
          <span className="inline-flex flex-col items-end py-1 leading-tight">
            <span className="inline-flex items-center gap-2">
              <Sign name="over" bare />
              {all ? <Fig value={total.overbilled} of={{ figure: 'overbilled' }} label="Overbilled" /> : show(total.overbilled)}
            </span>
            <span className="inline-flex items-center gap-2">
              <Sign name="under" bare />
              {all ? (
                <Fig value={total.underbilled} of={{ figure: 'underbilled' }} label="Underbilled" />
              ) : (
                show(total.underbilled)
              )}
            </span>
          </span>
        </td>
      </tr>
    </tfoot>
  );
}
