import { useChangeOffersQuery, useDecideChangeMutation } from '../../ground/api/api';
import { useState, type ReactNode } from 'react';
import { toast } from 'sonner';
import { displayDate } from '../../../core/calendar/displayDate';
import { displayExact, displayQuantity } from '../../../core/money/display';
import type { ChangeView, DecideChangeInput } from '../../../wire/changes';
import { useAsOf } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import { Offers, DocumentDownloads, SendDocument } from '../../ground/offers/Offers';
import { Field } from '../../kit/Field';
import { readDate } from '../../kit/typed/readDate';
import { Refused } from '../../kit/States';
import { ChangeEffects } from './ChangeEffects';
import { ChangeState } from './JobChangesPage';

/** A change that went out: what it asks for, and the decision on it. */
export function ChangeRead({ view, attachments }: { view: ChangeView; attachments: ReactNode }) {
  const { show, code } = useCurrency();
  const of = { job: view.job, kind: 'changes' as const, number: view.number };
  const { data: offers } = useChangeOffersQuery({ job: view.job, change: view.number });
  const accepted = offers?.find((it) => it.status === 'accepted');
  const cut = view.status === 'approved' && view.price !== view.asked;
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
    <div className="grid gap-6" style={{ gridTemplateColumns: 'minmax(0, 1fr) 310px' }}>
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
        <h3>Price: what the client pays</h3>
        <table className="ledger static-foot mb-4">
          <thead>
            <tr>
              <th>SOV line</th>
              <th>Section</th>
              <th>Description</th>
              <th className="num">Quantity</th>
              {cut && <th className="num">Asked</th>}
              <th className="num">
                {view.status === 'approved' ? 'Approved' : 'Asked'}, {code}
              </th>
            </tr>
          </thead>
          <tbody>
            {view.priceLines.map((it) => (
              <tr key={it.line}>
                <td>
                  {it.line} {it.isNew && <span className="note">new</span>}
                </td>
                <td>{it.section}</td>
                <td>{it.description}</td>
                <td className="num">{it.quantity === null ? '' : `${displayQuantity(it.quantity)} ${it.unit}`}</td>
                {cut && <td className="num note">{show(it.asked ?? it.amount)}</td>}
                <td className="num">{show(it.amount)}</td>
              </tr>
            ))}
          </tbody>
          <tfoot>
            <tr>
              <td colSpan={4}>Price</td>
              {cut && <td className="num">{show(view.asked)}</td>}
              <td className="num">{show(view.price)}</td>
            </tr>
          </tfoot>
        </table>
        <h3>Cost: what it takes</h3>
        <table className="ledger static-foot">
          <thead>
            <tr>
              <th>Section</th>
              <th>Cost code</th>
              <th>Type</th>
              <th>Description</th>
              <th className="num">Hours</th>
              <th className="num">{code}</th>
            </tr>
          </thead>
          <tbody>
            {view.costLines.map((it, i) => (
              <tr key={i}>
                <td>{it.section}</td>
                <td>{it.costCode}</td>
                <td>{it.costType}</td>
                <td>{it.description}</td>
                <td className="num">{displayQuantity(it.hours ?? 0)}</td>
                <td className="num">{show(it.amount)}</td>
              </tr>
            ))}
          </tbody>
          <tfoot>
            <tr>
              <td colSpan={4}>Cost</td>
              <td className="num">{displayQuantity(view.hours)}</td>
              <td className="num">{show(view.cost)}</td>
            </tr>
          </tfoot>
        </table>
        {attachments}
      </div>
      <aside aria-label="Decision">
        {view.status === 'issued' ? (
          <Decide key={accepted?.id} view={view} by={accepted?.answeredBy ?? ''} />
        ) : (
          <p className="note mt-0">
            {view.status === 'approved' ? `In every report from ${displayDate(view.decidedOn)} on. ` : 'In no report. '}
            It stays as it is; a further change order may alter what it did.
          </p>
        )}
        {view.effect && <ChangeEffects effect={view.effect} />}
        <div className="mt-4">
          <Offers offers={offers ?? []} />
        </div>
        {view.status === 'issued' && (
          <details className="mt-3" open={offers?.length === 0}>
            <summary className="mb-2 cursor-pointer">Send it to the client</summary>
            <SendDocument of={of} to="" subject={`Change order ${view.number}: ${view.jobName}`} label={`Send ${view.number}`} />
          </details>
        )}
      </aside>
    </div>
  );
}

const VERBS = { approved: 'Approve', rejected: 'Record as rejected', withdrawn: 'Withdraw it' } as const;

function Decide({ view, by }: { view: ChangeView; by: string }) {
  const { digits, exact, read, code } = useCurrency();
  const { month, lastDay } = useAsOf();
  const [form, setForm] = useState({
    status: 'approved' as DecideChangeInput['status'],
    on: displayDate(lastDay),
    by,
    note: '',
    agreed: displayExact(view.asked, digits),
    days: view.daysAsked === null ? '' : String(view.daysAsked),
  });
  const [fault, setFault] = useState<string | null>(null);
  const [decide, { isLoading }] = useDecideChangeMutation();
  const set = (key: keyof typeof form) => (event: { target: { value: string } }) =>
    setForm({ ...form, [key]: event.target.value });
  const approving = form.status === 'approved';
  const agreed = read(form.agreed);
  const submit = async (event: React.FormEvent) => {
    event.preventDefault();
    const on = readDate(form.on, month);
    if (!on) return setFault('Decided on: enter a date, e.g. 30 Apr 2031');
    if (approving && agreed === null) return setFault('Agreed: expected an amount such as 12,500.00');
    if (form.days !== '' && !/^\d{1,4}$/.test(form.days)) return setFault('Extension granted, days: expected a number of days');
    try {
      await decide({
        job: view.job,
        change: view.number,
        body: {
          status: form.status,
          on,
          by: form.by,
          note: form.note,
          agreed: approving ? agreed : null,
          daysGranted: approving && form.days !== '' ? Number(form.days) : null,
        },
      }).unwrap();
      toast(`${view.number} is ${form.status}`);
    } catch (error) {
      setFault(faultOf(error).message);
    }
  };
  return (
    <form className="mb-5 flex flex-col gap-3" onSubmit={(event) => void submit(event)}>
      <div className="grid grid-cols-2 gap-3">
        <Field label="Decision">
          <select value={form.status} onChange={set('status')}>
            <option value="approved">approved</option>
            <option value="rejected">rejected</option>
            <option value="withdrawn">withdrawn</option>
          </select>
        </Field>
        <Field label="On">
          <input value={form.on} onChange={set('on')} />
        </Field>
        {approving && (
          <Field label={`Agreed, ${code}`}>
            <input value={form.agreed} onChange={set('agreed')} style={{ textAlign: 'right' }} />
          </Field>
        )}
        {approving && (
          <Field label="Extension granted, days">
            <input value={form.days} onChange={set('days')} style={{ textAlign: 'right' }} />
          </Field>
        )}
      </div>
      <Field label={form.status === 'withdrawn' ? 'Withdrawn by' : 'Decided by'}>
        <input value={form.by} onChange={set('by')} />
      </Field>
      <Field label="Note">
        <input value={form.note} onChange={set('note')} />
      </Field>
      {fault && <Refused message={fault} />}
      <button className="button main self-start" disabled={isLoading}>
        {VERBS[form.status]}
        {approving && agreed !== null && `, ${exact(agreed)}`}
      </button>
    </form>
  );
}
