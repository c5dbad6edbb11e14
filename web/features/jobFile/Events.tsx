import { useAddEventMutation } from '../../ground/api/api';
import { useState } from 'react';
import { displayDate } from '../../../core/calendar/displayDate';
import { EVENT_KINDS, type JobFileView } from '../../../wire/jobFile';
import { useAsOf } from '../../ground/asOf';
import { faultOf } from '../../ground/faults';
import { Field } from '../../kit/Field';
import { readDate } from '../../kit/typed/readDate';

/** Notes, calls, meetings and visits, newest first. What is noted stays. */
export function Events({ job, events }: { job: string; events: JobFileView['events'] }) {
  const { month, lastDay } = useAsOf();
  const [form, setForm] = useState({ kind: 'note' as (typeof EVENT_KINDS)[number], dated: displayDate(lastDay), text: '' });
  const [fault, setFault] = useState<string>();
  const [add, { isLoading }] = useAddEventMutation();
  const submit = async (event: React.FormEvent) => {
    event.preventDefault();
    const dated = readDate(form.dated, month);
    if (!dated) return setFault('Enter a date, e.g. 30 Apr 2031');
    try {
      await add({ job, body: { ...form, dated } }).unwrap();
      setForm({ ...form, text: '' });
      setFault(undefined);
    } catch (error) {
      setFault(faultOf(error).message);
    }
  };
  return (
    <section aria-label="Log">
      <h2 className="mb-1">Log</h2>
      <form
        className="mb-2 grid items-end gap-2"
        style={{ gridTemplateColumns: '100px 110px minmax(0, 1fr) auto' }}
        onSubmit={(event) => void submit(event)}
      >
        <Field label="Kind">
          <select value={form.kind} onChange={(event) => setForm({ ...form, kind: event.target.value as typeof form.kind })}>
            {EVENT_KINDS.map((it) => (
              <option key={it}>{it}</option>
            ))}
          </select>
        </Field>
        <Field label="Day">
          <input value={form.dated} onChange={(event) => setForm({ ...form, dated: event.target.value })} />
        </Field>
        <Field label="What" fault={fault}>
          <input value={form.text} onChange={(event) => setForm({ ...form, text: event.target.value })} />
        </Field>
        <button className="button" disabled={isLoading || form.text.trim() === ''}>
          Note it
        </button>
      </form>
      {events.length === 0 ? (
        <p className="note m-0">Nothing is noted yet.</p>
      ) : (
        <ul className="scroll m-0 max-h-[260px] list-none p-0" tabIndex={0}>
          {events.map((it) => (
            <li key={it.id} className="border-b py-1" style={{ borderColor: 'var(--hair)' }}>
              <span className="note">
                {displayDate(it.dated)}, {it.kind}, {it.actor}:
              </span>{' '}
              <span className="whitespace-pre-line">{it.text}</span>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
