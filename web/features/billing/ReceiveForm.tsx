import { useMemo } from 'react';
import { toast } from 'sonner';
import { displayDate } from '../../../core/calendar/displayDate';
import { displayExact } from '../../../core/money/display';
import { useRecordReceiptMutation, useReleaseRetentionMutation } from '../../ground/api/api';
import { useAsOf } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import { useCodecForm } from '../../kit/form/useCodecForm';
import { Refused } from '../../kit/States';
import { amount, day, words } from '../../kit/typed/codecs';

interface MoneyFormProps {
  title: string;
  start: { dated: string; amount: string; reference: string };
  verb: string;
  send: (body: { dated: string; amount: number; reference: string }) => Promise<unknown>;
  done: (amount: number) => string;
}

/** A day, an amount and a reference, read and sent; what was typed stays where it is refused. */
function MoneyForm({ title, start, verb, send, done }: MoneyFormProps) {
  const { month } = useAsOf();
  const { digits, exact } = useCurrency();
  const fields = useMemo(() => ({ dated: day(month), amount: amount(digits), reference: words() }), [month, digits]);
  const form = useCodecForm(fields, start);
  const onSubmit = form.submit(async (body) => {
    await send(body);
    toast(done(body.amount));
  }, faultOf);
  const typed = form.valueOf('amount');
  return (
    <form className="mt-5" onSubmit={onSubmit} aria-label={title} noValidate>
      <h3 className="mb-2">{title}</h3>
      <div className="flex flex-wrap items-start gap-3">
        {form.input('dated', 'Date', { className: 'w-[140px]' })}
        {form.input('amount', 'Amount', { className: 'w-[140px]' })}
        {form.input('reference', 'Reference', { className: 'w-[220px]' })}
        <button className="button main mt-[20px]" disabled={form.busy}>
          {verb} {typed === null ? '' : exact(typed)}
        </button>
      </div>
      {form.refused && <Refused message={form.refused} />}
    </form>
  );
}

/** Money in on a certified application or a release. */
export function ReceiveForm({ job, invoice, open }: { job: string; invoice: string; open: number }) {
  const { entryDay } = useAsOf();
  const { digits, exact } = useCurrency();
  const [receive] = useRecordReceiptMutation();
  const name = /^\d+$/.test(invoice) ? `application ${invoice}` : invoice;
  return (
    <MoneyForm
      key={open}
      title={`Money received on ${name}`}
      start={{ dated: displayDate(entryDay), amount: displayExact(open, digits), reference: '' }}
      verb="Record receipt of"
      send={(body) => receive({ job, invoice, body }).unwrap()}
      done={(amount) => `Receipt of ${exact(amount)} recorded on ${name}`}
    />
  );
}

/** An invoice for retention that the client gives back. `held` is what may be asked for, before tax. */
export function ReleaseForm({ job, held }: { job: string; held: number }) {
  const { entryDay } = useAsOf();
  const { digits, exact } = useCurrency();
  const [release] = useReleaseRetentionMutation();
  return (
    <MoneyForm
      key={held}
      title={`Retention released by the client, of ${exact(held)} held`}
      start={{ dated: displayDate(entryDay), amount: displayExact(held, digits), reference: 'Retention release' }}
      verb="Invoice"
      send={(body) => release({ job, body }).unwrap()}
      done={(amount) => `Retention of ${exact(amount)} invoiced, tax on top`}
    />
  );
}
