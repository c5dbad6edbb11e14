import { present } from '../../../core/errors/known';
import { useAcceptOfferMutation, useAnswerQuery, useAskAboutOfferMutation, useDeclineOfferMutation } from '../../ground/api/api';
import { hrefOf } from '../../../wire/call';
import { CALLS } from '../../../wire/calls';
import { useEffect, useRef, useState } from 'react';
import { useParams } from 'react-router';
import { displayDate } from '../../../core/calendar/displayDate';
import { displayExact } from '../../../core/money/display';
import type { AnswerView } from '../../../wire/quotations';
import { faultOf } from '../../ground/faults';
import { ClientDocumentSheet } from '../../ground/offers/ClientDocumentSheet';
import { useStanding } from '../../ground/useStanding';
import { Field } from '../../kit/Field';
import { Refused, Waiting } from '../../kit/States';
import { SignatureField } from './SignatureField';

/** The client's own page: the document, questions about it, and the answer to it. */
export function AnswerPage() {
  const { token = '' } = useParams();
  const { data, error } = useStanding(useAnswerQuery({ token }));
  useEffect(() => {
    document.title = data ? `${data.document.title}, ${data.document.company.name}` : 'You have received a document';
  }, [data]);
  const state = useRef<HTMLParagraphElement>(null);
  const was = useRef(data?.status);
  // What was answered is said at the top: whoever answered is led there.
  useEffect(() => {
    if (was.current === 'open' && data && data.status !== 'open') {
      state.current?.scrollIntoView?.({ block: 'center' });
      state.current?.focus();
    }
    was.current = data?.status;
  }, [data]);
  if (error)
    return (
      <main className="mx-auto max-w-[720px] p-6">
        <h1>You have received a document</h1>
        <Refused message={faultOf(error).message} />
      </main>
    );
  if (!data) return <Waiting what="the document" />;
  return (
    <main className="narrow mx-auto max-w-[820px] px-4 py-8">
      <h1 className="mb-1">
        {data.document.title} of {data.document.company.name}
      </h1>
      <p ref={state} tabIndex={-1} className="mt-0">
        <State view={data} />{' '}
        <a href={hrefOf(CALLS.answerDocument, { token })} target="_blank" rel="noreferrer">
          Read it as PDF
        </a>
      </p>
      <ClientDocumentSheet document={data.document} />
      <Questions view={data} token={token} />
      {data.status === 'open' && data.closed === null && <Answer token={token} document={data.document} />}
    </main>
  );
}

function State({ view }: { view: AnswerView }) {
  if (view.status === 'open')
    return view.closed === null ? (
      <>Please read it, ask what you want to know, and answer below.</>
    ) : (
      <b className="text-[var(--loss)]">{view.closed}.</b>
    );
  return (
    <b style={{ color: view.status === 'accepted' ? 'var(--good)' : 'var(--loss)' }}>
      {view.status === 'accepted' ? 'Accepted' : 'Declined'} by {view.answeredBy} on{' '}
      {displayDate(present(view.answeredAt).slice(0, 10))}.
      {view.accepted && view.accepted.options.length > 0 && (
        <>
          {' '}
          With {view.accepted.options.join(', ')}: {displayExact(view.accepted.total, view.document.digits)}{' '}
          {view.document.currency} before tax.
        </>
      )}
      {view.seal && <span className="note font-normal"> Reference {view.seal.slice(0, 16)}…</span>}
    </b>
  );
}

