import { useListsQuery } from '../../ground/api/api';
import { hrefOf } from '../../../wire/call';
import { CALLS } from '../../../wire/calls';
import { useEffect, useState } from 'react';
import { useSearchParams } from 'react-router';
import { displayDate } from '../../../core/calendar/displayDate';
import { COST_TYPES } from '../../../core/costs/costType';
import { useAsOf } from '../../ground/asOf';
import { readDate } from '../../kit/typed/readDate';
import type { LedgerParams } from '../../../wire/costs';
import { FILTERS, useSetParam } from './ledgerParams';

export function LedgerFilters({ filter, job }: { filter: LedgerParams; job?: string }) {
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
      {filter.posting && <span className="note">Document {filter.posting}</span>}
      {filter.commitment && <span className="note">Order {filter.commitment}</span>}
      {narrowed && (
        <button
          type="button"
          className="button bare"
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
      <a className="button ml-auto" href={hrefOf(CALLS.costLedgerCsv, filter)} download>
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
