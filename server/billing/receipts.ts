import { ReceiptTable, RetentionReleaseTable } from './models';
import { shape, t } from '../db/fields';
import { receiptRefusals, releaseRefusals } from '../../core/billing/invoiceRefusals';
import { refuse } from '../../core/refusals/refusal';
import { APPLICATION_LIFE } from '../../core/billing/applicationLife';
import { assertAllowed, assertMove } from '../http/refused';
import type { Command } from '../ledger/command';
import { LedrinError } from '../../core/errors/ledrinError';
import { rateOf } from '../../core/money/rate';
import { receiptJournal } from '../../core/billing/receipt';
import { retentionReleaseJournal } from '../../core/billing/retentionRelease';
import type { Reader } from '../db/sql';
import { loadBillingJobs } from './billingJobs';
import { loadDigits } from '../company/company';
import { jobToPostTo } from '../jobs/jobByNumber';
import { savePosting } from '../ledger/savePosting';
import { fieldError } from '../company/saveCompany';

/** Money in, on a certified application or on a release of retention. */
export async function recordReceipt(
  command: Command,
  jobNumber: string,
  reference: string,
  input: { dated: string; amount: number; reference: string },
): Promise<number> {
  const { sql, actor } = command;
  const { id } = await jobToPostTo(sql, jobNumber);
  const digits = await loadDigits(sql);
  const invoice = await invoiceOf(sql, id, jobNumber, reference);
  if (input.amount === 0) assertAllowed([refuse('receipt-nothing', 'amount', {})]);
  assertAllowed(receiptRefusals(invoice, input), { digits });
  const postingId = await savePosting(
    sql,
    actor,
    { kind: 'receipt', jobId: id, reference: input.reference, dated: input.dated },
    [receiptJournal(input.dated, input.amount)],
  );
  await sql.insert(ReceiptTable, {
    job_id: id,
    application_id: invoice.applicationId,
    release_id: invoice.releaseId,
    dated: input.dated,
    amount: input.amount,
    reference: input.reference,
    posting_id: postingId,
  });
  command.note(`${jobNumber}/${reference}`, input);
  return postingId;
}

interface Invoice {
  applicationId: number | null;
  releaseId: number | null;
  since: string;
  payable: number;
  received: number;
}

async function invoiceOf(sql: Reader, jobId: number, jobNumber: string, reference: string): Promise<Invoice> {
  const query = /^\d+$/.test(reference)
    ? `SELECT a.id AS applicationId, NULL AS releaseId, a.certified_on AS since, a.due + a.tax AS payable, coalesce((SELECT sum(amount) FROM receipt WHERE application_id = a.id), 0) AS received, a.status
        FROM application a WHERE a.job_id = $1 AND a.number = CAST($2 AS INTEGER)`
    : `SELECT NULL AS applicationId, l.id AS releaseId, l.dated AS since, l.amount + l.tax AS payable, coalesce((SELECT sum(amount) FROM receipt WHERE release_id = l.id), 0) AS received, 'certified' AS status
        FROM retention_release l WHERE l.job_id = $1 AND l.reference = $2`;
  const invoice = await sql.get(
    shape({
      applicationId: t.orNull(t.whole),
      releaseId: t.orNull(t.whole),
      since: t.orNull(t.day),
      payable: t.orNull(t.cents),
      received: t.cents,
      status: t.text,
    }),
    query,
    [jobId, reference],
  );
  if (!invoice) throw new LedrinError('not-found', `Job ${jobNumber} has no application or release ${reference}`);
  assertMove(APPLICATION_LIFE, 'receive', `Application ${reference}`, invoice.status);
  return invoice;
}

/** Invoices retention the client gives back. Never more than is held on the day. */
export async function releaseRetention(
  command: Command,
  jobNumber: string,
  input: { dated: string; amount: number; reference: string },
): Promise<number> {
  const { sql, actor } = command;
  const { id } = await jobToPostTo(sql, jobNumber);
  const digits = await loadDigits(sql);
  const job = (await loadBillingJobs(sql, id)).get(jobNumber)!;
  assertAllowed(releaseRefusals(job, input), { digits });
  if (job.releases.some((it) => it.reference === input.reference))
    throw fieldError('reference', `There is a release "${input.reference}" on this job already; choose another reference`);
  const tax = rateOf(job.taxRate, input.amount);
  const postingId = await savePosting(
    sql,
    actor,
    { kind: 'retention-release', jobId: id, reference: input.reference, dated: input.dated },
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
  command.note(jobNumber, input);
  return postingId;
}
