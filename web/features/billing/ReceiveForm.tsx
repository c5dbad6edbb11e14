import { useRecordReceiptMutation, useReleaseRetentionMutation } from '../../ground/api/api';
import { useState } from 'react';
import { toast } from 'sonner';
import { displayDate } from '../../../core/calendar/displayDate';
import { displayExact } from '../../../core/money/display';
import { useAsOf } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf, type ShownFault } from '../../ground/faults';
import { Field } from '../../kit/Field';
import { readDate } from '../../kit/typed/readDate';
import { Refused } from '../../kit/States';
import { readAmount } from '../../kit/typed/tidyAmount';

interface Typed {
  dated: string;
  amount: string;
  reference: string;
}

/** A day, an amount and a reference, read and sent; what was typed stays where it is refused. */
function MoneyForm({
  title,
  start,
  verb,
  send,
  done,
}: {
  title: string;
  start: Typed;
  verb: string;
  send: (body: { dated: string; amount: number; reference: string }) => Promise<unknown>;
  done: (amount: number) => string;
}) {
  const { month } = useAsOf();
  const { digits, exact } = useCurrency();
  const [typed, setTyped] = useState(start);
  const [fault, setFault] = useState<ShownFault | null>(null);
  const amount = readAmount(typed.amount, digits);
  const of = (field: string) => fault?.faults.find((it) => it.field === field)?.message;
  const submit = async (event: React.FormEvent) => {
    event.preventDefault();
    const dated = readDate(typed.dated, month);
    if (!dated)
      return setFault({
        message: 'Date: enter a date, e.g. 30 Apr 2031',
        faults: [{ field: 'dated', message: 'Expected a day' }],
      });
    if (amount === null)
      return setFault({
        message: 'Amount: expected one such as 12,500.00',
        faults: [{ field: 'amount', message: 'Expected an amount' }],
      });
    try {
      await send({ dated, amount, reference: typed.reference });
      toast(done(amount));
      setFault(null);
    } catch (error) {
      setFault(faultOf(error));
    }
  };
  const input = (key: keyof Typed, label: string, width: number) => (
    <Field label={label} fault={of(key)}>
      <input
        value={typed[key]}
        style={{ width }}
        className={key === 'amount' ? 'figure' : ''}
        onChange={(event) => setTyped({ ...typed, [key]: event.target.value })}
      />
    </Field>
  );
  return (
    <form className="mt-5" onSubmit={submit} aria-label={title}>
      <h3 className="mb-2">{title}</h3>
      <div className="flex flex-wrap items-start gap-3">
        {input('dated', 'Date', 130)}
        {input('amount', 'Amount', 140)}
        {input('reference', 'Reference', 220)}
        <button className="button main mt-[20px]">
          {verb} {amount === null ? '' : exact(amount)}
        </button>
      </div>
      {fault && fault.faults.length === 0 && <Refused message={fault.message} />}
    </form>
  );
}

/** Money in on a certified application or a release. */
export function ReceiveForm({ job, invoice, open }: { job: string; invoice: string; open: number }) {
  const { lastDay } = useAsOf();
  const { digits, exact } = useCurrency();
  const [receive] = useRecordReceiptMutation();
  const name = /^\d+$/.test(invoice) ? `application ${invoice}` : invoice;
  return (
    <MoneyForm
      key={open}
      title={`Money received on ${name}`}
      start={{ dated: displayDate(lastDay), amount: displayExact(open, digits), reference: '' }}
      verb="Record receipt of"
      send={(body) => receive({ job, invoice, body }).unwrap()}
      done={(amount) => `Receipt of ${exact(amount)} recorded on ${name}`}
    />
  );
}

/** An invoice for retention that the client gives back. `held` is what may be asked for, before tax. */
export function ReleaseForm({ job, held }: { job: string; held: number }) {
  const { lastDay } = useAsOf();
  const { digits, exact } = useCurrency();
  const [release] = useReleaseRetentionMutation();
  return (
    <MoneyForm
      key={held}
      title={`Retention released by the client, of ${exact(held)} held`}
      start={{ dated: displayDate(lastDay), amount: displayExact(held, digits), reference: 'Retention release' }}
      verb="Invoice"
      send={(body) => release({ job, body }).unwrap()}
      done={(amount) => `Retention of ${exact(amount)} invoiced, tax on top`}
    />
  );
}
