import { useAddClientMutation } from '../../../ground/api/api';
import { Popover } from 'radix-ui';
import { useState } from 'react';
import { faultOf, type ShownFault } from '../../../ground/faults';
import { Field } from '../../../kit/Field';

/** Adds a client beside the place where one is chosen. */
export function NewClient({ onAdded }: { onAdded: (code: string) => void }) {
  const [open, setOpen] = useState(false);
  const [form, setForm] = useState({ code: '', name: '', terms: '', address: '' });
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
        },
      }).unwrap();
      onAdded(form.code.trim());
      setOpen(false);
      setForm({ code: '', name: '', terms: '', address: '' });
    } catch (error) {
      setFault(faultOf(error));
    }
  };
  const input = (key: keyof typeof form, label: string, field: string) => (
    <Field label={label} fault={fault?.faults.find((it) => it.field === field)?.message}>
      <input value={form[key]} autoComplete="off" onChange={(event) => setForm({ ...form, [key]: event.target.value })} />
    </Field>
  );
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger className="button">New client</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={4}
          className="z-50 w-[300px] border p-4 shadow-xl"
          style={{ background: 'var(--sheet)', borderColor: 'var(--rule)' }}
        >
          <form className="flex flex-col gap-3" onSubmit={save}>
            {input('code', 'Short code', 'code')}
            {input('name', 'Client name', 'name')}
            {input('terms', 'Terms, days (30 where empty)', 'termsDays')}
            {input('address', 'Address', 'address')}
            {fault && (
              <p role="alert" className="fault m-0">
                {fault.message}
              </p>
            )}
            <button className="button main self-start" disabled={isLoading}>
              Add client
            </button>
          </form>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
