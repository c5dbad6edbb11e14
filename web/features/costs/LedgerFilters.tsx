import { May } from '../../ground/person';
import { useListsQuery } from '../../ground/api/api';
import { hrefOf } from '../../../wire/call';
import { CALLS } from '../../../wire/calls';
import { useEffect, useState, type ReactNode } from 'react';
import { Link, useSearchParams } from 'react-router';
import { displayDate } from '../../../core/calendar/displayDate';
import { COST_TYPES } from '../../../core/costs/costType';
import { useAsOf, useWithMonth } from '../../ground/asOf';
import { useVendorNames } from '../../ground/partyNames';
import { DayFilter } from '../../kit/form/DayInput';
import type { LedgerParams } from '../../../wire/costs';
import { Choice } from '../../kit/choice/Choice';
import type { Option } from '../../kit/choice/options';
import { FILTERS, useSetParam } from './ledgerParams';

interface FiltersProps {
  filter: LedgerParams;
  /** The job whose ledger it is; none in the ledger of all jobs. */
  job?: string;
  /** What else is chosen of how it is shown. */
  children: ReactNode;
}

/** What the ledger is narrowed to, and how it is added up. */
export function LedgerFilters({ filter, job, children }: FiltersProps) {
  const { month } = useAsOf();
  const set = useSetParam();
  const withMonth = useWithMonth();
  const nameOf = useVendorNames();
  const [search, setSearch] = useState(filter.search ?? '');
  const narrowed = Object.keys(filter).some(
    (key) => !['asOf', 'sort', 'descending'].includes(key) && !(key === 'job' && job !== undefined),
  );
  const showAll = () => {
    const filters = Object.keys(FILTERS).filter((it) => it !== 'sort' && it !== 'down');
    set(Object.fromEntries(filters.map((it) => [it, ''])));
    setSearch('');
  };
  return (
    <div className="mb-2 flex flex-wrap items-center gap-2">
      <Search typed={search} onTyped={setSearch} asked={filter.search ?? ''} />
      <Picks filter={filter} job={job} />
      <DayFilter label="From the day" day={filter.from ?? ''} month={month} onDay={(from) => set({ from })} />
      {filter.to && <span className="note">to {displayDate(filter.to)}</span>}
      {filter.section !== undefined && <span className="note">Section {filter.section || '(none)'}</span>}
      {filter.party && <span className="note">{nameOf(filter.party)}</span>}
      {filter.posting && <span className="note">Document {filter.posting}</span>}
      {filter.commitment && <span className="note">Order {filter.commitment}</span>}
      {narrowed && (
        <button type="button" className="button bare" onClick={showAll}>
          Show all
        </button>
      )}
      <span className="ml-auto" />
      {job !== undefined && <Link to={withMonth(`/jobs/${encodeURIComponent(job)}/material-on-site`)}>Material on site</Link>}
      {children}
      <May do="export:costLedgerCsv">
        <a className="button" href={hrefOf(CALLS.costLedgerCsv, filter)} download>
          Download CSV
        </a>
      </May>
    </div>
  );
}

interface SearchProps {
  typed: string;
  onTyped: (text: string) => void;
  /** What the ledger is asked for now. */
  asked: string;
}

/** Text to look for; asked for when the typing pauses. */
function Search({ typed, onTyped, asked }: SearchProps) {
  const set = useSetParam();
  useEffect(() => {
    const timer = setTimeout(() => typed !== asked && set({ q: typed }), 300);
    return () => clearTimeout(timer);
  });
  return (
    <input
      type="search"
      className="box w-[200px]"
      aria-label="Find in reference, party, description"
      placeholder="Reference, party, description"
      value={typed}
      onChange={(event) => onTyped(event.target.value)}
    />
  );
}

function Picks({ filter, job }: Omit<FiltersProps, 'children'>) {
  const { asOf } = useAsOf();
  const { data: lists } = useListsQuery({ asOf });
  const [params] = useSearchParams();
  const subtotals = ['month', ...(job === undefined ? ['job'] : []), 'section', 'code', 'type', 'party'];
  const jobs = (lists?.jobs ?? []).map((it) => [it.number, `${it.number} ${it.name}`] as const);
  const codes = (lists?.costCodes ?? []).map((it) => [it.code, `${it.code} ${it.description}`] as const);
  return (
    <>
      {job === undefined && <Pick label="Job" name="job" value={filter.job} all="Job: all" options={jobs} />}
      <Pick label="Code" name="code" value={filter.costCode} all="Code: all" options={codes} />
      <Pick label="Type" name="type" value={filter.costType} all="Type: all" options={COST_TYPES.map((it) => [it, it])} />
      <Pick
        label="Subtotals"
        name="by"
        value={params.get('by') ?? ''}
        all="Every entry"
        options={subtotals.map((it) => [it, `Subtotals by ${it}`])}
      />
    </>
  );
}

interface PickProps {
  label: string;
  name: string;
  value: string | undefined;
  all: string;
  options: readonly Option[];
}

function Pick({ label, name, value, all, options }: PickProps) {
  const set = useSetParam();
  return (
    <Choice
      aria-label={label}
      className="box w-[150px]"
      value={value ?? ''}
      options={[['', all], ...options]}
      onChange={(chosen) => set({ [name]: chosen })}
    />
  );
}
