import { useMemo, useState } from 'react';
import { displayDate } from '../../../core/calendar/displayDate';
import { restOf } from '../../../core/charging/credit';
import type { DayworkView } from '../../../wire/charging';
import { useCreditDayworkMutation } from '../../ground/api/api';
import { useAsOf } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import { useCodecForm } from '../../kit/form/useCodecForm';
import { Refused } from '../../kit/States';
import { toast } from '../../kit/toast';
import { amount, day, optional, words } from '../../kit/typed/codecs';
import { useOpening } from '../../kit/useOpening';

/** Credits an invoice: in full, so that its entries can be invoiced again, or in part by an amount before tax. */
export function CreditForm({ view }: { view: DayworkView }) {
  const { open, show, button, onKeyDown } = useOpening();
  const { creditInFull, creditInPart } = view.can;
  // Credited in full, the page says so at its head.
  if (view.credits.some((it) => it.inFull)) return null;
  if (creditInFull !== null && creditInPart !== null) return <p className="note mt-4">Not credited further: {creditInFull}.</p>;
  return open ? (
    <div onKeyDown={onKeyDown}>
      <Form view={view} />
    </div>
  ) : (
    <button ref={button} type="button" className="button mt-4" onClick={show}>
      Credit it …
    </button>
  );
}

function Form({ view }: { view: DayworkView }) {
  const { month, entryDay } = useAsOf();
  const { digits, exact } = useCurrency();
  const { creditInFull, creditInPart } = view.can;
  const [inFull, setInFull] = useState(creditInFull === null);
  const fields = useMemo(
    () => ({
      dated: day(month),
      amount: inFull ? optional(amount(digits), null) : amount(digits),
      creditNote: words('Enter its reference'),
      reason: words('Say why'),
    }),
    [month, digits, inFull],
  );
  const form = useCodecForm(fields, {
    dated: displayDate(entryDay > view.dated ? entryDay : view.dated),
    amount: '',
    creditNote: view.nextCreditNote,
    reason: '',
  });
  const [credit] = useCreditDayworkMutation();
  const onSubmit = form.submit(async ({ amount: part, ...body }) => {
    await credit({ job: view.job, invoice: view.reference, body: { ...body, amount: inFull ? null : part } }).unwrap();
    toast(`Credit note ${body.creditNote}`);
  }, faultOf);
  const rest = restOf(view);
  const part = form.valueOf('amount');
  return (
    <form aria-label="Credit it" className="mt-5 flex flex-col gap-3" onSubmit={onSubmit} noValidate data-grave>
      <h3 className="m-0">Credit note</h3>
      <fieldset className="m-0 flex gap-4 border-0 p-0">
        <legend className="sr-only">How much</legend>
        <label>
          <input type="radio" name="credit" checked={inFull} disabled={creditInFull !== null} onChange={() => setInFull(true)} />{' '}
          in full, {exact(rest.amount)} before tax
        </label>
        <label>
          <input
            type="radio"
            name="credit"
            checked={!inFull}
            disabled={creditInPart !== null}
            onChange={() => setInFull(false)}
          />{' '}
          in part
        </label>
      </fieldset>
      <p className="note m-0 text-[12.5px]">
        {creditInFull !== null && `Not in full: ${creditInFull}. `}
        {inFull ? 'The entries are free again, to be charged otherwise or left out.' : 'The entries stay on the invoice.'}
      </p>
      <div className="flex flex-wrap gap-3">
        {form.input('dated', 'Date', { className: 'w-[140px]' })}
        {!inFull && form.input('amount', 'Amount before tax', { className: 'w-[140px]' })}
        {form.input('creditNote', 'Reference', { className: 'w-[120px]' })}
      </div>
      {form.input('reason', 'Reason')}
      <button className="button main self-start" disabled={form.busy}>
        Credit {inFull ? exact(rest.amount + rest.tax) : part === null ? '' : `${exact(part)} before tax`}
      </button>
      {form.refused && <Refused message={form.refused} />}
    </form>
  );
}
