import { usePostingQuery, useReversePostingMutation } from '../../ground/api/api';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { toast } from 'sonner';
import { displayDate } from '../../../core/calendar/displayDate';
import type { PostingView } from '../../../wire/ledger';
import { useAsOf, useKeepMonth } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import { Field } from '../../kit/Field';
import { Journal } from '../../kit/Journal';
import { readDate } from '../../kit/typed/readDate';
import { Refused, Waiting } from '../../kit/States';
import { PageHead } from '../../kit/PageHead';

/** One posting: what it is, its journals, the entries behind it, and the way to reverse it. */
export function PostedDocumentPage() {
  const { id = '' } = useParams();
  const { data, error, refetch } = usePostingQuery({ posting: Number(id) });
  const keep = useKeepMonth();
  const { show } = useCurrency();
  if (error)
    return (
      <div className="page">
        <Refused message={faultOf(error).message} onRetry={refetch} />
      </div>
    );
  if (!data) return <Waiting what={`posting ${id}`} />;
  return (
    <div className="page" style={{ maxWidth: 1000 }}>
      <PageHead title={`Document ${data.id}: ${data.kindName.toLowerCase()}`} />
      <dl className="m-0 mb-4 grid gap-x-4 gap-y-1" style={{ gridTemplateColumns: '110px 1fr' }}>
        <dt className="note">Dated</dt>
        <dd className="m-0">{displayDate(data.dated)}</dd>
        {data.job && (
          <>
            <dt className="note">Job</dt>
            <dd className="m-0">
              <Link to={keep(`/jobs/${encodeURIComponent(data.job)}`)}>{data.job}</Link>
            </dd>
          </>
        )}
        <dt className="note">Reference</dt>
        <dd className="m-0">
          {data.kind === 'application' && data.job ? (
            <Link to={keep(`/jobs/${encodeURIComponent(data.job)}/billing/${data.reference}`)}>Application {data.reference}</Link>
          ) : (
            data.reference
          )}
        </dd>
        <dt className="note">Recorded</dt>
        <dd className="m-0">
          {data.actor}, {new Date(data.recordedAt).toLocaleString('en-GB', { dateStyle: 'long', timeStyle: 'short' })}
        </dd>
        {data.note && (
          <>
            <dt className="note">Reason</dt>
            <dd className="m-0">{data.note}</dd>
          </>
        )}
        {data.reverses && (
          <>
            <dt className="note">Reverses</dt>
            <dd className="m-0">
              <Link to={keep(`/ledger/postings/${data.reverses}`)}>document {data.reverses}</Link>
            </dd>
          </>
        )}
        {data.reversedBy && (
          <>
            <dt className="note">Reversed by</dt>
            <dd className="m-0">
              <Link to={keep(`/ledger/postings/${data.reversedBy}`)}>document {data.reversedBy}</Link>
            </dd>
          </>
        )}
        {data.entryCount > 0 && (
          <>
            <dt className="note">Entries</dt>
            <dd className="m-0">
              <Link to={keep(`/costs/ledger?posting=${data.id}`)}>
                {data.entryCount.toLocaleString('en-GB')} cost {data.entryCount === 1 ? 'entry' : 'entries'}
              </Link>
            </dd>
          </>
        )}
      </dl>
      <Reversal key={data.id} posting={data} />
      {data.journals.slice(0, MOST_JOURNALS).map((journal, i) => (
        <div key={i} className="mb-4">
          <Journal journal={journal} show={show} />
        </div>
      ))}
      {data.journals.length > MOST_JOURNALS && (
        <p className="note">
          The first {MOST_JOURNALS} of {data.journals.length} journals, one a day; the trial balance holds them all.
        </p>
      )}
    </div>
  );
}

const MOST_JOURNALS = 40;

function Reversal({ posting }: { posting: PostingView }) {
  const { month } = useAsOf();
  const { exact } = useCurrency();
  const [open, setOpen] = useState(false);
  const [on, setOn] = useState(displayDate(posting.dated));
  const [reason, setReason] = useState('');
  const [fault, setFault] = useState<string>();
  const [reverse, { isLoading }] = useReversePostingMutation();
  if (posting.fixed) return <p className="note mb-4">{posting.fixed}.</p>;
  if (!open)
    return (
      <button type="button" className="button mb-4" onClick={() => setOpen(true)}>
        Reverse this document …
      </button>
    );
  const submit = async (event: React.FormEvent) => {
    event.preventDefault();
    const day = readDate(on, month);
    if (!day) return setFault('Reversed on: enter a date, e.g. 30 Apr 2031');
    if (reason.trim() === '') return setFault('Enter a reason for the reversal');
    try {
      const posted = await reverse({ posting: posting.id, body: { on: day, reason } }).unwrap();
      toast(`Document ${posting.id} is reversed by document ${posted.postingId}, ${exact(posted.total)}`);
    } catch (error) {
      setFault(faultOf(error).message);
    }
  };
  return (
    <form className="mb-4 flex flex-wrap items-end gap-3" onSubmit={submit}>
      <Field label="Reversed on">
        <input value={on} style={{ width: 130 }} onChange={(event) => setOn(event.target.value)} />
      </Field>
      <Field label="Reason">
        <input value={reason} style={{ width: 320 }} autoFocus onChange={(event) => setReason(event.target.value)} />
      </Field>
      <button className="button main" disabled={isLoading}>
        Reverse document {posting.id}
      </button>
      {fault && <Refused message={fault} />}
    </form>
  );
}
