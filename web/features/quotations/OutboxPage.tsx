import { displayMoment } from '../../kit/displayMoment';
import { useMemo, useState } from 'react';
import { hrefOf } from '../../../wire/call';
import { CALLS } from '../../../wire/calls';
import type { MessageRow } from '../../../wire/quotations';
import { useMessagesQuery } from '../../ground/api/api';
import { useColumnKinds } from '../../ground/columnKinds';
import { Loaded } from '../../ground/Loaded';
import { Table } from '../../kit/table/Table';

/** The messages that went out: the stand-in for mail writes each as a file, and shows it. */
export function OutboxPage() {
  const messages = useMessagesQuery();
  return (
    <div className="page">
      <h1 className="mb-1">Outbox</h1>
      <p className="note mb-4 mt-0">
        Messages are written as mail files beside the database, for a mail program to take. Nothing leaves this machine by itself.
      </p>
      <Loaded of={messages} what="the outbox">
        {(data) =>
          data.length === 0 ? (
            <p className="note">Nothing was sent yet. Quotations and change orders are sent from their own pages.</p>
          ) : (
            <Messages messages={data} />
          )
        }
      </Loaded>
    </div>
  );
}

function Messages({ messages }: { messages: readonly MessageRow[] }) {
  const [open, setOpen] = useState<number | null>(null);
  const columns = useMessageColumns(setOpen);
  const shown = messages.find((it) => it.id === (open ?? messages[0]?.id));
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)] items-start gap-8">
      <Table
        label="Messages"
        columns={columns}
        rows={messages}
        rowKey={(it) => String(it.id)}
        isCurrent={(it) => it.id === shown?.id}
      />
      {shown && <Message it={shown} />}
    </div>
  );
}

function useMessageColumns(open: (id: number) => void) {
  const kinds = useColumnKinds();
  return useMemo(
    () => [
      {
        ...kinds.text<MessageRow>('sent', 'Sent', (it) => it.sentAt),
        cell: (it: MessageRow) => <span className="whitespace-nowrap">{displayMoment(it.sentAt)}</span>,
      },
      kinds.text<MessageRow>('to', 'To', (it) => it.recipient),
      {
        ...kinds.text<MessageRow>('subject', 'Subject', (it) => it.subject),
        cell: (it: MessageRow) => (
          <button type="button" className="fig" onClick={() => open(it.id)}>
            {it.subject}
          </button>
        ),
      },
      kinds.link<MessageRow>(
        'job',
        'Job',
        (it) => it.job,
        (it) => `/jobs/${encodeURIComponent(it.job)}`,
      ),
    ],
    [kinds, open],
  );
}

function Message({ it }: { it: MessageRow }) {
  return (
    <article className="sheet px-6 py-5">
      <h2>{it.subject}</h2>
      <p className="note mb-3 mt-1">
        To {it.recipient}, by {it.actor}, with {it.attachments.join(', ')}
      </p>
      <p className="whitespace-pre-line break-words">{it.body}</p>
      <a className="button mt-4" href={hrefOf(CALLS.messageFile, { id: it.id })} download>
        The mail file, EML
      </a>
    </article>
  );
}
