import { useStanding } from '../../ground/useStanding';
import { displayMoment } from '../../kit/displayMoment';
import { usePostingQuery, useReversePostingMutation } from '../../ground/api/api';
import { Fragment, useMemo, type ReactNode } from 'react';
import { Link, useParams } from 'react-router';
import { toast } from '../../kit/toast';
import { displayDate } from '../../../core/calendar/displayDate';
import { postingOfKind } from '../../../core/ledger/posting';
import type { PostingView } from '../../../wire/ledger';
import { addressOf } from '../../ground/addressOf';
import { useAsOf, useWithMonth } from '../../ground/asOf';
import { Approvals } from '../../ground/approvals/Approvals';
import { HistoryLink } from '../../ground/HistoryLink';
import { May } from '../../ground/person';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import { Journal } from '../../kit/Journal';
import { useCodecForm } from '../../kit/form/useCodecForm';
import { day, oneOf, words } from '../../kit/typed/codecs';
import { EnterAgain } from './EnterAgain';
import { Refused, Waiting } from '../../kit/States';
import { PageHead } from '../../kit/PageHead';
import { useOpening } from '../../kit/useOpening';

/** One posting: what it is, its journals, the entries behind it, and the way to reverse it. */
export function PostedDocumentPage() {
  const { id = '' } = useParams();
  const { data, error, refetch } = useStanding(usePostingQuery({ posting: Number(id) }));
  const { show } = useCurrency();
  if (error)
    return (
      <div className="page">
        <Refused message={faultOf(error).message} onRetry={refetch} />
      </div>
    );
  if (!data) return <Waiting what={`posting ${id}`} />;
  return (
    <div className="page max-w-[1000px]">
      <PageHead title={`Document ${data.id}: ${data.kindName.toLowerCase()}`}>
        <Beside posting={data} />
      </PageHead>
      <Facts posting={data} />
      <Approvals kind="past-reversal" document={String(data.id)} />
      <May do="correct-costs">
        <Reversal key={data.id} posting={data} />
      </May>
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

/** The documents recorded before and after it. */
function Beside({ posting: { previous, next } }: { posting: PostingView }) {
  const withMonth = useWithMonth();
  return (
    <span className="flex gap-3">
      {previous !== null && (
        <Link rel="prev" to={withMonth(`/ledger/postings/${previous}`)}>
          Document {previous}
        </Link>
      )}
      {next !== null && (
        <Link rel="next" to={withMonth(`/ledger/postings/${next}`)}>
          Document {next}
        </Link>
      )}
    </span>
  );
}

/** Where money was received on, and what it is called. */
function placeOf(job: string, { kind, reference }: NonNullable<PostingView['receivedOn']>): [to: string, name: string] {
  if (kind === 'application') return [`${job}/billing/${reference}`, `Application ${reference}`];
  if (kind === 'daywork') return [`${job}/charging/${encodeURIComponent(reference)}`, `Invoice ${reference}`];
  return [`${job}/billing`, `Retention release ${reference}`];
}

/** What is known of the document, each with the way to it. */
function Facts({ posting: it }: { posting: PostingView }) {
  const withMonth = useWithMonth();
  const link = (to: string, text: string) => <Link to={withMonth(to)}>{text}</Link>;
  const job = it.job && `/jobs/${encodeURIComponent(it.job)}`;
  const recorded = displayMoment(it.recordedAt);
  const entries = `${it.entryCount.toLocaleString('en-GB')} cost ${it.entryCount === 1 ? 'entry' : 'entries'}`;
  const isApplication = postingOfKind(it.kind).names === 'application' && job;
  const documents = (ids: readonly number[]) =>
    ids.length > 0 && (
      <>
        {ids.map((id, i) => (
          <Fragment key={id}>
            {i > 0 && ', '}
            {link(`/ledger/postings/${id}`, `document ${id}`)}
          </Fragment>
        ))}
      </>
    );
  const facts: readonly (readonly [string, ReactNode])[] = [
    ['Dated', displayDate(it.dated)],
    ['Job', job && link(job, it.job ?? '')],
    ['Client', it.client],
    ['Received on', job && it.receivedOn && link(...placeOf(job, it.receivedOn))],
    ['Reference', isApplication ? link(`${job}/billing/${it.reference}`, `Application ${it.reference}`) : it.reference || '–'],
    [
      'Recorded',
      <>
        {it.actor}, {recorded} · <HistoryLink subject={`posting ${it.id}`} />
      </>,
    ],
    ['Reason', it.note],
    ['Reverses', it.reverses && link(`/ledger/postings/${it.reverses}`, `document ${it.reverses}`)],
    ['Reversed by', it.reversedBy && link(`/ledger/postings/${it.reversedBy}`, `document ${it.reversedBy}`)],
    ['Corrects lines of', documents(it.corrects)],
    ['Lines corrected by', documents(it.correctedBy)],
    [
      'Week sheets',
      it.weekSheets.length > 0 &&
        it.weekSheets.map(({ sheet, dated }, i) => (
          <Fragment key={sheet}>
            {i > 0 && ', '}
            {link(`${addressOf({ place: 'week-sheet', document: sheet })}?on=${dated}`, `sheet ${sheet}`)}
          </Fragment>
        )),
    ],
    ['Entries', it.entryCount > 0 && link(`/costs/ledger?posting=${it.id}`, entries)],
  ];
  return (
    <dl className="m-0 mb-4 grid grid-cols-[110px_1fr] gap-x-4 gap-y-1">
      {facts
        .filter(([, value]) => Boolean(value))
        .map(([name, value]) => (
          <div key={name} className="contents">
            <dt className="note">{name}</dt>
            <dd className="m-0">{value}</dd>
          </div>
        ))}
    </dl>
  );
}

const MOST_JOURNALS = 40;

function Reversal({ posting }: { posting: PostingView }) {
  const { open, show, close, button, onKeyDown } = useOpening();
  if (posting.fixed)
    return (
      <>
        <p className="note mb-4">{posting.fixed}.</p>
        <EnterAgain posting={posting} />
      </>
    );
  return open ? (
    <div onKeyDown={onKeyDown}>
      <ReversalForm posting={posting} onClose={close} />
    </div>
  ) : (
    <button ref={button} type="button" className="button mb-4" onClick={show}>
      Reverse this document …
    </button>
  );
}

const WHEN = [
  ['own', 'each line on its own day'],
  ['one', 'all on one day'],
] as const;

function ReversalForm({ posting, onClose }: { posting: PostingView; onClose: () => void }) {
  const { month } = useAsOf();
  const { exact } = useCurrency();
  const fields = useMemo(
    () => ({ when: oneOf(['own', 'one']), on: day(month), reason: words('Enter a reason for the reversal') }),
    [month],
  );
  const form = useCodecForm(fields, {
    when: posting.entryCount > 0 ? 'own' : 'one',
    on: displayDate(posting.dated),
    reason: '',
  });
  const [reverse, { isLoading }] = useReversePostingMutation();
  const onSubmit = form.submit(async ({ when, on, reason }) => {
    const posted = await reverse({ posting: posting.id, body: { on: when === 'own' ? null : on, reason } }).unwrap();
    toast(`Document ${posting.id} is reversed by document ${posted.postingId}, ${exact(posted.total)}`);
  }, faultOf);
  return (
    <form className="mb-4 flex flex-wrap items-start gap-3" onSubmit={onSubmit} noValidate data-grave>
      {posting.entryCount > 0 && form.choice('when', 'Reversed', WHEN, { className: 'w-[220px]' })}
      {form.text.when === 'one' && form.input('on', 'Reversed on', { className: 'w-[140px]' })}
      {form.input('reason', 'Reason', { className: 'w-[320px]', autoFocus: true })}
      <button className="button main mt-[20px]" disabled={isLoading}>
        Reverse document {posting.id}
      </button>
      <button type="button" className="button bare mt-[20px]" onClick={onClose}>
        Cancel
      </button>
      {form.refused && <Refused message={form.refused} />}
    </form>
  );
}
