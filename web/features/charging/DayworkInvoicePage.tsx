import { useMemo, type ReactNode } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { displayDate } from '../../../core/calendar/displayDate';
import { hrefOf } from '../../../wire/call';
import { CALLS } from '../../../wire/calls';
import type { DayworkView } from '../../../wire/charging';
import { useDayworkInvoiceQuery, useDeleteDayworkMutation, useIssueDayworkMutation } from '../../ground/api/api';
import { addressOf } from '../../ground/addressOf';
import { useAsOf, useWithMonth } from '../../ground/asOf';
import { useColumnKinds } from '../../ground/columnKinds';
import { useCurrency } from '../../ground/company';
import { Loaded } from '../../ground/Loaded';
import { May } from '../../ground/person';
import { useAttempt } from '../../ground/useAttempt';
import { Refused } from '../../kit/States';
import { SureButton } from '../../kit/SureButton';
import { Table } from '../../kit/table/Table';
import { CreditForm } from './CreditForm';
import { InvoiceLines } from './InvoiceLines';

/** An invoice of charged cost, with what was credited and received. `receive`: how money on it is entered. */
export function DayworkInvoicePage({ receive }: { receive: (invoice: DayworkView) => ReactNode }) {
  const { number = '', invoice: reference = '' } = useParams();
  const { asOf } = useAsOf();
  const invoice = useDayworkInvoiceQuery({ job: number, invoice: reference, asOf });
  return (
    <Loaded of={invoice} what={`invoice ${reference}`}>
      {(view) => <Invoice view={view} receive={receive} />}
    </Loaded>
  );
}

function Invoice({ view, receive }: { view: DayworkView; receive: (invoice: DayworkView) => ReactNode }) {
  const { exact } = useCurrency();
  const { job, reference } = view;
  const state =
    view.status === 'draft'
      ? 'Draft'
      : view.credits.some((it) => it.inFull)
        ? 'Credited in full'
        : view.open === 0
          ? 'Paid'
          : `${exact(view.open)} outstanding`;
  return (
    <>
      <div className="mb-3 flex items-baseline gap-4">
        <h2>
          Invoice {reference}
          {view.number !== null && <span className="note font-normal"> number {view.number}</span>}
        </h2>
        <b>{state}</b>
        <span className="note">
          {displayDate(view.dated)}, charged until {displayDate(view.cutOff)}
          {view.dueOn !== null && `, due ${displayDate(view.dueOn)}`}
        </span>
        <a
          className="ml-auto"
          href={hrefOf(CALLS.dayworkInvoicePdf, { job, invoice: reference })}
          target="_blank"
          rel="noreferrer"
        >
          PDF
        </a>
      </div>
      {view.wording !== '' && view.shown !== 'one-line' && <p className="mt-0">{view.wording}</p>}
      <div className="grid grid-cols-[minmax(0,1.4fr)_minmax(320px,1fr)] gap-8">
        <div>
          <InvoiceLines invoice={view} label={`Lines of invoice ${reference}`} />
          <Entries view={view} />
        </div>
        <div>
          <Since view={view} />
          {view.status === 'draft' ? (
            <May do="certify">
              <DraftActs view={view} />
            </May>
          ) : (
            <>
              {view.open !== 0 && view.can.receive === null && <May do="receive">{receive(view)}</May>}
              <May do="certify">
                <CreditForm key={`${view.credits.length}`} view={view} />
              </May>
            </>
          )}
        </div>
      </div>
    </>
  );
}

type Entry = DayworkView['entries'][number];

/** The cost behind the lines. */
function Entries({ view }: { view: DayworkView }) {
  const kinds = useColumnKinds();
  const { exact } = useCurrency();
  const columns = useMemo(
    () => [
      kinds.day<Entry>('dated', 'Date', (it) => it.dated),
      kinds.link<Entry>(
        'reference',
        'Entry',
        (it) => it.reference || 'document',
        (it) => addressOf({ place: 'posting', document: String(it.postingId) }),
      ),
      kinds.text<Entry>('words', 'Words', (it) => it.words, { cut: true }),
      kinds.text<Entry>('costType', 'Cost type', (it) => it.costType),
      kinds.amount<Entry>('charge', 'Charged', (it) => it.charge, { adds: true }),
    ],
    [kinds],
  );
  return (
    <>
      <h3 className="mb-1 mt-5">The entries behind it</h3>
      <Table
        label="Entries of the invoice"
        columns={columns}
        rows={view.entries}
        rowKey={(it) => String(it.id)}
        foot={{ label: 'Together', cells: { charge: exact(view.amount) } }}
        dense
      />
    </>
  );
}

/** What came after it: credit notes and money. */
function Since({ view }: { view: DayworkView }) {
  const { exact } = useCurrency();
  const withMonth = useWithMonth();
  if (view.credits.length + view.receipts.length === 0) return null;
  const posting = (id: number, text: string) => (
    <Link to={withMonth(addressOf({ place: 'posting', document: String(id) }))}>{text}</Link>
  );
  return (
    <table className="ledger static-foot mb-4" aria-label="Credited and received">
      <tbody>
        <tr>
          <td>Payable</td>
          <td className="num">{exact(view.payable)}</td>
        </tr>
        {view.credits.map((it) => (
          <tr key={it.creditNote}>
            <td>
              {posting(it.postingId, `Credit note ${it.creditNote}`)}, {displayDate(it.dated)}
              {it.inFull ? ', in full' : ''}: {it.reason}
            </td>
            <td className="num">{exact(-it.amount - it.tax)}</td>
          </tr>
        ))}
        {view.receipts.map((it) => (
          <tr key={it.postingId}>
            <td>
              {posting(it.postingId, 'Received')}, {displayDate(it.dated)} {it.reference}
            </td>
            <td className="num">{exact(-it.amount)}</td>
          </tr>
        ))}
        <tr>
          <td>
            <b>Outstanding</b>
          </td>
          <td className="num">
            <b>{exact(view.open)}</b>
          </td>
        </tr>
      </tbody>
    </table>
  );
}

/** A draft came with a book: it is issued on its own day, or deleted. */
function DraftActs({ view }: { view: DayworkView }) {
  const { exact } = useCurrency();
  const navigate = useNavigate();
  const withMonth = useWithMonth();
  const [issue, issuing] = useIssueDayworkMutation();
  const [remove] = useDeleteDayworkMutation();
  const { refused, attempt } = useAttempt();
  const named = { job: view.job, invoice: view.reference };
  return (
    <div className="flex flex-wrap gap-3" data-grave>
      <button
        type="button"
        className="button main"
        disabled={issuing.isLoading}
        onClick={() => void attempt(() => issue(named).unwrap(), `Issued ${view.reference}`)}
      >
        Issue it, {exact(view.payable)}
      </button>
      <SureButton
        onSure={() =>
          void attempt(async () => {
            await remove(named).unwrap();
            void navigate(withMonth(addressOf({ place: 'charging', job: view.job })));
          })
        }
      >
        Delete draft
      </SureButton>
      {refused && <Refused message={refused.message} />}
    </div>
  );
}
