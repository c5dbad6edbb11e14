import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { actionOf } from '../../../core/audit/actions';
import type { AuditRow } from '../../../wire/audit';
import { useWithMonth } from '../../ground/asOf';
import { useColumnKinds } from '../../ground/columnKinds';
import { useCurrency } from '../../ground/company';
import { displayMoment } from '../../kit/displayMoment';
import { Table } from '../../kit/table/Table';
import { describeDetail } from './describeDetail';

/** Facts shown before the rest is asked for. */
const FIRST = 3;

/** Lines of the audit trail, in the order they happened: a page of it cannot be sorted otherwise. */
export function AuditTable({ rows, withSubject }: { rows: readonly AuditRow[]; withSubject: boolean }) {
  const kinds = useColumnKinds();
  const columns = useMemo(
    () => [
      {
        ...kinds.text<AuditRow>('at', 'When', (it) => it.at, { width: 150, unsorted: true }),
        cell: (it: AuditRow) => <span className="whitespace-nowrap">{displayMoment(it.at)}</span>,
      },
      kinds.text<AuditRow>('actor', 'Who', (it) => it.actor, { width: 130, unsorted: true }),
      kinds.text<AuditRow>('action', 'What', (it) => actionOf(it.command), { width: 210, unsorted: true }),
      ...(withSubject
        ? [
            {
              ...kinds.text<AuditRow>('subject', 'Of', (it) => it.subject, { width: 150, unsorted: true }),
              cell: (it: AuditRow) => <Subject subject={it.subject} />,
            },
          ]
        : []),
      { key: 'detail', title: 'Details', cell: (it: AuditRow) => <Detail detail={it.detail} /> },
    ],
    [kinds, withSubject],
  );
  return (
    <Table label="Audit trail" columns={columns} rows={rows} rowKey={(it) => String(it.id)} empty="Nothing recorded" unsearched />
  );
}

function Subject({ subject }: { subject: string }) {
  const withMonth = useWithMonth();
  const posting = /^posting (\d+)$/.exec(subject)?.[1];
  return posting ? <Link to={withMonth(`/ledger/postings/${posting}`)}>document {posting}</Link> : <>{subject}</>;
}

function Detail({ detail }: { detail: unknown }) {
  const { exact } = useCurrency();
  const [all, setAll] = useState(false);
  const lines = describeDetail(detail, exact);
  const shown = all ? lines : lines.slice(0, FIRST);
  return (
    <>
      {shown.map((it) => (
        <div key={it.name}>
          <span className="note">{it.name} </span>
          {it.was !== null && <>{it.was} → </>}
          {it.now}
        </div>
      ))}
      {lines.length > FIRST && (
        <button type="button" className="fig" aria-expanded={all} onClick={() => setAll(!all)}>
          {all ? 'less' : `${lines.length - FIRST} more`}
        </button>
      )}
    </>
  );
}
