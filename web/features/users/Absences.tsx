import { useMemo } from 'react';
import { toast } from '../../kit/toast';
import { displayDate } from '../../../core/calendar/displayDate';
import { useAbsencesQuery, useAddAbsenceMutation, useEndAbsenceMutation } from '../../ground/api/api';
import { useAsOf } from '../../ground/asOf';
import { faultOf } from '../../ground/faults';
import { useAttempt } from '../../ground/useAttempt';
import { useCodecForm } from '../../kit/form/useCodecForm';
import { Refused } from '../../kit/States';
import { day, oneOf } from '../../kit/typed/codecs';

/** The days one is away, and who approves in one's stead. */
export function Absences() {
  const { data } = useAbsencesQuery();
  const { refused, attempt } = useAttempt();
  const [end] = useEndAbsenceMutation();
  if (!data) return null;
  return (
    <section aria-label="While you are away">
      <h2 className="mb-2">While you are away</h2>
      <p className="note mt-0">Your deputy approves or refuses what waits for your approval.</p>
      <ul className="m-0 mb-3 list-none p-0">
        {data.absences.map((it) => (
          <li key={it.id} className="flex items-baseline gap-3">
            <span>
              {displayDate(it.from)} to {displayDate(it.to)}: {it.deputy}
            </span>
            <button
              type="button"
              className="button bare"
              aria-label={`Delete the absence from ${displayDate(it.from)}`}
              onClick={() => void attempt(() => end({ id: it.id }).unwrap(), 'Absence deleted')}
            >
              Delete
            </button>
          </li>
        ))}
      </ul>
      {refused && <Refused message={refused.message} />}
      {data.deputies.length === 0 ? (
        <p className="note m-0">Nobody else can approve anything yet.</p>
      ) : (
        <NewAbsence deputies={data.deputies} />
      )}
    </section>
  );
}

function NewAbsence({ deputies }: { deputies: readonly string[] }) {
  const { month } = useAsOf();
  const [add] = useAddAbsenceMutation();
  const fields = useMemo(() => ({ from: day(month), to: day(month), deputy: oneOf(deputies) }), [month, deputies]);
  const form = useCodecForm(fields, { from: '', to: '', deputy: deputies[0] ?? '' });
  const onSubmit = form.submit(async (body) => {
    await add({ body }).unwrap();
    form.restart({ from: '', to: '' });
    toast(`${body.deputy} stands in for you from ${displayDate(body.from)} to ${displayDate(body.to)}`);
  }, faultOf);
  return (
    <form aria-label="New absence" className="flex flex-col gap-3" onSubmit={onSubmit} noValidate>
      <div className="flex gap-3">
        {form.input('from', 'From', { className: 'w-[150px]' })}
        {form.input('to', 'To', { className: 'w-[150px]' })}
      </div>
      {form.choice(
        'deputy',
        'Deputy',
        deputies.map((it) => [it, it] as const),
      )}
      <button className="button self-start" disabled={form.busy}>
        Enter absence
      </button>
      {form.refused && <Refused message={form.refused} />}
    </form>
  );
}
