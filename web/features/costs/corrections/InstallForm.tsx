import { useMemo } from 'react';
import { toast } from '../../../kit/toast';
import { displayDate } from '../../../../core/calendar/displayDate';
import { displayQuantity } from '../../../../core/money/display';
import type { UninstalledRow } from '../../../../wire/corrections';
import { useInstallMutation } from '../../../ground/api/api';
import { useAsOf } from '../../../ground/asOf';
import { useCurrency } from '../../../ground/company';
import { faultOf } from '../../../ground/faults';
import { useCodecForm } from '../../../kit/form/useCodecForm';
import { Refused } from '../../../kit/States';
import { amount, day, oneOf, optional, quantity } from '../../../kit/typed/codecs';

/** Takes picked material as installed: all of it, or of one entry a part by quantity or amount. */
export function InstallForm({ rows, onDone }: { rows: readonly UninstalledRow[]; onDone: () => void }) {
  const { month, entryDay } = useAsOf();
  const { digits, exact } = useCurrency();
  const [only] = rows.length === 1 ? rows : [];
  const fields = useMemo(
    () => ({
      on: day(month),
      by: oneOf(['all', 'amount', 'quantity']),
      amount: optional(amount(digits), null),
      quantity: optional(quantity, null),
    }),
    [month, digits],
  );
  const form = useCodecForm(
    fields,
    { on: displayDate(entryDay), by: 'all', amount: '', quantity: '' },
    { fieldOf: (field) => field.replace(/^parts\.\d+\./, '') },
  );
  const [install, { isLoading }] = useInstallMutation();
  const total = rows.reduce((sum, it) => sum + it.open, 0);
  const by = only ? form.text.by : 'all';
  const onSubmit = form.submit(async ({ on, ...part }) => {
    const asked = {
      amount: by === 'amount' ? (part.amount ?? 0) : null,
      quantity: by === 'quantity' ? (part.quantity ?? 0) : null,
    };
    const done = await install({ body: { on, parts: rows.map((it) => ({ entry: it.entry, ...asked })) } }).unwrap();
    toast(`${exact(done.amount)} installed on ${displayDate(on)}`);
    form.restart({ by: 'all', amount: '', quantity: '' });
    onDone();
  }, faultOf);
  if (rows.length === 0)
    return (
      <p className="note mb-3 flex min-h-[52px] items-center">
        Pick what was installed: tick it, or select rows and press Space. Of one entry, a part can be installed.
      </p>
    );
  const ways = [
    ['all', `Remaining, ${exact(total)}`],
    ['amount', 'an amount'],
    ...(only?.openQuantity === null ? [] : [['quantity', 'a quantity'] as const]),
  ] as const;
  return (
    <form className="mb-3 flex min-h-[52px] flex-wrap items-start gap-3" onSubmit={onSubmit} noValidate>
      {form.input('on', 'Installed on', { className: 'w-[140px]', autoFocus: true })}
      {only && form.choice('by', 'What', ways, { className: 'w-[230px]' })}
      {by === 'amount' && form.input('amount', 'Amount installed', { className: 'w-[140px]', hint: `of ${exact(total)}` })}
      {by === 'quantity' &&
        form.input('quantity', 'Quantity installed', {
          className: 'w-[140px]',
          hint: `of ${displayQuantity(only?.openQuantity ?? 0)} ${only?.unit ?? ''}`,
        })}
      <button className="button main mt-[20px]" disabled={isLoading}>
        {by === 'all' ? `Install ${rows.length} ${rows.length === 1 ? 'entry' : 'entries'}, ${exact(total)}` : 'Install a part'}
      </button>
      {form.refused && <Refused message={form.refused} />}
    </form>
  );
}
