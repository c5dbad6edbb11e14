import { CREDITS_ON_INVOICE, INVOICE_BY_REFERENCE, RECEIVED_ON_INVOICE } from './queries';
import { ApplicationTable, ReceiptTable, RetentionReleaseTable } from './models';
import { dueDay } from '../../core/billing/invoice';
import { saveInvoice } from './invoices';
import { receiptRefusals, releaseRefusals } from '../../core/billing/invoiceRefusals';
import { refuse } from '../../core/refusals/refusal';
import { APPLICATION_LIFE } from '../../core/billing/applicationLife';
import { assertAllowed, assertMove } from '../acts/refused';
import type { Command } from '../acts/command';
import { LedrinError } from '../../core/errors/ledrinError';
import { rateOf } from '../../core/money/rate';
import { receiptJournal } from '../../core/billing/receipt';
import { retentionReleaseJournal } from '../../core/billing/retentionRelease';
import type { Reader } from '../db/sql';
import { assertFreeReference } from './references';
import { loadBillingJob } from './billingJobs';
import { loadDigits } from '../company/company';
import { jobThatTakes } from '../jobs/jobByNumber';
import { savePosting } from '../ledger/savePosting';

/** Money in, on a certified application or on a release of retention. */
export async function recordReceipt(
  command: Command,
  jobNumber: string,
  reference: string,
  input: { dated: string; amount: number; reference: string },
): Promise<number> {
  const { sql, actor } = command;
  const { id } = await jobThatTakes(sql, jobNumber, 'receipts');
  const digits = await loadDigits(sql);
  const invoice = await invoiceByReference(sql, id, jobNumber, reference);
  if (input.amount === 0) assertAllowed([refuse('receipt-nothing', 'amount', {})]);
  assertAllowed(receiptRefusals(invoice, input), { digits });
  const postingId = await savePosting(
    sql,
    actor,
    { kind: 'receipt', jobId: id, reference: input.reference, postedOn: input.dated },
    [receiptJournal(input.dated, input.amount)],
  );
  await sql.insert(ReceiptTable, {
    job_id: id,
    invoice_id: invoice.id,
    dated: input.dated,
    amount: input.amount,
    reference: input.reference,
    posting_id: postingId,
  });
  command.note(`${jobNumber}/${reference}`, input);
  return postingId;
}

/** The invoice under a reference, with what was received on it. Throws refused for an application that is not certified yet. */
async function invoiceByReference(sql: Reader, jobId: number, jobNumber: string, reference: string) {
  const isNumber = /^\d+$/.test(reference);
  const application = isNumber ? await sql.findOne(ApplicationTable, { job_id: jobId, number: Number(reference) }) : undefined;
  const invoice = await sql.get(INVOICE_BY_REFERENCE, [jobId, isNumber ? String(Number(reference)) : reference]);
  if (application) assertMove(APPLICATION_LIFE, 'receive', `Application ${reference}`, application.status);
  if (!invoice) throw new LedrinError('not-found', `Job ${jobNumber} has no invoice ${reference}`);
  return {
    ...invoice,
    receipts: await sql.all(RECEIVED_ON_INVOICE, [invoice.id]),
    credits: await sql.all(CREDITS_ON_INVOICE, [invoice.id]),
  };
}

/** Invoices retention the client gives back. Never more than is held on the day. */
export async function releaseRetention(
  command: Command,
  jobNumber: string,
  input: { dated: string; amount: number; reference: string },
): Promise<number> {
  const { sql, actor } = command;
  const { id } = await jobThatTakes(sql, jobNumber, 'receipts');
  const digits = await loadDigits(sql);
  const job = await loadBillingJob(sql, id);
  assertAllowed(releaseRefusals(job, input), { digits });
  await assertFreeReference(sql, id, input.reference);
  const tax = rateOf(job.taxRate, input.amount);
  const postingId = await savePosting(
    sql,
    actor,
    { kind: 'retention-release', jobId: id, reference: input.reference, postedOn: input.dated },
    [retentionReleaseJournal(input.dated, input.amount, tax)],
  );
  await sql.insert(RetentionReleaseTable, {
    job_id: id,
    dated: input.dated,
    amount: input.amount,
    tax,
    reference: input.reference,
    posting_id: postingId,
  });
  await saveInvoice(sql, id, postingId, {
    kind: 'release',
    reference: input.reference,
    dated: input.dated,
    postedOn: input.dated,
    dueOn: dueDay(input.dated, job.termsDays),
    payable: input.amount + tax,
  });
  command.note(jobNumber, input);
  return postingId;
}
