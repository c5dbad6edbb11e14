import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { ABOUTS } from '../../../core/audit/abouts';
import { hrefOf } from '../../../wire/call';
import { CALLS } from '../../../wire/calls';
import { useAuditQuery, useListsQuery } from '../../ground/api/api';
import { useAsOf } from '../../ground/asOf';
import { May } from '../../ground/person';
import { faultOf } from '../../ground/faults';
import { Choice } from '../../kit/choice/Choice';
import { DayFilter } from '../../kit/form/DayInput';
import { PageHead } from '../../kit/PageHead';
import { Refused, Waiting } from '../../kit/States';
import { AuditTable } from './AuditTable';

const NAMES = ['job', 'subject', 'about', 'actor', 'from', 'to'] as const;

/** Who did what, when, and what was before: by job, kind of document, person and day. */
export function AuditPage() {
  const [params] = useSearchParams();
  const filter = Object.fromEntries(NAMES.flatMap((name) => (params.get(name) ? [[name, params.get(name) ?? '']] : [])));
  const key = JSON.stringify(filter);
  const [begins, setBegins] = useState<{ of: string; pages: readonly number[] }>({ of: '', pages: [] });
  const pages = begins.of === key ? begins.pages : [];
  const before = pages.at(-1);
  const asked = before === undefined ? filter : { ...filter, before: String(before) };
  const { data, error, refetch } = useAuditQuery(asked as never, { refetchOnMountOrArgChange: true });
  return (
    <div className="page">
      <PageHead title="Audit trail">
        <May do="export:auditCsv">
          <a className="button" href={hrefOf(CALLS.auditCsv, filter)}>
            CSV
          </a>
        </May>
      </PageHead>
      <Filters people={data?.people ?? []} />
      {error && <Refused message={faultOf(error).message} onRetry={refetch} />}
      {!data && !error && <Waiting what="the audit trail" />}
      {data && <AuditTable rows={data.rows} withSubject />}
      {data && (
        <p className="mt-2 flex gap-3">
          {pages.length > 0 && (
            <button type="button" className="button" onClick={() => setBegins({ of: key, pages: pages.slice(0, -1) })}>
              Newer
            </button>
          )}
          {data.next !== null && (
            <button type="button" className="button" onClick={() => setBegins({ of: key, pages: [...pages, data.next ?? 0] })}>
              Older
            </button>
          )}
        </p>
      )}
    </div>
  );
}

function Filters({ people }: { people: readonly string[] }) {
  const { asOf, month } = useAsOf();
  const { data: lists } = useListsQuery({ asOf });
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
  const pick = (name: (typeof NAMES)[number], label: string, options: readonly (readonly [string, string])[]) => (
    <Choice
      aria-label={label}
      className="box filter"
      value={params.get(name) ?? ''}
      options={[['', `${label}: all`], ...options]}
      onChange={(chosen) => set(name, chosen)}
    />
  );
  const subject = params.get('subject');
  return (
    <div className="mb-2 flex flex-wrap items-center gap-2">
      {pick(
        'job',
        'Job',
        (lists?.jobs ?? []).map((it) => [it.number, `${it.number} ${it.name}`] as const),
      )}
      {pick(
        'about',
        'About',
        ABOUTS.map((it) => [it, it] as const),
      )}
      {pick(
        'actor',
        'Person',
        people.map((it) => [it, it] as const),
      )}
      <DayFilter label="From" day={params.get('from') ?? ''} month={month} onDay={(day) => set('from', day)} />
      <DayFilter label="To" day={params.get('to') ?? ''} month={month} onDay={(day) => set('to', day)} />
      {subject && (
        <button type="button" className="button bare" onClick={() => set('subject', '')}>
          Only {subject}: show all
        </button>
      )}
    </div>
  );
}
