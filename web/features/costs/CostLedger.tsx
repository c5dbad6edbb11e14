import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useDispatch } from 'react-redux';
import { Link, useSearchParams } from 'react-router';
import { displayDate, displayPeriod } from '../../../core/calendar/displayDate';
import { lastDay } from '../../../core/calendar/plainDate';
import { COST_TYPES } from '../../../core/cost/costType';
import { displayQuantity } from '../../../core/money/display';
import type { CostPage, CostRow } from '../../../wire/costs';
import { useAsOf, useKeepMonth } from '../../app/asOf';
import { useCurrency } from '../../app/company';
import { faultOf } from '../../app/faults';
import { useListsQuery } from '../../app/sessionApi';
import type { AppDispatch } from '../../app/store';
import { Refused, Waiting } from '../../ui/States';
import { readDate } from '../../ui/readDate';
import { costPage, useCostPageQuery, useCostSubtotalsQuery, type LedgerParams } from './api';

const PAGE = 200;
const ROW = 29;

/** Filters as they stand in the address, by the names the server knows them. */
const FILTERS = {
  q: 'search',
  job: 'job',
  section: 'section',
  code: 'costCode',
  type: 'costType',
  party: 'party',
  from: 'from',
  to: 'to',
  paper: 'paper',
  order: 'commitment',
  stored: 'uninstalled',
  sort: 'sort',
  down: 'descending',
} as const;

/** The cost ledger of one job, or of all: filtered, sorted and summed on the server, scrolled a page at a time. */
export function CostLedger({ job }: { job?: string }) {
  const { month } = useAsOf();
  const [params] = useSearchParams();
  const filter = useMemo(() => {
    const asked: LedgerParams = { asOf: month };
    for (const [name, key] of Object.entries(FILTERS)) {
      const value = params.get(name);
      if (value !== null && (value !== '' || key === 'section')) asked[key] = value;
    }
    if (job !== undefined) asked.job = job;
    // The newest first, until somebody asks otherwise.
    if (!asked.sort) Object.assign(asked, { sort: 'dated', descending: 'yes' });
    return asked;
  }, [month, params, job]);
  const by = params.get('by');
  return (
    <>
      <LedgerFilters filter={filter} job={job} />
      {by ? (
        <Subtotals filter={filter} by={by} />
      ) : (
        <LedgerRows key={JSON.stringify(filter)} filter={filter} showJob={job === undefined} />
      )}
    </>
  );
}

function useSetParam() {
  const [, setParams] = useSearchParams();
  return (changes: Record<string, string>) =>
    setParams(
      (before) => {
        const next = new URLSearchParams(before);
        for (const [name, value] of Object.entries(changes)) {
          if (value) next.set(name, value);
          else next.delete(name);
        }
        return next;
      },
      { replace: true },
    );
}

function LedgerFilters({ filter, job }: { filter: LedgerParams; job?: string }) {
  const { month } = useAsOf();
  const { data: lists } = useListsQuery({ asOf: month });
  const set = useSetParam();
  const [params] = useSearchParams();
  const [search, setSearch] = useState(filter.search ?? '');
  useEffect(() => {
    const timer = setTimeout(() => search !== (filter.search ?? '') && set({ q: search }), 300);
    return () => clearTimeout(timer);
  });
  const pick = (label: string, name: string, value: string | undefined, options: readonly (readonly [string, string])[]) => (
    <select
      aria-label={label}
      className="box"
      style={{ width: 150 }}
      value={value ?? ''}
      onChange={(event) => set({ [name]: event.target.value })}
    >
      <option value="">{label}: all</option>
      {options.map(([option, text]) => (
        <option key={option} value={option}>
          {text}
        </option>
      ))}
    </select>
  );
  const download = new URLSearchParams(filter as Record<string, string>);
  const narrowed = Object.keys(filter).some(
    (key) => !['asOf', 'sort', 'descending'].includes(key) && !(key === 'job' && job !== undefined),
  );
  return (
    <div className="mb-2 flex flex-wrap items-center gap-2">
      <input
        type="search"
        className="box"
        style={{ width: 200 }}
        aria-label="Find in reference, party, description"
        placeholder="Reference, party, description"
        value={search}
        onChange={(event) => setSearch(event.target.value)}
      />
      {job === undefined &&
        pick(
          'Job',
          'job',
          filter.job,
          (lists?.jobs ?? []).map((it) => [it.number, `${it.number} ${it.name}`]),
        )}
      {pick(
        'Code',
        'code',
        filter.costCode,
        (lists?.costCodes ?? []).map((it) => [it.code, `${it.code} ${it.description}`]),
      )}
      {pick(
        'Type',
        'type',
        filter.costType,
        COST_TYPES.map((it) => [it, it]),
      )}
      <select
        aria-label="Subtotals"
        className="box"
        style={{ width: 150 }}
        value={params.get('by') ?? ''}
        onChange={(event) => set({ by: event.target.value })}
      >
        <option value="">Every entry</option>
        {['month', ...(job === undefined ? ['job'] : []), 'section', 'code', 'type', 'party'].map((it) => (
          <option key={it} value={it}>
            Subtotals by {it}
          </option>
        ))}
      </select>
      <FromDay value={filter.from} onDay={(day) => set({ from: day })} />
      {filter.to && <span className="note">to {displayDate(filter.to)}</span>}
      {filter.section !== undefined && <span className="note">Section {filter.section || '(none)'}</span>}
      {filter.party && <span className="note">Party {filter.party}</span>}
      {filter.paper && <span className="note">Paper {filter.paper}</span>}
      {filter.commitment && <span className="note">Order {filter.commitment}</span>}
      {narrowed && (
        <button
          type="button"
          className="press bare"
          onClick={() => {
            setSearch('');
            set(
              Object.fromEntries(
                Object.keys(FILTERS)
                  .filter((it) => it !== 'sort' && it !== 'down')
                  .map((it) => [it, '']),
              ),
            );
          }}
        >
          Show all
        </button>
      )}
      <a className="press ml-auto" href={`/api/costs.csv?${download}`} download>
        Download CSV
      </a>
    </div>
  );
}

