import { useMemo } from 'react';
import { toast } from '../../kit/toast';
import { displayDate } from '../../../core/calendar/displayDate';
import { displayExact } from '../../../core/money/display';
import type { ChangeView } from '../../../wire/changes';
import { useDecideChangeMutation } from '../../ground/api/api';
import { useAsOf } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import { useCodecForm } from '../../kit/form/useCodecForm';
import { Refused } from '../../kit/States';
import { amount, day, oneOf, optional, whole, words } from '../../kit/typed/codecs';

const DECISIONS = ['approved', 'rejected', 'withdrawn'] as const;
const VERBS = { approved: 'Approve', rejected: 'Record as rejected', withdrawn: 'Withdraw it' } as const;

/** Read only where the change is approved: what stands in a field that is not shown holds nothing up. */
/** A figure that counts only where the change is approved: it is read then. */
const figure = { ...words(), look: 'figure' as const };

const asNone = { ok: true as const, value: null };

/** Notes what became of an issued change. */
export function Decide({ view, by }: { view: ChangeView; by: string }) {
  const { digits, exact, code } = useCurrency();
  const { month, entryDay } = useAsOf();
  const fields = useMemo(
    () => ({
      status: oneOf(DECISIONS),
      on: day(month),
      by: words('Enter who decided'),
      note: words(),
      agreed: figure,
      daysGranted: figure,
    }),
    [month],
  );
  const [money, days] = [amount(digits), optional(whole('days'), null)];
  const form = useCodecForm(fields, {
    status: 'approved',
    on: displayDate(entryDay),
    by,
    note: '',
    agreed: displayExact(view.asked, digits),
    daysGranted: days.format(view.daysAsked),
  });
  const [decide, { isLoading }] = useDecideChangeMutation();
  const status = form.valueOf('status') ?? 'approved';
  const approving = status === 'approved';
  const typed = money.parse(form.text.agreed);
  const onSubmit = form.submit(async ({ agreed, daysGranted, ...values }) => {
    const [sum, extension] = approving ? [money.parse(agreed), days.parse(daysGranted)] : [asNone, asNone];
    if (!sum.ok) return form.refuse({ message: '', faults: [{ field: 'agreed', message: sum.message }] });
    if (!extension.ok) return form.refuse({ message: '', faults: [{ field: 'daysGranted', message: extension.message }] });
    const granted = { agreed: sum.value, daysGranted: extension.value };
    await decide({ job: view.job, change: view.number, body: { ...values, ...granted } }).unwrap();
    toast(`${view.number} is ${values.status}`);
  }, faultOf);
  return (
    <form className="mb-5 flex flex-col gap-3" onSubmit={onSubmit} noValidate>
      <div className="grid grid-cols-2 items-start gap-3">
        {form.choice('status', 'Decision', DECISIONS)}
        {form.input('on', 'On')}
        {approving && form.input('agreed', `Agreed, ${code}`)}
        {approving && form.input('daysGranted', 'Extension granted, days')}
      </div>
      {form.input('by', status === 'withdrawn' ? 'Withdrawn by' : 'Decided by')}
      {form.input('note', 'Note')}
      {form.refused && <Refused message={form.refused} />}
      <button className="button main self-start" disabled={isLoading}>
        {VERBS[status]}
        {approving && typed.ok && `, ${exact(typed.value)}`}
      </button>
    </form>
  );
}
