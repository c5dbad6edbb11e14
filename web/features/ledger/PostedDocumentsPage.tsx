import { usePostingsQuery } from '../../ground/api/api';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { displayDate } from '../../../core/calendar/displayDate';
import type { PostingRow } from '../../../wire/ledger';
import { useAsOf, useKeepMonth } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import { Refused, Waiting } from '../../kit/States';
import { LedgerHead } from './LedgerHead';

const PAGE = 200;

function PostedDocumentTable({ job }: { job?: string }) {
  const { month } = useAsOf();
  const [offset, setOffset] = useState(0);
  const { data, error, refetch } = usePostingsQuery({
    asOf: month,
    ...(job === undefined ? {} : { job }),
    offset: String(offset),
  });
  const { code } = useCurrency();
  if (error) return <Refused message={faultOf(error).message} onRetry={refetch} />;
  if (!data) return <Waiting what="the postings" />;
  return (
    <>
      <table className="ledger">
        <thead>
          <tr>
            <th style={{ width: 70 }}>Posting</th>
            <th>Date</th>
            <th>Kind</th>
            {job === undefined && <th>Job</th>}
            <th>Reference</th>
            <th className="num">Debits, {code}</th>
            <th>Recorded by</th>
            <th>Recorded</th>
          </tr>
        </thead>
        <tbody>
          {data.postings.map((it) => (
            <PostedDocumentLine key={it.id} it={it} withJob={job === undefined} />
          ))}
          {data.count === 0 && (
            <tr>
              <td colSpan={8} className="note">
                Nothing is posted by this month.
              </td>
            </tr>
          )}
        </tbody>
      </table>
      {data.count > PAGE && (
        <p className="mt-2 flex items-center gap-3">
          <button type="button" className="press" disabled={offset === 0} onClick={() => setOffset(offset - PAGE)}>
            Newer
          </button>
          <span className="note">
            {offset + 1} to {Math.min(data.count, offset + PAGE)} of {data.count}
          </span>
          <button type="button" className="press" disabled={offset + PAGE >= data.count} onClick={() => setOffset(offset + PAGE)}>
            Older
          </button>
        </p>
      )}
    </>
  );
}

function PostedDocumentLine({ it, withJob }: { it: PostingRow; withJob: boolean }) {
  const keep = useKeepMonth();
  const { show } = useCurrency();
  return (
    <tr>
      <td>
        <Link to={keep(`/ledger/postings/${it.id}`)}>{it.id}</Link>
      </td>
      <td>{displayDate(it.dated)}</td>
      <td>
        {it.kindName}
        {it.reversedBy && <span className="note"> · reversed by {it.reversedBy}</span>}
        {it.reverses && <span className="note"> of {it.reverses}</span>}
      </td>
      {withJob && <td>{it.job ?? ''}</td>}
      <td>{it.reference}</td>
      <td className="num">{show(it.total)}</td>
      <td>{it.actor}</td>
      <td className="note">{new Date(it.recordedAt).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })}</td>
    </tr>
  );
}

/** Every posted posting, newest first. */
export function PostedDocumentsPage() {
  return (
    <div className="page">
      <LedgerHead title="Posted postings" />
      <PostedDocumentTable />
    </div>
  );
}

/** The postings of a job, as a part of its page. */
export function JobDocuments() {
  const { number } = useParams();
  return <PostedDocumentTable job={number} />;
}
