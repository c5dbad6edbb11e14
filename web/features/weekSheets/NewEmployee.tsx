import { useMemo, useState } from 'react';
import { useAddEmployeeMutation } from '../../ground/api/api';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import { useCodecForm } from '../../kit/form/useCodecForm';
import { Pop } from '../../kit/Pop';
import { Refused } from '../../kit/States';
import { toast } from '../../kit/toast';
import { optional, words } from '../../kit/typed/codecs';
import { unitCost } from '../../kit/typed/unitCosts';

const NOTHING = { employee: '', name: '', costsAnHour: '' };

/** Adds somebody where the hours are entered, with what an hour costs. */
export function NewEmployee() {
  const [open, setOpen] = useState(false);
  return (
    <Pop button="New employee" className="w-[300px] p-4" open={open} onOpen={setOpen}>
      <EmployeeForm onDone={() => setOpen(false)} />
    </Pop>
  );
}

/** Code, name, and what an hour costs. */
export function EmployeeForm({ onDone }: { onDone: () => void }) {
  const { digits } = useCurrency();
  const fields = useMemo(
    () => ({
      employee: words('Enter a short code'),
      name: words('Enter the name'),
      costsAnHour: optional(unitCost(digits), null),
    }),
    [digits],
  );
  const form = useCodecForm(fields, NOTHING);
  const [add] = useAddEmployeeMutation();
  const onSubmit = form.submit(async (body) => {
    await add({ body }).unwrap();
    toast(`Added ${body.name}`);
    onDone();
  }, faultOf);
  return (
    <form aria-label="New employee" className="flex flex-col gap-3" onSubmit={onSubmit} noValidate>
      {form.input('name', 'Name', { autoFocus: true })}
      {form.input('employee', 'Short code')}
      {form.input('costsAnHour', 'Costs an hour', { placeholder: 'by the wage class' })}
      <button className="button main self-start" disabled={form.busy}>
        Add employee
      </button>
      {form.refused && <Refused message={form.refused} />}
    </form>
  );
}
