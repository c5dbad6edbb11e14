import { useAddClientMutation } from '../../../ground/api/api';
import { Pop } from '../../../kit/Pop';
import { useState } from 'react';
import { faultOf, type ShownFault } from '../../../ground/faults';
import { Field } from '../../../kit/Field';

const NOTHING = { code: '', name: '', terms: '', address: '', neverCertifies: false };

/** Adds a client beside the place where one is chosen. */
export function NewClient({ onAdded }: { onAdded: (code: string) => void }) {
  const [open, setOpen] = useState(false);
  const [form, setForm] = useState(NOTHING);
  const [fault, setFault] = useState<ShownFault | null>(null);
  const [add, { isLoading }] = useAddClientMutation();
  const save = async (event: React.FormEvent) => {
    event.preventDefault();
    event.stopPropagation();
    if (form.terms !== '' && !/^\d+$/.test(form.terms))
      return setFault({
        message: `"${form.terms}" is not a number of days`,
        faults: [{ field: 'termsDays', message: 'Expected whole days' }],
      });
    try {
      await add({
        body: {
          code: form.code,
          name: form.name,
          address: form.address,
          termsDays: form.terms === '' ? null : Number(form.terms),
          contact: '',
          email: '',
          phone: '',
          neverCertifies: form.neverCertifies,
        },
      }).unwrap();
      onAdded(form.code.trim());
      setOpen(false);
      setForm(NOTHING);
    } catch (error) {
      setFault(faultOf(error));
    }
  };
  const input = (key: 'code' | 'name' | 'terms' | 'address', label: string, field: string) => (
    <Field label={label} fault={fault?.faults.find((it) => it.field === field)?.message}>
      <input value={form[key]} autoComplete="off" onChange={(event) => setForm({ ...form, [key]: event.target.value })} />
    </Field>
  );
  return (
    <Pop button="New client" align="end" className="w-[300px] p-4" open={open} onOpen={setOpen}>
      <form className="flex flex-col gap-3" onSubmit={(event) => void save(event)}>
        {input('code', 'Short code', 'code')}
        {input('name', 'Client name', 'name')}
        {input('terms', 'Terms, days (else on each job)', 'termsDays')}
        {input('address', 'Address', 'address')}
        <label className="flex items-start gap-2">
          <input
            type="checkbox"
            className="mt-1"
            checked={form.neverCertifies}
            onChange={(event) => setForm({ ...form, neverCertifies: event.target.checked })}
          />
          Never certifies: what is applied for is billed in one act
        </label>
        {fault && (
          <p role="alert" className="fault m-0">
            {fault.message}
          </p>
        )}
        <button className="button main self-start" disabled={isLoading}>
          Add client
        </button>
      </form>
    </Pop>
  );
}