function FromDay({ value, onDay }: { value?: string; onDay: (day: string) => void }) {
  const { month } = useAsOf();
  const [typed, setTyped] = useState<string | null>(null);
  const shown = typed ?? displayDate(value ?? null);
  const leave = () => {
    if (typed === null) return;
    const day = readDate(typed, month);
    if (day || typed.trim() === '') onDay(day ?? '');
    setTyped(null);
  };
  return (
    <input
      className="box"
      style={{ width: 118 }}
      aria-label="From the day"
      placeholder="From the day"
      value={shown}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={leave}
      onKeyDown={(event) => event.key === 'Enter' && leave()}
    />
  );
}

/** The filter each group narrows the ledger to. */
const NARROWED: Record<string, (key: string) => Record<string, string>> = {
  month: (key) => ({ from: `${key}-01`, to: lastDay(key) }),
  job: (key) => ({ job: key }),
  section: (key) => ({ section: key }),
  code: (key) => ({ code: key }),
  type: (key) => ({ type: key }),
  party: (key) => ({ party: key }),
};

/** The ledger added up by one of its columns; a group opens its entries. */
function Subtotals({ filter, by }: { filter: LedgerParams; by: string }) {
  const { data, error, refetch } = useCostSubtotalsQuery({ ...filter, by });
  const { exact, show } = useCurrency();
  const set = useSetParam();
  if (error) return <Refused message={faultOf(error).message} onRetry={refetch} />;
  if (!data) return <Waiting what="the subtotals" />;
  const sum = (key: 'count' | 'hours' | 'amount') => data.reduce((total, row) => total + row[key], 0);
  return (
    <div
      className="scroll"
      style={{ maxHeight: 'calc(100vh - 200px)' }}
      tabIndex={0}
      role="region"
      aria-label={`Subtotals by ${by}`}
    >
      <table className="ledger">
        <thead>
          <tr>
            <th>By {by}</th>
            <th>Name</th>
            <th className="num">Entries</th>
            <th className="num">Hours</th>
            <th className="num">Amount</th>
          </tr>
        </thead>
        <tbody>
          {data.map((row) => (
            <tr key={row.key}>
              <td>
                <button
                  type="button"
                  className="fig"
                  style={{ color: 'var(--accent)' }}
                  onClick={() => set({ by: '', ...NARROWED[by]!(row.key) })}
                >
                  {by === 'month' ? displayPeriod(row.key) : row.key || `(no ${by})`}
                </button>
              </td>
              <td>{row.name}</td>
              <td className="num">{row.count.toLocaleString('en-GB')}</td>
              <td className="num">{displayQuantity(row.hours)}</td>
              <td className="num">{show(row.amount)}</td>
            </tr>
          ))}
        </tbody>
        <tfoot>
          <tr>
            <td colSpan={2}>Total</td>
            <td className="num">{sum('count').toLocaleString('en-GB')}</td>
            <td className="num">{displayQuantity(sum('hours'))}</td>
            <td className="num">{exact(sum('amount'))}</td>
          </tr>
        </tfoot>
      </table>
    </div>
  );
}

/** Fetches the pages that come into view and keeps them. */
function usePages(
  filter: LedgerParams,
  first: CostPage | undefined,
  from: number,
  to: number,
): (index: number) => CostRow | undefined {
  const dispatch = useDispatch<AppDispatch>();
  const [pages, setPages] = useState<ReadonlyMap<number, readonly CostRow[]>>(new Map());
  const asked = useRef(new Set<number>());
  const count = first?.count ?? 0;
  useEffect(() => {
    for (let page = Math.max(1, Math.floor(from / PAGE)); page <= Math.floor(Math.min(to, count - 1) / PAGE); page++) {
      if (asked.current.has(page)) continue;
      asked.current.add(page);
      const request = dispatch(
        costPage.initiate({ ...filter, offset: String(page * PAGE), limit: String(PAGE) }, { subscribe: false }),
      );
      void request.unwrap().then(
        (reply) => setPages((before) => new Map(before).set(page, reply.rows)),
        () => asked.current.delete(page),
      );
    }
  }, [filter, from, to, count, dispatch]);
  return (index) => (index < PAGE ? first?.rows[index] : pages.get(Math.floor(index / PAGE))?.[index % PAGE]);
}

