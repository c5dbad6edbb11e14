import { Pop } from '../../kit/Pop';
import { useState } from 'react';
import { useAsOf } from '../../ground/asOf';
import { DayInput } from '../../kit/form/DayInput';
import { Field } from '../../kit/Field';
import type { GridRow } from '../../kit/grid/gridTypes';
import { readDate } from '../../kit/typed/readDate';
import { lotsBy } from './planForm';

/** Several lots at once, by one pattern. */
export function AddLots({ onRows }: { onRows: (rows: GridRow[]) => void }) {
  const { month } = useAsOf();
  const [form, setForm] = useState({ pattern: 'Lot #', count: '', from: '', days: '20', every: '10' });
  const [fault, setFault] = useState<string>();
  const set = (key: keyof typeof form) => (event: { target: { value: string } }) =>
    setForm({ ...form, [key]: event.target.value });
  const add = (event: React.FormEvent) => {
    event.preventDefault();
    const from = form.from.trim() === '' ? null : readDate(form.from, month);
    const whole = (text: string) => (/^\d{1,3}$/.test(text.trim()) ? Number(text) : null);
    const [count, days, every] = [whole(form.count), whole(form.days), whole(form.every)];
    if (!count || count > 200) return setFault('Expected 1 to 200 lots');
    if (days === null || every === null || (form.from.trim() !== '' && !from))
      return setFault('Expected days as whole numbers, and a day such as 30 Apr 2031');
    setFault(undefined);
    onRows(lotsBy(form.pattern.trim() || 'Lot #', count, from, days, every));
  };
  return (
    <Pop button="Add lots …" align="end">
      <form className="grid grid-cols-2 gap-3" onSubmit={add}>
        <Field label="Name pattern, # = number">
          <input value={form.pattern} onChange={set('pattern')} />
        </Field>
        <Field label="How many">
          <input value={form.count} onChange={set('count')} className="text-right" />
        </Field>
        <Field label="First starts" className="col-span-2">
          <DayInput
            value={form.from}
            month={month}
            placeholder="30 Apr 2031, or empty"
            onText={(from) => setForm({ ...form, from })}
          />
        </Field>
        <Field label="Days each">
          <input value={form.days} onChange={set('days')} className="text-right" />
        </Field>
        <Field label="Days between starts">
          <input value={form.every} onChange={set('every')} className="text-right" />
        </Field>
        {fault && (
          <p role="alert" className="fault col-span-2 m-0">
            {fault}
          </p>
        )}
        <button className="button main justify-self-start">Add them</button>
      </form>
    </Pop>
  );
}
