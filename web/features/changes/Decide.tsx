import { useState } from 'react';
import { toast } from 'sonner';
import { displayDate } from '../../../core/calendar/displayDate';
import { displayExact } from '../../../core/money/display';
import type { ChangeView, DecideChangeInput } from '../../../wire/changes';
import { useDecideChangeMutation } from '../../ground/api/api';
import { useAsOf } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import { Field } from '../../kit/Field';
import { Refused } from '../../kit/States';
import { readDate } from '../../kit/typed/readDate';

const VERBS = { approved: 'Approve', rejected: 'Record as rejected', withdrawn: 'Withdraw it' } as const;

/** Notes what became of an issued change. */
export function Decide({ view, by }: { view: ChangeView; by: string }) {
  const { digits, exact, read } = useCurrency();
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
        {approving && <Terms form={form} set={set} />}
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

/** What an approval grants. */
function Terms({
  form,
  set,
}: {
  form: { agreed: string; days: string };
  set: (key: 'agreed' | 'days') => (event: { target: { value: string } }) => void;
}) {
  const { code } = useCurrency();
  return (
    <>
      <Field label={`Agreed, ${code}`}>
        <input className="text-right" value={form.agreed} onChange={set('agreed')} />
      </Field>
      <Field label="Extension granted, days">
        <input className="text-right" value={form.days} onChange={set('days')} />
      </Field>
    </>
  );
}
