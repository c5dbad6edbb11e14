import { useState } from 'react';
import { useParams, useSearchParams } from 'react-router';
import { POSTING_KINDS, POSTINGS } from '../../../core/ledger/posting';
import type { PostingsParams } from '../../../wire/ledger';
import { useListsQuery, usePostingsQuery } from '../../ground/api/api';
import { useAsOf } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import { PageHead } from '../../kit/PageHead';
import { Refused, Waiting } from '../../kit/States';
import type { TableOrder } from '../../kit/table/tableTypes';
import { DocumentTable } from './DocumentTable';
import { Choice } from '../../kit/choice/Choice';
import { DayFilter } from '../../kit/form/DayInput';

/** Every posted document, newest first, or by number or amount. */
export function PostedDocumentsPage() {
  return (
    <div className="page">
      <PageHead title="Posted documents" />
      <PostedDocuments />
    </div>
  );
}

/** The posted documents of a job, as a part of its page. */
export function JobDocuments() {
  const { number } = useParams();
  return <PostedDocuments job={number} />;
}

function PostedDocuments({ job }: { job?: string }) {
  const filter = useFilter(job);
  const order = useOrder();
  const byAge = order.key !== 'total' && order.descending;
  // Where each page that was looked at begins; the last is shown.
  const [begins, setBegins] = useState<{ of: string; pages: readonly string[] }>({ of: '', pages: [] });
  const key = JSON.stringify(filter);
  const pages = begins.of === key ? begins.pages : [];
  const before = pages.at(-1);
  const { data, error, refetch } = usePostingsQuery({ ...filter, ...(before === undefined ? {} : { before }) });
  return (
    <>
      <Filters job={job} />
      {error && <Refused message={faultOf(error).message} onRetry={refetch} />}
      {!data && !error && <Waiting what="the posted documents" />}
      {data && <DocumentTable rows={data.postings} withJob={job === undefined} order={order} />}
      {data && (
        <p className="mt-2 flex items-center gap-3">
          <span className="note">
            {data.count.toLocaleString('en')} {data.count === 1 ? 'document' : 'documents'}
          </span>
          {pages.length > 0 && (
            <button type="button" className="button" onClick={() => setBegins({ of: key, pages: pages.slice(0, -1) })}>
              {byAge ? 'Newer' : 'Back'}
            </button>
          )}
          {data.next !== null && (
            <button type="button" className="button" onClick={() => setBegins({ of: key, pages: [...pages, data.next ?? ''] })}>
              {byAge ? 'Older' : 'More'}
            </button>
          )}
        </p>
      )}
    </>
  );
}

/** What is asked for, as it stands in the address. */
function useFilter(job: string | undefined): PostingsParams {
  const { asOf } = useAsOf();
  const [params] = useSearchParams();
  const asked = Object.fromEntries(
    ['job', 'kind', 'from', 'to', 'search', 'total', 'sort', 'ascending'].flatMap((key) => {
      const value = params.get(key);
      return value ? [[key, value]] : [];
    }),
  );
  return { ...asked, ...(job === undefined ? {} : { job }), asOf };
}

/** What the list is ordered by: pressed again, the other way round. */
function useOrder(): TableOrder {
  const [params, setParams] = useSearchParams();
  const [key, ascending] = [params.get('sort') ?? 'dated', params.get('ascending') === 'yes'];
  const onOrder = (next: string) =>
    setParams(
      (was) => {
        const after = new URLSearchParams(was);
        after.set('sort', next);
        if (next === key && !ascending) after.set('ascending', 'yes');
        else after.delete('ascending');
        return after;
      },
      { replace: true },
    );
  return { key, descending: !ascending, onOrder };
}

function Filters({ job }: { job?: string }) {
  const { asOf, month } = useAsOf();
  const { data: lists } = useListsQuery({ asOf });
  const { read, exact, code } = useCurrency();
  const [params, setParams] = useSearchParams();
  const set = (key: string, value: string) =>
    setParams(
      (was) => {
        const next = new URLSearchParams(was);
        if (value) next.set(key, value);
        else next.delete(key);
        return next;
      },
      { replace: true },
    );
  const total = params.get('total');
  return (
    <div className="mb-2 flex flex-wrap items-center gap-2">
      <Choice
        aria-label="Kind"
        className="box filter"
        value={params.get('kind') ?? ''}
        options={[['', 'Kind: all'], ...POSTING_KINDS.map((kind) => [kind, POSTINGS[kind].title] as const)]}
        onChange={(kind) => set('kind', kind)}
      />
      {job === undefined && (
        <Choice
          aria-label="Job"
          className="box filter"
          value={params.get('job') ?? ''}
          options={[['', 'Job: all'], ...(lists?.jobs ?? []).map((it) => [it.number, `${it.number} ${it.name}`] as const)]}
          onChange={(number) => set('job', number)}
        />
      )}
      <Typed label="Reference or note" shown={params.get('search') ?? ''} onTyped={(text) => set('search', text.trim())} />
      <DayFilter label="From" day={params.get('from') ?? ''} month={month} onDay={(day) => set('from', day)} />
      <DayFilter label="To" day={params.get('to') ?? ''} month={month} onDay={(day) => set('to', day)} />
      <Typed
        label={`Amount, ${code}`}
        shown={total === null ? '' : exact(Number(total))}
        onTyped={(text) => set('total', text.trim() === '' ? '' : String(Math.abs(read(text) ?? Number(total ?? 0)) || ''))}
      />
    </div>
  );
}

/** A filter that is typed: it counts on Enter and when it is left. */
function Typed({ label, shown, onTyped }: { label: string; shown: string; onTyped: (text: string) => void }) {
  return (
    <input
      key={shown}
      className="box filter"
      aria-label={label}
      placeholder={label}
      defaultValue={shown}
      onBlur={(event) => event.target.value !== shown && onTyped(event.target.value)}
      onKeyDown={(event) => event.key === 'Enter' && onTyped(event.currentTarget.value)}
    />
  );
}
