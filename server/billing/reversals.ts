import { receiptJournal } from '../../core/billing/receipt';
import { retentionReleaseJournal } from '../../core/billing/retentionRelease';
import { reversalOf, type Reversal } from '../ledger/reversal';
import { savePosting } from '../ledger/savePosting';

/** Money that did not come in after all: a receipt of the other sign on the same invoice. */
export const reverseReceipt: Reversal = async (sql, actor, posting, on, reason) => {
  const receipt = (await sql.get<{
    job_id: number;
    application_id: number | null;
    release_id: number | null;
    amount: number;
    reference: string;
  }>('SELECT * FROM receipt WHERE posting_id = $1', [posting.id]))!;
  const postingId = await savePosting(sql, actor, reversalOf(posting, on, reason), [receiptJournal(on, -receipt.amount)]);
  await sql.run(
    'INSERT INTO receipt (job_id, application_id, release_id, dated, amount, reference, posting_id) VALUES ($1, $2, $3, $4, $5, $6, $7)',
    [receipt.job_id, receipt.application_id, receipt.release_id, on, -receipt.amount, receipt.reference, postingId],
  );
  return { postingId, entries: 1, total: -receipt.amount };
};

/** A release taken back leaves two invoices that cancel out; both are settled against each other at once. */
export const reverseRelease: Reversal = async (sql, actor, posting, on, reason) => {
  const release = (await sql.get<{ id: number; job_id: number; amount: number; tax: number; reference: string }>(
    'SELECT * FROM retention_release WHERE posting_id = $1',
    [posting.id],
  ))!;
  const payable = release.amount + release.tax;
  const postingId = await savePosting(sql, actor, reversalOf(posting, on, reason), [
    retentionReleaseJournal(on, -release.amount, -release.tax),
    receiptJournal(on, payable),
    receiptJournal(on, -payable),
  ]);
  const backId = await sql.insert(
    'INSERT INTO retention_release (job_id, dated, amount, tax, reference, posting_id) VALUES ($1, $2, $3, $4, $5, $6)',
    [release.job_id, on, -release.amount, -release.tax, `${release.reference}, reversed by ${postingId}`, postingId],
  );
  for (const [id, amount] of [
    [release.id, payable],
    [backId, -payable],
  ]) {
    await sql.run(
      'INSERT INTO receipt (job_id, release_id, dated, amount, reference, posting_id) VALUES ($1, $2, $3, $4, $5, $6)',
      [release.job_id, id, on, amount, 'set off', postingId],
    );
  }
  return { postingId, entries: 1, total: -payable };
};
