import { displayMoment } from '../../kit/displayMoment';
import { useMemo, useState } from 'react';
import { hrefOf } from '../../../wire/call';
import { CALLS } from '../../../wire/calls';
import type { MessageRow } from '../../../wire/quotations';
import { useDeliverMessageMutation, useMessagesQuery, useSessionQuery } from '../../ground/api/api';
import { useColumnKinds } from '../../ground/columnKinds';
import { Loaded } from '../../ground/Loaded';
import { useAttempt } from '../../ground/useAttempt';
import { Refused } from '../../kit/States';
import { Table } from '../../kit/table/Table';

/** The messages that were prepared, each as a mail file; handed to the company's mail server where one is set up. */
export function OutboxPage() {
  const messages = useMessagesQuery();
  const { data: session } = useSessionQuery();
  return (
    <div className="page">
      <h1 className="mb-1">Outbox</h1>
      <p className="note mb-4 mt-0">
        {session?.sendsMail
          ? 'Messages are prepared here, and sent by the mail server of the company.'
          : 'Messages are prepared here as mail files, for a mail program to take. No mail server is set up, so Ledrin sends nothing itself.'}
      </p>
      <Loaded of={messages} what="the outbox">
        {(data) =>
          data.length === 0 ? (
            <p className="note">No messages yet. Quotations and change orders are issued from their own pages.</p>
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
        ...kinds.text<MessageRow>('prepared', 'Prepared', (it) => it.sentAt),
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
      kinds.text<MessageRow>('state', 'State', (it) => it.state),
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
      <Delivery it={it} />
      <a className="button mt-4" href={hrefOf(CALLS.messageFile, { id: it.id })} download>
        The mail file, EML
      </a>
    </article>
  );
}

/** What became of a message, and the way to send it, or to try again. */
function Delivery({ it }: { it: MessageRow }) {
  const { data: session } = useSessionQuery();
  const [send, { isLoading }] = useDeliverMessageMutation();
  const { refused, attempt } = useAttempt();
  const words = {
    prepared: 'Prepared; not sent yet.',
    sent: `Sent ${it.triedAt ? displayMoment(it.triedAt) : ''}.`,
    failed: `Not sent: tried ${it.triedAt ? displayMoment(it.triedAt) : ''}. ${it.failure}`,
  }[it.state];
  return (
    <>
      <p className={it.state === 'failed' ? 'fault' : 'note'}>{words}</p>
      {session?.sendsMail && it.state !== 'sent' && (
        <button
          type="button"
          className="button main mr-3"
          disabled={isLoading}
          onClick={() => void attempt(() => send({ id: it.id }).unwrap())}
        >
          {it.state === 'failed' ? 'Try again' : 'Send'}
        </button>
      )}
      {refused && <Refused message={refused.message} />}
    </>
  );
}
