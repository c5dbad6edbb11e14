import type { Command } from './command';
import { LedrinError } from '../../core/errors/ledrinError';
import { receiptJournal } from '../../core/billing/receipt';
import { retentionReleaseJournal } from '../../core/billing/retentionRelease';
import type { Posted, ReversalInput } from '../../wire/ledger';
import type { Sql } from '../db/sql';
import { insertCostEntries, refreshCostTotals } from '../costs/costEntries';
import { reverseEntries } from '../costs/postCosts';
import { whyNotReversible } from './whyNotReversible';
import { savePosting } from './savePosting';
import { type Actor } from './audit';
import { fieldError } from '../company/saveCompany';

interface PostingRow {
  id: number;
  kind: string;
  job_id: number | null;
  reference: string;
  dated: string;
}

/** Corrects a posting by another that names it and takes all of it back, on the day given or the posting's own. */
export async function reversePosting(command: Command, postingId: number, input: ReversalInput): Promise<Posted> {
  const { sql, actor } = command;
  const posting = await sql.get<PostingRow>('SELECT id, kind, job_id, reference, dated FROM posting WHERE id = $1', [postingId]);
  if (!posting) throw new LedrinError('not-found', `There is no document ${postingId}`);
  const why = await whyNotReversible(sql, posting);
  if (why) throw new LedrinError('refused', why);
  const on = input.on ?? posting.dated;
  if (on < posting.dated) throw fieldError('on', `The reversal, ${on}, is before the posting it reverses, ${posting.dated}`);
  const posted = await REVERSALS[posting.kind as keyof typeof REVERSALS](sql, actor, posting, on, input.reason);
  command.note(`posting ${postingId}`, { ...input, by: posted.postingId });
  return posted;
}

type Reversal = (sql: Sql, actor: Actor, posting: PostingRow, on: string, reason: string) => Promise<Posted>;

const reverseCosts: Reversal = async (sql, actor, posting, on, reason) => {
  const { entries, journals, jobIds, total } = await reverseEntries(sql, posting.id, on);
  const postingId = await savePosting(sql, actor, reversalOf(posting, on, reason), journals);
  await insertCostEntries(
    sql,
    entries.map((entry) => [postingId, ...entry]),
  );
  await refreshCostTotals(sql, jobIds);
  return { postingId, entries: entries.length, total };
};

const reverseReceipt: Reversal = async (sql, actor, posting, on, reason) => {
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
const reverseRelease: Reversal = async (sql, actor, posting, on, reason) => {
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

const REVERSALS = {
  'opening-cost': reverseCosts,
  'cost-batch': reverseCosts,
  receipt: reverseReceipt,
  'retention-release': reverseRelease,
};

function reversalOf(posting: PostingRow, on: string, reason: string) {
  return {
    kind: 'reversal' as const,
    jobId: posting.job_id,
    reference: posting.reference,
    dated: on,
    note: reason,
    reversesId: posting.id,
  };
}