function Questions({ view, token }: { view: AnswerView; token: string }) {
  const [form, setForm] = useState({ name: '', question: '' });
  const [fault, setFault] = useState<string | null>(null);
  const [send] = useAskAboutOfferMutation();
  const ask = async (event: React.FormEvent) => {
    event.preventDefault();
    try {
      await send({ token, body: form }).unwrap();
      setForm({ ...form, question: '' });
      setFault(null);
    } catch (error) {
      setFault(faultOf(error).message);
    }
  };
  return (
    <section className="mt-6" aria-label="Questions">
      <h2 className="mb-2">Questions</h2>
      {view.questions.map((it, i) => (
        <div key={i} className="mb-2 border-l-4 pl-3 border-[var(--rule)]">
          <p className="m-0">
            <b>{it.askedBy}</b>: {it.question}
          </p>
          <p className="note m-0">{it.answer || 'Not answered yet.'}</p>
        </div>
      ))}
      {view.status === 'open' && view.closed === null && (
        <form className="flex flex-col gap-2" onSubmit={(event) => void ask(event)}>
          <div className="grid items-end gap-3 sm:grid-cols-[200px_minmax(0,1fr)_auto]">
            <Field label="Your name">
              <input value={form.name} onChange={(event) => setForm({ ...form, name: event.target.value })} />
            </Field>
            <Field label="What would you like to know?">
              <input value={form.question} onChange={(event) => setForm({ ...form, question: event.target.value })} />
            </Field>
            <button className="button">Ask</button>
          </div>
          {fault && <Refused message={fault} />}
        </form>
      )}
    </section>
  );
}

function Answer({ token, document }: { token: string; document: AnswerView['document'] }) {
  const { kind, alternates, total, currency, digits } = document;
  const [options, setOptions] = useState<readonly number[]>([]);
  const chosen = options.reduce((sum, place) => sum + (alternates[place - 1]?.amount ?? 0), total);
  const [name, setName] = useState('');
  const [signature, setSignature] = useState('');
  const [reason, setReason] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  const [accept, accepting] = useAcceptOfferMutation();
  const [decline, declining] = useDeclineOfferMutation();
  const isLoading = accepting.isLoading || declining.isLoading;
  const send = async (how: 'accept' | 'decline') => {
    try {
      if (how === 'accept') await accept({ token, body: { name, signature, options: [...options] } }).unwrap();
      else await decline({ token, body: { name, reason } }).unwrap();
    } catch (error) {
      setFault(faultOf(error).message);
    }
  };
  return (
    <section className="sheet mt-6 px-4 py-4" aria-label="Your answer">
      <h2 className="mb-2">Your answer</h2>
      <div className="grid gap-4">
        <Field label="Your full name">
          <input value={name} className="max-w-[400px]" onChange={(event) => setName(event.target.value)} />
        </Field>
        {alternates.length > 0 && (
          <fieldset className="m-0 border-0 p-0">
            <legend className="note text-[12.5px]">Options you want with it</legend>
            {alternates.map((it, i) => (
              <label key={i} className="flex items-baseline gap-2 py-1">
                <input
                  type="checkbox"
                  checked={options.includes(i + 1)}
                  onChange={(event) =>
                    setOptions((before) => (event.target.checked ? [...before, i + 1] : before.filter((it) => it !== i + 1)))
                  }
                />
                <span className="grow">{it.name}</span>
                <span className="figure">{displayExact(it.amount, digits)}</span>
              </label>
            ))}
            <p className="m-0 mt-1" role="status">
              You accept{' '}
              <b>
                {displayExact(chosen, digits)} {currency}
              </b>{' '}
              before tax.
            </p>
          </fieldset>
        )}
        <SignatureField value={signature} name={name} onValue={setSignature} />
        <div className="flex flex-wrap items-end gap-3">
          <button
            type="button"
            className="button main"
            disabled={isLoading || name.trim() === '' || signature === ''}
            onClick={() => void send('accept')}
          >
            Accept the {kind === 'change' ? 'change order' : 'quotation'} as it is written
          </button>
          <span className="note">It is stored with your name and signature, exactly as shown here.</span>
        </div>
        <div className="flex items-end gap-3 border-t pt-3 border-[var(--hair)]">
          <Field label="Reason for declining" className="grow">
            <input value={reason} onChange={(event) => setReason(event.target.value)} />
          </Field>
          <button
            type="button"
            className="button"
            disabled={isLoading || name.trim() === '' || reason.trim() === ''}
            onClick={() => void send('decline')}
          >
            Decline
          </button>
        </div>
        {fault && <Refused message={fault} />}
      </div>
    </section>
  );
}
