import { useMemo, useState } from 'react';
import { toast } from '../../kit/toast';
import { displayDate } from '../../../core/calendar/displayDate';
import { receiptJournal } from '../../../core/billing/receipt';
import { retentionReleaseJournal } from '../../../core/billing/retentionRelease';
import type { PlainDate } from '../../../core/calendar/plainDate';
import type { Journal as JournalLines } from '../../../core/ledger/journal';
import { journalView } from '../../../core/ledger/journalView';
import { displayExact } from '../../../core/money/display';
import { formatPercentShortest, rateOf } from '../../../core/money/rate';
import { useRecordReceiptMutation, useReleaseRetentionMutation } from '../../ground/api/api';
import { useAsOf } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import { useCodecForm } from '../../kit/form/useCodecForm';
import { Journal } from '../../kit/Journal';
import { Refused } from '../../kit/States';
import { amount, day, words } from '../../kit/typed/codecs';

interface Money {
  dated: string;
  amount: number;
  reference: string;
}

interface MoneyFormProps {
  title: string;
  /** What the form begins with, once: sent, it never fills itself with an amount again. */
  start: { amount: string; reference: string };
  /** What is outstanding or held: a press enters it. */
  remaining: number;
  verb: string;
  /** What it comes to with tax, where that is another figure; in words. */
  note?: (amount: number) => string;
  journal: (on: PlainDate, amount: number) => JournalLines;
  send: (body: Money) => Promise<unknown>;
  done: (amount: number) => string;
}

/** A day, an amount and a reference, read and sent, with the journal it will post; what was typed stays where it is refused. */
function MoneyForm({ title, start, remaining, verb, note, journal, send, done }: MoneyFormProps) {
  const { month, entryDay } = useAsOf();
  const { digits, exact, show } = useCurrency();
  const fields = useMemo(() => ({ dated: day(month), amount: amount(digits), reference: words() }), [month, digits]);
  const form = useCodecForm(fields, { dated: displayDate(entryDay), ...start });
  const onSubmit = form.submit(async (body) => {
    await send(body);
    form.restart({ amount: '', reference: '' });
    toast(done(body.amount));
  }, faultOf);
  const [typed, on] = [form.valueOf('amount'), form.valueOf('dated')];
  return (
    <form className="mt-5" onSubmit={onSubmit} aria-label={title} noValidate data-grave>
      <h3 className="mb-2">{title}</h3>
      <div className="flex flex-wrap items-start gap-3">
        {form.input('dated', 'Date', { className: 'w-[140px]' })}
        {form.input('amount', 'Amount', { className: 'w-[140px]' })}
        {form.input('reference', 'Reference', { className: 'w-[220px]' })}
        <button className="button main mt-[20px]" disabled={form.busy}>
          {verb} {typed === null ? '' : exact(typed)}
        </button>
        {remaining !== 0 && typed !== remaining && (
          <button
            type="button"
            className="button bare mt-[20px]"
            onClick={() => form.set('amount', displayExact(remaining, digits))}
          >
            Remaining {exact(remaining)}
          </button>
        )}
      </div>
      {form.refused && <Refused message={form.refused} />}
      {typed !== null && typed !== 0 && on !== null && (
        <div className="mt-3 max-w-[560px]">
          {note && <p className="note m-0 mb-1">{note(typed)}</p>}
          <Journal journal={journalView(journal(on, typed))} show={show} />
        </div>
      )}
    </form>
  );
}

/** Money in on a certified application or a release. `open`: what may be received on it. */
export function ReceiveForm({ job, invoice, open }: { job: string; invoice: string; open: number }) {
  const { digits, exact } = useCurrency();
  const [receive] = useRecordReceiptMutation();
  const [start] = useState({ amount: displayExact(open, digits), reference: '' });
  const name = /^\d+$/.test(invoice) ? `application ${invoice}` : invoice;
  return (
    <MoneyForm
      title={`Money received on ${name}`}
      start={start}
      remaining={open}
      verb="Record receipt of"
      journal={receiptJournal}
      send={(body) => receive({ job, invoice, body }).unwrap()}
      done={(amount) => `Receipt of ${exact(amount)} recorded on ${name}`}
    />
  );
}

interface ReleaseProps {
  job: string;
  /** What may be asked for, before tax. */
  held: number;
  taxName: string;
  taxRate: number;
}

/** An invoice for retention that the client gives back. */
export function ReleaseForm({ job, held, taxName, taxRate }: ReleaseProps) {
  const { exact } = useCurrency();
  const [release] = useReleaseRetentionMutation();
  return (
    <MoneyForm
      title={`Release retention (${exact(held)} held)`}
      start={{ amount: '', reference: 'Retention release' }}
      remaining={held}
      verb="Invoice"
      note={(amount) =>
        `${taxName} at ${formatPercentShortest(taxRate)} %: ${exact(rateOf(taxRate, amount))}; payable ${exact(amount + rateOf(taxRate, amount))}.`
      }
      journal={(on, amount) => retentionReleaseJournal(on, amount, rateOf(taxRate, amount))}
      send={(body) => release({ job, body }).unwrap()}
      done={(amount) => `Retention of ${exact(amount)} invoiced, tax on top`}
    />
  );
}
