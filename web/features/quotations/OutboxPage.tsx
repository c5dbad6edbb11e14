import { useMessagesQuery } from '../../ground/api/api';
import { hrefOf } from '../../../wire/call';
import { CALLS } from '../../../wire/calls';
import { useState } from 'react';
import { Link } from 'react-router';
import { useKeepMonth } from '../../ground/asOf';
import { faultOf } from '../../ground/faults';
import { Refused, Waiting } from '../../kit/States';

/** The messages that went out: the stand-in for mail writes each as a file, and shows it. */
export function OutboxPage() {
  const { data, error, refetch } = useMessagesQuery();
  const keep = useKeepMonth();
  const [open, setOpen] = useState<number | null>(null);
  if (error)
    return (
      <div className="page">
        <Refused message={faultOf(error).message} onRetry={refetch} />
      </div>
    );
  if (!data) return <Waiting what="the outbox" />;
  const shown = data.find((it) => it.id === (open ?? data[0]?.id));
  return (
    <div className="page">
      <h1 className="mb-1">Outbox</h1>
      <p className="note mb-4 mt-0">
        Messages are written as mail files beside the database, for a mail program to take. Nothing leaves this machine by itself.
      </p>
      {data.length === 0 ? (
        <p className="note">Nothing was sent yet. Quotations and change orders are sent from their own pages.</p>
      ) : (
        <div className="grid items-start gap-8" style={{ gridTemplateColumns: 'minmax(0, 1fr) minmax(0, 1fr)' }}>
          <table className="ledger">
            <thead>
              <tr>
                <th>Sent</th>
                <th>To</th>
                <th>Subject</th>
                <th>Job</th>
              </tr>
            </thead>
            <tbody>
              {data.map((it) => (
                <tr key={it.id} style={it.id === shown?.id ? { background: 'var(--accent-soft)' } : undefined}>
                  <td className="whitespace-nowrap">
                    {new Date(it.sentAt).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })}
                  </td>
                  <td>{it.recipient}</td>
                  <td>
                    <button type="button" className="fig" onClick={() => setOpen(it.id)}>
                      {it.subject}
                    </button>
                  </td>
                  <td>
                    <Link to={keep(`/jobs/${encodeURIComponent(it.job)}`)}>{it.job}</Link>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          {shown && (
            <article className="border px-6 py-5" style={{ background: 'var(--sheet)', borderColor: 'var(--hair)' }}>
              <h2>{shown.subject}</h2>
              <p className="note mb-3 mt-1">
                To {shown.recipient}, by {shown.actor}, with {shown.attachments.join(', ')}
              </p>
              <p className="whitespace-pre-line break-words">{shown.body}</p>
              <a className="button mt-4" href={hrefOf(CALLS.messageFile, { id: shown.id })} download>
                The mail file, EML
              </a>
            </article>
          )}
        </div>
      )}
    </div>
  );
}
