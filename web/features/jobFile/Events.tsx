import { useMemo } from 'react';
import { displayDate } from '../../../core/calendar/displayDate';
import { EVENT_KINDS, type JobFileView } from '../../../wire/jobFile';
import { useAddEventMutation } from '../../ground/api/api';
import { useAsOf } from '../../ground/asOf';
import { faultOf } from '../../ground/faults';
import { useCodecForm } from '../../kit/form/useCodecForm';
import { Refused } from '../../kit/States';
import { day, oneOf, words } from '../../kit/typed/codecs';

/** Notes, calls, meetings and visits, newest first. What is noted stays. */
export function Events({ job, events }: { job: string; events: JobFileView['events'] }) {
  const { month, entryDay } = useAsOf();
  const fields = useMemo(() => ({ kind: oneOf(EVENT_KINDS), dated: day(month), text: words() }), [month]);
  const form = useCodecForm(fields, { kind: 'note', dated: displayDate(entryDay), text: '' });
  const [add, { isLoading }] = useAddEventMutation();
  const onSubmit = form.submit(async (body) => {
    await add({ job, body }).unwrap();
    form.set('text', '');
  }, faultOf);
  return (
    <section aria-label="Log">
      <h2 className="mb-1">Log</h2>
      <form className="log-line mb-2 items-start gap-2" onSubmit={onSubmit} noValidate>
        {form.choice('kind', 'Kind', EVENT_KINDS)}
        {form.input('dated', 'Day')}
        {form.input('text', 'What')}
        <button className="button mt-[20px]" disabled={isLoading || form.text.text.trim() === ''}>
          Add note
        </button>
      </form>
      {form.refused && <Refused message={form.refused} />}
      {events.length === 0 ? (
        <p className="note m-0">Nothing is noted yet.</p>
      ) : (
        <ul className="scroll m-0 max-h-[260px] list-none p-0" tabIndex={0}>
          {events.map((it) => (
            <li key={it.id} className="hair-below py-1">
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
