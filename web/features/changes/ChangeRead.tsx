import { CALLS } from '../../../wire/calls';
import { useChangeOffersQuery } from '../../ground/api/api';
import { useMemo, type ReactNode } from 'react';
import { displayDate } from '../../../core/calendar/displayDate';
import { displayQuantity } from '../../../core/money/display';
import type { ChangeView } from '../../../wire/changes';
import { useCurrency } from '../../ground/company';
import { Approvals } from '../../ground/approvals/Approvals';
import { useMay } from '../../ground/person';
import { useColumnKinds } from '../../ground/columnKinds';
import { Offers, DocumentDownloads, SendDocument } from '../../ground/offers/Offers';
import { Table } from '../../kit/table/Table';
import { ChangeEffects } from './ChangeEffects';
import { Decide } from './Decide';
import { ChangeState } from './JobChangesPage';

/** A change that went out: what it asks for, and the decision on it. */
export function ChangeRead({ view, attachments }: { view: ChangeView; attachments: ReactNode }) {
  const of = { job: view.job, kind: 'changes' as const, number: view.number };
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_310px] gap-6 max-[1150px]:grid-cols-1">
      <div>
        <div className="mb-2 flex items-baseline gap-4">
          <h2>
            {view.number} {view.title}
          </h2>
          <ChangeState change={view} />
          <span className="ml-auto">
            <DocumentDownloads of={of} />
          </span>
        </div>
        <Facts view={view} />
        <h3>Price</h3>
        <PriceLines view={view} />
        <h3 className="mt-4">Cost</h3>
        <CostLines view={view} />
        {attachments}
      </div>
      <Decision view={view} of={of} />
    </div>
  );
}

function Facts({ view }: { view: ChangeView }) {
  const facts: readonly (readonly [string, string])[] = [
    ['Raised', displayDate(view.raisedOn)],
    ['Issued', displayDate(view.issuedOn)],
    ['Requested by', view.askedBy],
    ['Reference', view.reference],
    ['Extension requested, days', view.daysAsked === null ? '' : String(view.daysAsked)],
    ['Extension granted, days', view.daysGranted === null ? '' : String(view.daysGranted)],
    ['Decided', view.decidedOn ? `${displayDate(view.decidedOn)}${view.decidedBy && ` by ${view.decidedBy}`}` : ''],
    ['Noted', view.decision],
    ['Reason', view.reason],
  ];
  return (
    <dl className="m-0 mb-4 flex flex-wrap gap-x-6 gap-y-1">
      {facts
        .filter(([, value]) => value)
        .map(([label, value]) => (
          <div key={label} className="flex gap-2">
            <dt className="note">{label}</dt>
            <dd className="m-0">{value}</dd>
          </div>
        ))}
    </dl>
  );
}

type PriceLine = ChangeView['priceLines'][number];

function PriceLines({ view }: { view: ChangeView }) {
  const kinds = useColumnKinds();
  const { show, code } = useCurrency();
  const cut = view.status === 'approved' && view.price !== view.asked;
  const columns = useMemo(
    () => [
      {
        ...kinds.text<PriceLine>('line', 'SOV line', (it) => it.line),
        cell: (it: PriceLine) => (
          <>
            {it.line} {it.isNew && <span className="note">new</span>}
          </>
        ),
      },
      kinds.text<PriceLine>('section', 'Section', (it) => it.section),
      kinds.text<PriceLine>('description', 'Description', (it) => it.description),
      {
        ...kinds.quantity<PriceLine>('quantity', 'Quantity', (it) => it.quantity ?? 0),
        cell: (it: PriceLine) => (it.quantity === null ? '' : `${displayQuantity(it.quantity)} ${it.unit}`),
      },
      ...(cut ? [kinds.amount<PriceLine>('asked', 'Asked', (it) => it.asked ?? it.amount)] : []),
      kinds.amount<PriceLine>('amount', `${view.status === 'approved' ? 'Approved' : 'Asked'}, ${code}`, (it) => it.amount),
    ],
    [kinds, code, cut, view.status],
  );
  return (
    <Table
      label="Price"
      columns={columns}
      rows={view.priceLines}
      rowKey={(it) => it.line}
      foot={{ label: 'Price', cells: { ...(cut ? { asked: show(view.asked) } : {}), amount: show(view.price) } }}
    />
  );
}

type CostLine = ChangeView['costLines'][number] & { place: number };

function CostLines({ view }: { view: ChangeView }) {
  const kinds = useColumnKinds();
  const { show, code } = useCurrency();
  const columns = useMemo(
    () => [
      kinds.text<CostLine>('section', 'Section', (it) => it.section),
      kinds.text<CostLine>('costCode', 'Cost code', (it) => it.costCode),
      kinds.text<CostLine>('costType', 'Type', (it) => it.costType),
      kinds.text<CostLine>('sovLine', 'SOV line', (it) => it.sovLine),
      kinds.text<CostLine>('description', 'Description', (it) => it.description),
      kinds.quantity<CostLine>('hours', 'Hours', (it) => it.hours ?? 0),
      kinds.amount<CostLine>('amount', code, (it) => it.amount),
    ],
    [kinds, code],
  );
  const rows = useMemo(() => view.costLines.map((it, place) => ({ ...it, place })), [view.costLines]);
  return (
    <Table
      label="Cost"
      columns={columns}
      rows={rows}
      rowKey={(it) => String(it.place)}
      foot={{ label: 'Cost', cells: { hours: displayQuantity(view.hours), amount: show(view.cost) } }}
    />
  );
}

/** What there is to say where nothing is decided here: it was, or the job takes no decision now. */
function Settled({ view }: { view: ChangeView }) {
  if (view.status === 'draft' || view.status === 'issued')
    return <p className="note mt-0">{view.refused[view.status === 'draft' ? 'edit' : 'approved'] ?? 'Not decided yet'}.</p>;
  return (
    <p className="note mt-0">
      {view.status === 'approved' ? `Included in reports from ${displayDate(view.decidedOn)}. ` : 'In no report. '}
      It stays as it is; a further change order may alter what it did.
    </p>
  );
}

/** Beside a change: the decision on it, what it does to the job, and what went to the client. */
function Decision({ view, of }: { view: ChangeView; of: { job: string; kind: 'changes'; number: string } }) {
  const may = useMay();
  const { data: offers } = useChangeOffersQuery({ job: view.job, change: view.number });
  const accepted = offers?.find((it) => it.status === 'accepted');
  return (
    <aside aria-label="Decision">
      {view.refused.approved === null && may('change-orders') ? (
        <Decide key={accepted?.id} view={view} by={accepted?.answeredBy ?? ''} />
      ) : (
        <Settled view={view} />
      )}
      <Approvals kind="change-order" job={view.job} document={view.number} />
      {view.effect && <ChangeEffects effect={view.effect} />}
      <div className="mt-4">
        <Offers offers={offers ?? []} />
      </div>
      {view.refused.send === null && may(CALLS.sendChange.who) && (
        <details className="mt-3" open={offers?.length === 0}>
          <summary className="mb-2 cursor-pointer">Prepare a message to the client</summary>
          <SendDocument
            of={of}
            to=""
            subject={`Change order ${view.number}: ${view.jobName}`}
            label={`Prepare the message about ${view.number}`}
          />
        </details>
      )}
    </aside>
  );
}
