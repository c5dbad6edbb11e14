import { displayDate } from '../../../core/calendar/displayDate';
import { plural } from '../../../core/names/plural';
import type { RunInvoiceView, RunPreview } from '../../../wire/charging';
import { useCurrency } from '../../ground/company';
import { OverUnder } from '../../ground/OverUnder';
import { Journal } from '../../kit/Journal';
import { InvoiceLines } from './InvoiceLines';

const SHOWN = 20;

/** Invoices as the client will read them, with the journal each makes and what it does to its job. */
export function RunShown({ preview, dated }: { preview: RunPreview; dated: string }) {
  const { exact } = useCurrency();
  return (
    <section aria-label="Preview" className="mt-4">
      {preview.notReady.length > 0 && (
        <div className="sheet mb-4 px-3 py-2">
          <b>Not on these invoices</b>
          <ul className="m-0 list-none p-0">
            {preview.notReady.map((it) => (
              <li key={`${it.job} ${it.why}`}>
                {it.job} {it.jobName}: {plural(it.entries, 'entry', 'entries')}, {exact(it.charge)}, {it.why}
              </li>
            ))}
          </ul>
        </div>
      )}
      {preview.invoices.slice(0, SHOWN).map((it) => (
        <Invoice key={it.job} invoice={it} dated={dated} />
      ))}
      {preview.invoices.length > SHOWN && (
        <p className="note">{plural(preview.invoices.length - SHOWN, 'more invoice')}, not shown here; all of them are issued.</p>
      )}
    </section>
  );
}

function Invoice({ invoice: it, dated }: { invoice: RunInvoiceView; dated: string }) {
  const { show, exact } = useCurrency();
  const over = (value: number) => <OverUnder over={Math.max(0, value)} under={Math.max(0, -value)} />;
  return (
    <div className="mb-6 grid grid-cols-[minmax(0,1.7fr)_minmax(300px,1fr)] gap-6">
      <div>
        <h2 className="mb-1">
          {it.clientName}: job {it.job} {it.jobName}
        </h2>
        <p className="note mb-1 mt-0">
          Invoice {it.reference} of {displayDate(dated)}, due {displayDate(it.dueOn)}. {plural(it.entries, 'entry', 'entries')}
        </p>
        <InvoiceLines invoice={it} label={`Lines of ${it.reference}`} />
        <p className="note mb-0 mt-1">
          Cost {exact(it.cost)}, margin {exact(it.amount - it.cost)}: not on the invoice.
        </p>
      </div>
      <div>
        <Journal journal={it.journal} show={show} />
        <p className="mb-0 mt-2">
          <span className="note">Over / under billed</span> {over(it.before)} → {over(it.after)}
        </p>
      </div>
    </div>
  );
}
