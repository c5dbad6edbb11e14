import { addDays, daysBetween } from '../../core/calendar/plainDate';
import { receiptRefusals } from '../../core/billing/invoiceRefusals';
import { loadDigits } from '../company/company';
import { assertAllowed } from '../acts/refused';
import { saveInvoice } from './invoices';
import { CREDITS_ON_INVOICE, RECEIVED_ON_INVOICE } from './queries';
import { InvoiceTable, ReceiptTable, RetentionReleaseTable } from './models';
import { present } from '../../core/errors/known';
import { receiptJournal } from '../../core/billing/receipt';
import { retentionReleaseJournal } from '../../core/billing/retentionRelease';
import { reversalOf, type Reversal } from '../ledger/reversal';
import { savePosting } from '../ledger/savePosting';

/** Money that did not come in after all: a receipt of the other sign on the same invoice. */
export const reverseReceipt: Reversal = async (sql, actor, posting, when, reason) => {
  const { day: on } = when;
  const receipt = present(await sql.findOne(ReceiptTable, { posting_id: posting.id }));
  const { posted_on: since, payable } = present(await sql.findOne(InvoiceTable, { id: receipt.invoice_id }));
  const receipts = await sql.all(RECEIVED_ON_INVOICE, [receipt.invoice_id]);
  const credits = await sql.all(CREDITS_ON_INVOICE, [receipt.invoice_id]);
  assertAllowed(receiptRefusals({ since, payable, receipts, credits }, { dated: on, amount: -receipt.amount }), {
    digits: await loadDigits(sql),
    fields: { dated: 'on', amount: 'on' },
  });
  const postingId = await savePosting(sql, actor, reversalOf(posting, when, reason), [receiptJournal(on, -receipt.amount)]);
  await sql.insert(ReceiptTable, {
    job_id: receipt.job_id,
    invoice_id: receipt.invoice_id,
    dated: on,
    amount: -receipt.amount,
    reference: receipt.reference,
    posting_id: postingId,
  });
  return { postingId, entries: 1, total: -receipt.amount };
};

/** A release that is reversed leaves two invoices that cancel out; both are settled against each other at once. */
export const reverseRelease: Reversal = async (sql, actor, posting, when, reason) => {
  const { day: on } = when;
  const release = present(await sql.findOne(RetentionReleaseTable, { posting_id: posting.id }));
  const payable = release.amount + release.tax;
  const postingId = await savePosting(sql, actor, reversalOf(posting, when, reason), [
    retentionReleaseJournal(on, -release.amount, -release.tax),
    receiptJournal(on, payable),
    receiptJournal(on, -payable),
  ]);
  const invoice = present(await sql.findOne(InvoiceTable, { posting_id: posting.id }));
  const reference = `${release.reference}, reversed by ${postingId}`;
  await sql.insert(RetentionReleaseTable, {
    job_id: release.job_id,
    dated: on,
    amount: -release.amount,
    tax: -release.tax,
    reference,
    posting_id: postingId,
  });
  const backId = await saveInvoice(sql, release.job_id, postingId, {
    kind: 'release',
    reference,
    dated: on,
    postedOn: on,
    payable: -payable,
    dueOn: addDays(on, daysBetween(invoice.posted_on, invoice.due_on)),
  });
  await sql.insertAll(
    ReceiptTable,
    [
      { invoice_id: invoice.id, amount: payable },
      { invoice_id: backId, amount: -payable },
    ].map((it) => ({ ...it, job_id: release.job_id, dated: on, reference: 'set off', posting_id: postingId })),
  );
  return { postingId, entries: 1, total: -payable };
};
