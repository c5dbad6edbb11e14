import { creditRefusals, creditTax, restOf, type Credit } from '../../core/charging/credit';
import { dayworkJournal } from '../../core/charging/dayworkInvoice';
import { passesCeiling } from '../../core/charging/ceiling';
import { takesRefusal } from '../../core/jobs/takes';
import { refuse } from '../../core/refusals/refusal';
import { LedrinError } from '../../core/errors/ledrinError';
import type { CreditInput } from '../../wire/charging';
import { CREDITS_ON_INVOICE, RECEIVED_ON_INVOICE } from '../billing/queries';
import { assertFreeReference } from '../billing/references';
import { loadDigits } from '../company/company';
import type { RowOf } from '../db/fields';
import type { Reader } from '../db/sql';
import { assertAllowed } from '../acts/refused';
import type { Command } from '../acts/command';
import { assertOfTeam } from '../jobs/restricted';
import { savePosting } from '../ledger/savePosting';
import { DayworkInvoiceTable, DayworkLineTable, InvoiceCreditTable } from './models';
import { invoicedOtherwise } from '../charging/invoicedStands';
import { recharge } from '../charging/marks';
import { CREDITS_OF_INVOICE, DAYWORK_INVOICE, INVOICED_OF_JOBS } from './queries';
import { jobToInvoice } from './planRun';
import { postInvoices } from './runDaywork';

type Invoice = RowOf<typeof DAYWORK_INVOICE>;

/** A daywork invoice with its job. Throws not-found. */
export async function invoiceOf(sql: Reader, number: string, reference: string) {
  const job = await jobToInvoice(sql, number);
  const invoice = await sql.get(DAYWORK_INVOICE, [job.id, reference]);
  if (!invoice) throw new LedrinError('not-found', `Job ${number} has no daywork invoice ${reference.slice(0, 80)}`);
  return { job, invoice };
}

/** An invoice with what was credited and received, as far as it is credited further. */
export async function creditedState(sql: Reader, { invoiceId, ...it }: Invoice) {
  const credits = invoiceId === null ? [] : await sql.all(CREDITS_OF_INVOICE, [invoiceId]);
  return {
    ...it,
    credits: credits.map(({ inFull, ...credit }) => ({ ...credit, inFull: inFull === 1 })),
    receipts: invoiceId === null ? [] : await sql.all(RECEIVED_ON_INVOICE, [invoiceId]),
    taken: invoiceId === null ? [] : await sql.all(CREDITS_ON_INVOICE, [invoiceId]),
  };
}

/** Credits an invoice in full, whose entries can then be invoiced again, or in part by an amount before tax. */
export async function creditDaywork(command: Command, number: string, reference: string, input: CreditInput): Promise<number> {
  const { sql, actor } = command;
  const { job, invoice } = await invoiceOf(sql, number, reference);
  assertAllowed([takesRefusal(job, 'receipts')], { code: 'refused' });
  await assertOfTeam(sql, actor, [job.id]);
  if (invoice.invoiceId === null)
    throw new LedrinError('refused', `${reference} is a draft; delete it instead`, [
      { field: 'dated', message: 'it is not issued' },
    ]);
  const state = await creditedState(sql, invoice);
  const inFull = input.amount === null;
  const asked = inFull ? restOf(state) : { amount: input.amount ?? 0, tax: creditTax(input.amount ?? 0, job.taxRate) };
  const credit: Credit = { creditNote: input.creditNote, dated: input.dated, inFull, ...asked };
  assertAllowed(creditRefusals(state, credit), { digits: await loadDigits(sql) });
  await assertFreeReference(sql, job.id, input.creditNote, 'creditNote');
  const posting = {
    kind: 'credit-note' as const,
    jobId: job.id,
    reference: input.creditNote,
    postedOn: input.dated,
    note: input.reason,
  };
  const postingId = await savePosting(sql, actor, posting, [
    dayworkJournal(input.dated, { amount: -credit.amount, tax: -credit.tax }),
  ]);
  await sql.insert(InvoiceCreditTable, {
    job_id: job.id,
    invoice_id: invoice.invoiceId,
    credit_note: credit.creditNote,
    dated: credit.dated,
    amount: credit.amount,
    tax: credit.tax,
    in_full: inFull ? 1 : 0,
    reason: input.reason,
    posting_id: postingId,
  });
  // Free again, its entries are charged as all else is now.
  if (inFull) await recharge(sql, [job.id]);
  command.note(`${number}/${reference}`, input);
  return postingId;
}

/** A draft, as a book brought it. Throws refused for one that is issued, and on a job whose team does not have who acts. */
async function draftOf({ sql, actor }: Command, number: string, reference: string) {
  const { job, invoice } = await invoiceOf(sql, number, reference);
  await assertOfTeam(sql, actor, [job.id]);
  if (invoice.status === 'issued') throw new LedrinError('refused', `${reference} is issued; credit it instead`);
  return { job, invoice };
}

/** Issues a draft on its own day: it is posted with the next number. */
export async function issueDraft(command: Command, number: string, reference: string): Promise<void> {
  const { sql } = command;
  const { job, invoice } = await draftOf(command, number, reference);
  const { amount, tax, dated } = invoice;
  const passed = passesCeiling(
    [...(await sql.all(INVOICED_OF_JOBS, [JSON.stringify([job.id])])), { dated, amount }],
    job.ceiling,
    dated,
  );
  if (passed)
    assertAllowed([refuse('ceiling-passed', 'entries', { ceiling: job.ceiling ?? 0, ...passed })], {
      digits: await loadDigits(sql),
      code: 'refused',
    });
  const postingId = await postInvoices(command, [{ job, reference, dated, amount, tax, payable: amount + tax }]);
  await sql.update(DayworkInvoiceTable, { id: invoice.id }, { status: 'issued', posting_id: postingId });
  if ((await invoicedOtherwise(sql)).length > 0)
    throw new LedrinError(
      'refused',
      `Rates or markups have changed since ${reference} was drafted; delete the draft, and invoice its entries again`,
    );
  command.note(`${number}/${reference}`, { dated, amount, tax });
}

/** Deletes a draft; its entries are free again, and charged as all else is now. */
export async function deleteDraft(command: Command, number: string, reference: string): Promise<void> {
  const { job, invoice } = await draftOf(command, number, reference);
  await command.sql.remove(DayworkLineTable, { daywork_invoice_id: invoice.id });
  await command.sql.remove(DayworkInvoiceTable, { id: invoice.id });
  await recharge(command.sql, [job.id]);
  command.note(`${number}/${reference}`, {});
}
