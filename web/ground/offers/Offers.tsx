import { useCurrency } from '../company';
import { present } from '../../../core/errors/known';
import { hrefOf } from '../../../wire/call';
import { CALLS } from '../../../wire/calls';
import { useReplyToQuestionMutation, useSendChangeMutation, useSendQuotationMutation } from '../api/api';
import { useState } from 'react';
import { toast } from '../../kit/toast';
import { displayDate } from '../../../core/calendar/displayDate';
import type { OfferView, SendInput } from '../../../wire/quotations';
import { DayInput } from '../../kit/form/DayInput';
import { Field } from '../../kit/Field';
import { readDate } from '../../kit/typed/readDate';
import { Refused } from '../../kit/States';
import { useUnsaved } from '../../kit/unsaved';
import { useAsOf } from '../asOf';
import { May } from '../person';
import { HistoryLink } from '../HistoryLink';
import { faultOf } from '../faults';

/** A document a client gets: a quotation of a job, or a change order. */
export interface DocumentRef {
  job: string;
  kind: 'quotations' | 'changes';
  number: string;
}

function documentHref({ job, kind, number }: DocumentRef, format: 'pdf' | 'docx'): string {
  return kind === 'changes'
    ? hrefOf(CALLS.changeDocument, { job, change: number, format })
    : hrefOf(CALLS.quotationDocument, { job, quotation: Number(number), format });
}

/** Sends a document of either kind. */
function useSendDocument() {
  const [sendChange, change] = useSendChangeMutation();
  const [sendQuotation, quotation] = useSendQuotationMutation();
  const send = ({ job, kind, number }: DocumentRef, body: SendInput) =>
    kind === 'changes'
      ? sendChange({ job, change: number, body }).unwrap()
      : sendQuotation({ job, quotation: Number(number), body }).unwrap();
  return [send, change.isLoading || quotation.isLoading] as const;
}

/** The document as PDF and for a word processor, and what was done to it. */
export function DocumentDownloads({ of }: { of: DocumentRef }) {
  return (
    <span className="flex items-baseline gap-3">
      <HistoryLink subject={`${of.job}/${of.number}`} about={of.kind === 'changes' ? 'change' : 'quotation'} />
      <May do={of.kind === 'changes' ? 'export:changeDocument' : 'export:quotationDocument'}>
        <Files of={of} />
      </May>
    </span>
  );
}

function Files({ of }: { of: DocumentRef }) {
  return (
    <span className="flex gap-2" role="group" aria-label="The document">
      <a className="button" href={documentHref(of, 'pdf')} target="_blank" rel="noreferrer">
        PDF
      </a>
      <a className="button" href={documentHref(of, 'docx')} download>
        DOCX
      </a>
    </span>
  );
}

/** Writes the message a document goes out with. */
export function SendDocument({
  of,
  to,
  subject,
  label,
  before,
}: {
  of: DocumentRef;
  to: string;
  subject: string;
  label: string;
  before?: () => Promise<boolean>;
}) {
  const { month, entryDay } = useAsOf();
  const [form, setForm] = useState({
    on: displayDate(entryDay),
    to,
    subject,
    message: 'Please find our quotation attached. You can review it, ask questions and accept it at the link below.',
  });
  const [begun, setBegun] = useState(form);
  useUnsaved(JSON.stringify(form) !== JSON.stringify(begun));
  const [fault, setFault] = useState<string | null>(null);
  const [send, isLoading] = useSendDocument();
  const set = (key: keyof typeof form) => (event: { target: { value: string } }) =>
    setForm({ ...form, [key]: event.target.value });
  const submit = async (event: React.FormEvent) => {
    event.preventDefault();
    const on = readDate(form.on, month);
    if (!on) return setFault('Dated: enter a date, e.g. 30 Apr 2031');
    try {
      if (before && !(await before())) return setFault('This cannot be saved yet. Correct the fields marked in red');
      await send(of, { ...form, on });
      setBegun(form);
      toast(`Message to ${form.to} prepared in the outbox`);
      setFault(null);
    } catch (error) {
      setFault(faultOf(error).message);
    }
  };
  return (
    <form className="grid grid-cols-2 gap-3" onSubmit={(event) => void submit(event)}>
      <Field label="To">
        <input value={form.to} onChange={set('to')} />
      </Field>
      <Field label="Dated">
        <DayInput value={form.on} month={month} onText={(on) => setForm({ ...form, on })} />
      </Field>
      <Field label="Subject" className="col-span-2">
        <input value={form.subject} onChange={set('subject')} />
      </Field>
      <Field label="Message" className="col-span-2">
        <textarea rows={3} value={form.message} onChange={set('message')} />
      </Field>
      {fault && (
        <div className="col-span-2">
          <Refused message={fault} />
        </div>
      )}
      <button className="button main justify-self-start" disabled={isLoading}>
        {label}
      </button>
    </form>
  );
}

