import type { InvoiceKind } from '../../core/billing/invoice';
import { inJob, postingPlace, type Place } from '../../core/places/place';
import { money, type Workings } from '../../core/workings/workings';
import { CREDITS_OF_INVOICE } from '../daywork/queries';
import type { Reader } from '../db/sql';
import type { JobIdentity } from '../jobs/jobByNumber';
import { ofJob } from './figureFamily';
import { INVOICE_ASKED, RECEIPTS_OF_INVOICE } from './queries';

/** Where an invoice of a job is looked at. */
export function placeOfInvoice(job: { number: string }, { kind, invoice }: { kind: InvoiceKind; invoice: string }): Place {
  if (kind === 'release') return inJob(job, 'billing');
  return inJob(job, kind === 'daywork' ? 'daywork' : 'application', invoice);
}

/** What is open on a release of retention or an invoice of charged cost. */
export const openOnRelease = ofJob(['releaseOpen'], (sql, job, { release }, asOf) => explainOpen(sql, job, release ?? '', asOf));

/** What is open on one invoice: what it asks for, less what is credited and every receipt on it. */
export async function explainOpen(
  sql: Reader,
  job: Pick<JobIdentity, 'id' | 'number' | 'name'>,
  reference: string,
  asOf: string,
): Promise<Workings> {
  const isNumber = /^\d+$/.test(reference);
  const invoice = await sql.get(INVOICE_ASKED, [job.id, reference, asOf]);
  const receipts = invoice ? await sql.all(RECEIPTS_OF_INVOICE, [invoice.id, asOf]) : [];
  const credits = invoice ? (await sql.all(CREDITS_OF_INVOICE, [invoice.id])).filter((it) => it.dated <= asOf) : [];
  const asked = invoice?.asked ?? 0;
  const ways =
    invoice && !isNumber
      ? { to: placeOfInvoice(job, { kind: invoice.kind, invoice: reference }) }
      : { figure: { figure: 'payable', job: job.number, application: Number(reference) } };
  const less = [
    ...credits.map((it) =>
      money(`Credited ${it.dated} ${it.creditNote}`, it.amount + it.tax, '−', { to: postingPlace(it.postingId) }),
    ),
    ...receipts.map((it) =>
      money(`Received ${it.dated} ${it.reference}`.trim(), it.amount, '−', { to: postingPlace(it.posting) }),
    ),
  ];
  return {
    title: 'Outstanding',
    subject: `Job ${job.number} ${job.name}, ${isNumber ? `application ${reference}` : reference}`,
    rule: 'What it asks for, tax included, less what was credited and received on it by the date.',
    operands: [money('Payable', asked, '', ways), ...less],
    result: less.reduce((left, it) => left - Number(it.value), asked),
    unit: 'money',
  };
}
