import { Pop } from '../Pop';
import { useState } from 'react';
import { Choice } from '../choice/Choice';
import { Field } from '../Field';

/** Asks for which section is to be there again, how often and under which names. */
export function RepeatSection({
  sections,
  onRepeat,
}: {
  sections: readonly string[];
  onRepeat: (section: string, names: string[]) => void;
}) {
  const [form, setForm] = useState({ section: '', pattern: 'Lot #', from: '2', count: '' });
  const [fault, setFault] = useState<string>();
  const section = form.section || sections[0] || '';
  const set = (key: keyof typeof form) => (event: { target: { value: string } }) =>
    setForm({ ...form, [key]: event.target.value });
  const repeat = (event: React.FormEvent) => {
    event.preventDefault();
    const [count, from] = [Number(form.count), Number(form.from)];
    if (!Number.isInteger(count) || count < 1 || count > 200 || !Number.isInteger(from))
      return setFault('Expected 1 to 200 lots');
    const names = Array.from({ length: count }, (_, i) => form.pattern.replaceAll('#', String(from + i)));
    if (new Set([...names, ...sections]).size < count + sections.length)
      return setFault('Names must be new and different; use # for the number');
    setFault(undefined);
    onRepeat(section, names);
  };
  return (
    <Pop button="Repeat a section …" disabled={sections.length === 0}>
      <form className="grid grid-cols-2 gap-3" onSubmit={repeat}>
        <Field label="Section" className="col-span-2">
          <Choice value={section} options={sections} onChange={(value) => set('section')({ target: { value } })} />
        </Field>
        <Field label="Name pattern, # = number" className="col-span-2" fault={fault}>
          <input value={form.pattern} onChange={set('pattern')} />
        </Field>
        <Field label="Counting from">
          <input value={form.from} onChange={set('from')} className="text-right" />
        </Field>
        <Field label="How many more">
          <input value={form.count} onChange={set('count')} className="text-right" />
        </Field>
        <button className="button main justify-self-start">Repeat it</button>
      </form>
    </Pop>
  );
}