/** What was sent, and what came back: questions, the answer, and whether the document is still as it was. */
export function Offers({ offers }: { offers: readonly OfferView[] }) {
  const { exact } = useCurrency();
  if (offers.length === 0) return null;
  return (
    <>
      {offers.map((it) => (
        <section key={it.id} aria-label={`Issued to ${it.recipient}`} className="mb-4 border-t pt-2 border-[var(--hair)]">
          <p className="m-0">
            Issued {displayDate(it.sentOn)} to {it.recipient}.{' '}
            <a href={`/answer/${it.token}`} target="_blank" rel="noreferrer">
              The page the client answers on
            </a>
          </p>
          <p className="m-0">
            {it.status === 'open' && (it.closed ? `Not answered. ${it.closed}.` : 'Not answered yet.')}
            {it.status === 'accepted' && (
              <>
                <b className="text-[var(--good)]">Accepted</b> by {it.answeredBy} on{' '}
                {displayDate(present(it.answeredAt).slice(0, 10))}, signed
                {it.accepted && it.accepted.options.length > 0 && (
                  <>
                    , with {it.accepted.options.join(', ')}: {exact(it.accepted.total)}
                  </>
                )}
                .
              </>
            )}
            {it.status === 'declined' && (
              <>
                <b className="text-[var(--loss)]">Declined</b> by {it.answeredBy} on{' '}
                {displayDate(present(it.answeredAt).slice(0, 10))}: {it.reason}
              </>
            )}
          </p>
          {it.signature.startsWith('typed: ') && <p className="typed-signature">{it.signature.slice(7)}</p>}
          {it.signature && !it.signature.startsWith('typed: ') && (
            <svg viewBox="0 0 400 120" width="160" height="48" role="img" aria-label={`Signature of ${it.answeredBy}`}>
              <path d={it.signature} fill="none" stroke="currentColor" strokeWidth="2.5" />
            </svg>
          )}
          <p className="m-0 text-[12.5px]" style={{ color: it.intact ? 'var(--soft)' : 'var(--loss)' }}>
            {it.intact
              ? `As it was ${it.status === 'accepted' ? 'accepted' : 'issued'}: content hash ${it.hash.slice(0, 12)}…${it.seal && `, seal ${it.seal.slice(0, 12)}…`}`
              : 'The records have changed since this document was sent.'}
          </p>
          {it.questions.map((one) => (
            <Question key={one.id} of={one} />
          ))}
        </section>
      ))}
    </>
  );
}

function Question({ of }: { of: OfferView['questions'][number] }) {
  const [answer, setAnswer] = useState('');
  useUnsaved(answer !== '' && !of.answer);
  const [fault, setFault] = useState<string>();
  const [reply] = useReplyToQuestionMutation();
  const send = async (event: React.FormEvent) => {
    event.preventDefault();
    try {
      await reply({ id: of.id, body: { answer } }).unwrap();
    } catch (error) {
      setFault(faultOf(error).message);
    }
  };
  return (
    <div className="mt-2 border-l-4 pl-3 border-[var(--rule)]">
      <p className="m-0">
        <b>{of.askedBy}</b> asks: {of.question}
      </p>
      {of.answer ? (
        <p className="note m-0">
          {of.answeredBy}: {of.answer}
        </p>
      ) : (
        <form className="mt-1 flex items-end gap-2" onSubmit={(event) => void send(event)}>
          <Field label="Answer" fault={fault} className="grow">
            <input value={answer} onChange={(event) => setAnswer(event.target.value)} />
          </Field>
          <button className="button">Answer</button>
        </form>
      )}
    </div>
  );
}
