import { useEffect, useState } from 'react';
import { displayDate } from '../../../core/calendar/displayDate';
import { SHOWN_AS, type ShownAs } from '../../../core/charging/dayworkInvoice';
import { plural } from '../../../core/names/plural';
import type { RunPreview } from '../../../wire/charging';
import { useIssueRunMutation, usePreviewRunMutation } from '../../ground/api/api';
import { useAsOf } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { useAttempt } from '../../ground/useAttempt';
import { Choice } from '../../kit/choice/Choice';
import type { Option } from '../../kit/choice/options';
import { Field } from '../../kit/Field';
import { DayInput } from '../../kit/form/DayInput';
import { Refused } from '../../kit/States';
import { toast } from '../../kit/toast';
import { readDate } from '../../kit/typed/readDate';
import { RunShown } from './RunShown';

const SHOWN_WORDS: Readonly<Record<ShownAs, string>> = {
  entries: 'one line an entry',
  'cost-types': 'one line a kind of cost',
  'one-line': 'one line in all',
};

interface RunProps {
  /** What a press previews: "3 invoices, 1,200.00". */
  what: string;
  /** The jobs, each with the entries it takes; null: all that are ready. */
  invoices: readonly { job: string; entries: readonly number[] | null }[];
  /** The reference of the one invoice that is made; null where there may be several. */
  reference?: string | null;
  onIssued: () => void;
}

/** Invoices of what is charged: day, cut-off and form, the invoices as the client will read them, and then all of them at once. */
export function DayworkRun({ what, invoices, reference = null, onIssued }: RunProps) {
  const { lastDay, month } = useAsOf();
  const { exact } = useCurrency();
  const [dated, setDated] = useState(displayDate(lastDay));
  const [cutOff, setCutOff] = useState(displayDate(lastDay));
  const [shown, setShown] = useState<ShownAs>('entries');
  const [wording, setWording] = useState('');
  const [named, setNamed] = useState(reference ?? '');
  const [preview, setPreview] = useState<RunPreview | null>(null);
  const { refused, setRefused, attempt } = useAttempt();
  const [look, looking] = usePreviewRunMutation();
  const [issue, issuing] = useIssueRunMutation();
  useEffect(() => setNamed(reference ?? ''), [reference]);
  const [day, until] = [readDate(dated, month), readDate(cutOff, month)];
  const body = {
    dated: day ?? '',
    cutOff: until ?? '',
    invoices: invoices.map((it) => ({
      job: it.job,
      reference: reference === null ? '' : named.trim(),
      shown,
      wording: wording.trim(),
      entries: it.entries === null ? null : [...it.entries],
    })),
  };
  const asked = JSON.stringify(body);
  // What was shown is of what was asked for then: asked otherwise, it is looked at anew.
  useEffect(() => {
    setPreview(null);
    setRefused(null);
  }, [asked, setRefused]);
  const faultOf = (read: string | null) => (read === null ? 'Enter a date, e.g. 1 Apr 2031' : undefined);
  const canLook = invoices.length > 0 && day !== null && until !== null;
  const issueIt = (seen: RunPreview) =>
    attempt(async () => {
      const issued = await issue({ body: { ...body, seen: seen.seen } }).unwrap();
      const total = issued.invoices.reduce((sum, it) => sum + it.payable, 0);
      toast(`Issued ${plural(issued.invoices.length, 'invoice')}, ${exact(total)} with tax`);
      setPreview(null);
      setWording('');
      onIssued();
    });
  const total = preview?.invoices.reduce((sum, it) => sum + it.payable, 0) ?? 0;
  return (
    <section aria-label="Invoice what is charged" className="mt-4" data-grave>
      <div className="flex flex-wrap items-end gap-3">
        <Field label="Invoice date" fault={faultOf(day)} className="w-[140px]">
          <DayInput value={dated} month={month} onText={setDated} />
        </Field>
        <Field label="Charged until" fault={faultOf(until)} className="w-[140px]">
          <DayInput value={cutOff} month={month} onText={setCutOff} />
        </Field>
        {reference !== null && (
          <Field label="Reference" className="w-[110px]">
            <input value={named} onChange={(event) => setNamed(event.target.value)} />
          </Field>
        )}
        <Field label="Lines" className="w-[180px]">
          <Choice
            value={shown}
            options={SHOWN_AS.map((it): Option => [it, SHOWN_WORDS[it]])}
            onChange={(to) => setShown(to as ShownAs)}
          />
        </Field>
        <Field label={shown === 'one-line' ? 'Words of the line' : 'Words above the lines'} className="min-w-[220px] grow">
          <input value={wording} maxLength={400} onChange={(event) => setWording(event.target.value)} />
        </Field>
        <button
          type="button"
          className={`button ${preview ? '' : 'main'}`}
          disabled={!canLook || looking.isLoading}
          onClick={() => void attempt(async () => setPreview(await look({ body }).unwrap()))}
        >
          Preview {what}
        </button>
        {preview && (
          <button type="button" className="button main" disabled={issuing.isLoading} onClick={() => void issueIt(preview)}>
            Issue {plural(preview.invoices.length, 'invoice')}, {exact(total)} with tax
          </button>
        )}
      </div>
      {refused && <Refused message={refused.message} />}
      {preview && <RunShown preview={preview} dated={body.dated} />}
    </section>
  );
}
