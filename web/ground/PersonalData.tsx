import { useState } from 'react';
import { toast } from '../kit/toast';
import { hrefOf } from '../../wire/call';
import { CALLS } from '../../wire/calls';
import { useMakeAnonymousMutation } from './api/api';
import { faultOf } from './faults';
import { useCodecForm } from '../kit/form/useCodecForm';
import { Refused } from '../kit/States';
import { whole } from '../kit/typed/codecs';

/** What the law gives a person: all that is saved of them, and, once they have left, to be named no more. */
export function PersonalData({ name, onDone }: { name: string; onDone: (name: string) => void }) {
  const [open, setOpen] = useState(false);
  return (
    <section aria-label="Personal data" className="mt-6 border-t border-[var(--hair)] pt-4">
      <h3 className="mb-2">Personal data</h3>
      <div className="flex gap-3">
        <a className="button" href={hrefOf(CALLS.personalData, { name })} download>
          All that is saved, JSON
        </a>
        <button type="button" className="button bare" aria-expanded={open} onClick={() => setOpen(!open)}>
          Make anonymous …
        </button>
      </div>
      {open && <Anonymous name={name} onDone={onDone} />}
    </section>
  );
}

const FIELDS = { years: whole('years') };

function Anonymous({ name, onDone }: { name: string; onDone: (name: string) => void }) {
  const [make] = useMakeAnonymousMutation();
  const form = useCodecForm(FIELDS, { years: '10' });
  const onSubmit = form.submit(async (body) => {
    const former = await make({ name, body }).unwrap();
    toast(`${name} is ${former.name} from now on`);
    onDone(former.name);
  }, faultOf);
  return (
    <form aria-label={`Make ${name} anonymous`} className="mt-3 flex flex-col gap-3" onSubmit={onSubmit} noValidate>
      <p className="m-0">
        For somebody who has left: a number stands in place of the name everywhere, and e-mail and phone are forgotten. It cannot
        be undone. What was typed as free text, attached files and copies of the database are not searched.
      </p>
      {form.input('years', 'Years the law wants records with the name', { className: 'w-[260px]' })}
      <button className="button main self-start" disabled={form.busy}>
        Make {name} anonymous
      </button>
      {form.refused && <Refused message={form.refused} />}
    </form>
  );
}