function LedgerRows({ filter, showJob }: { filter: LedgerParams; showJob: boolean }) {
  const box = useRef<HTMLDivElement>(null);
  const { data, error, refetch } = useCostPageQuery({ ...filter, offset: '0', limit: String(PAGE) });
  const virtual = useVirtualizer({
    count: data?.count ?? 0,
    getScrollElement: () => box.current,
    estimateSize: () => ROW,
    overscan: 12,
    initialRect: { width: 1000, height: 700 },
  });
  const items = virtual.getVirtualItems();
  const rowAt = usePages(filter, data, items[0]?.index ?? 0, items.at(-1)?.index ?? 0);
  const { exact } = useCurrency();
  const set = useSetParam();
  if (error) return <Refused message={faultOf(error).message} onRetry={refetch} />;
  if (!data) return <Waiting what="the cost ledger" />;
  const head = (sort: string, title: string, width: number | string, numeric = false) => {
    const active = (filter.sort ?? 'dated') === sort;
    const down = filter.descending === 'yes';
    return (
      <th style={{ width }} className={numeric ? 'num' : ''} aria-sort={active ? (down ? 'descending' : 'ascending') : undefined}>
        <button
          type="button"
          className="fig"
          style={{ fontWeight: 600 }}
          onClick={() => set({ sort, down: active && !down ? 'yes' : '' })}
        >
          {title}
          {active ? (down ? ' ↓' : ' ↑') : ''}
        </button>
      </th>
    );
  };
  const before = items[0]?.start ?? 0;
  const after = virtual.getTotalSize() - (items.at(-1)?.end ?? 0);
  return (
    <div
      ref={box}
      className="scroll"
      style={{ maxHeight: 'calc(100vh - 200px)', minHeight: 220 }}
      tabIndex={0}
      role="region"
      aria-label="Cost entries"
    >
      <table className="ledger even" aria-rowcount={data.count}>
        <thead>
          <tr>
            {head('dated', 'Date', 94)}
            {showJob && head('job', 'Job', 64)}
            <th style={{ width: 130 }}>Section</th>
            {head('cost-code', 'Code', 60)}
            <th style={{ width: 90 }}>Type</th>
            <th style={{ width: 116 }}>Reference</th>
            {head('party', 'Party', 130)}
            <th>Description</th>
            <th style={{ width: 112 }}>Order</th>
            <th className="num" style={{ width: 74 }}>
              Hours
            </th>
            {head('amount', 'Amount', 118, true)}
            <th style={{ width: 62 }}>Paper</th>
          </tr>
        </thead>
        <tbody>
          {before > 0 && <tr style={{ height: before }} aria-hidden="true" />}
          {items.map(({ index }) => (
            <EntryRow key={index} row={rowAt(index)} showJob={showJob} />
          ))}
          {after > 0 && <tr style={{ height: after }} aria-hidden="true" />}
          {data.count === 0 && (
            <tr>
              <td colSpan={12} className="note">
                No entry matches by this month.
              </td>
            </tr>
          )}
        </tbody>
        <tfoot>
          <tr>
            <td colSpan={showJob ? 9 : 8}>
              {data.count.toLocaleString('en-GB')} {data.count === 1 ? 'entry' : 'entries'}
            </td>
            <td className="num">{displayQuantity(data.hours)}</td>
            <td className="num">{exact(data.amount)}</td>
            <td />
          </tr>
        </tfoot>
      </table>
    </div>
  );
}

function EntryRow({ row, showJob }: { row: CostRow | undefined; showJob: boolean }) {
  const keep = useKeepMonth();
  const { show } = useCurrency();
  if (!row)
    return (
      <tr>
        <td colSpan={showJob ? 12 : 11} className="note">
          …
        </td>
      </tr>
    );
  return (
    <tr>
      <td>{displayDate(row.dated)}</td>
      {showJob && (
        <td>
          <Link to={keep(`/jobs/${encodeURIComponent(row.job)}/costs`)}>{row.job}</Link>
        </td>
      )}
      <td className="cut" title={row.section}>
        {row.section}
      </td>
      <td>{row.costCode}</td>
      <td>{row.costType}</td>
      <td className="cut" title={row.reference}>
        {row.reference}
      </td>
      <td className="cut" title={row.party}>
        {row.party}
      </td>
      <td className="cut" title={row.description}>
        {row.description}
        {row.uninstalled && (
          <span className="note"> · {row.installedOn ? `installed ${displayDate(row.installedOn)}` : 'not installed yet'}</span>
        )}
      </td>
      <td className="cut">{row.commitment}</td>
      <td className="num">{row.hours === null ? '' : displayQuantity(row.hours)}</td>
      <td className="num">{show(row.amount)}</td>
      <td>
        <Link to={keep(`/ledger/papers/${row.paperId}`)}>{row.paperId}</Link>
      </td>
    </tr>
  );
}
