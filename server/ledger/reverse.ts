import { LedrinError } from '../../core/errors/ledrinError';
import { receiptJournal } from '../../core/billing/receipt';
import { retentionReleaseJournal } from '../../core/billing/retentionRelease';
import type { PostedPaper, ReversalInput } from '../../wire/costs';
import type { Database } from '../db/database';
import type { Sql } from '../db/sql';
import { insertCostEntries, refreshCostTotals } from '../costs/costEntries';
import { reverseEntries } from '../costs/postCosts';
import { whyFixed } from './whyNotReversible';
import { postPaper, record, type Actor } from './post';
import { fieldError } from '../company/saveCompany';

interface PaperRow {
  id: number;
  kind: string;
  job_id: number | null;
  reference: string;
  dated: string;
}

/** Corrects a posted paper by another that names it and takes all of it back, on the day given or the paper's own. */
export async function reversePaper(
  database: Database,
  actor: Actor,
  paperId: number,
  input: ReversalInput,
): Promise<PostedPaper> {
  return database.write(async (sql) => {
    const paper = await sql.get<PaperRow>('SELECT id, kind, job_id, reference, dated FROM paper WHERE id = $1', [paperId]);
    if (!paper) throw new LedrinError('not-found', `There is no paper ${paperId}`);
    const why = await whyFixed(sql, paper);
    if (why) throw new LedrinError('refused', why);
    const on = input.on ?? paper.dated;
    if (on < paper.dated) throw fieldError('on', `The reversal, ${on}, is before the paper it reverses, ${paper.dated}`);
    const posted = await REVERSALS[paper.kind as keyof typeof REVERSALS](sql, actor, paper, on, input.reason);
    await record(sql, actor, 'reverse-paper', `paper ${paperId}`, { ...input, by: posted.paperId });
    return posted;
  });
}

type Reversal = (sql: Sql, actor: Actor, paper: PaperRow, on: string, reason: string) => Promise<PostedPaper>;

const reverseCosts: Reversal = async (sql, actor, paper, on, reason) => {
  const { entries, journals, jobIds, total } = await reverseEntries(sql, paper.id, on);
  const paperId = await postPaper(sql, actor, reversalOf(paper, on, reason), journals);
  await insertCostEntries(
    sql,
    entries.map((entry) => [paperId, ...entry]),
  );
  await refreshCostTotals(sql, jobIds);
  return { paperId, entries: entries.length, total };
};

const reverseReceipt: Reversal = async (sql, actor, paper, on, reason) => {
  const receipt = (await sql.get<{
    job_id: number;
    application_id: number | null;
    release_id: number | null;
    amount: number;
    reference: string;
  }>('SELECT * FROM receipt WHERE paper_id = $1', [paper.id]))!;
  const paperId = await postPaper(sql, actor, reversalOf(paper, on, reason), [receiptJournal(on, -receipt.amount)]);
  await sql.run(
    'INSERT INTO receipt (job_id, application_id, release_id, dated, amount, reference, paper_id) VALUES ($1, $2, $3, $4, $5, $6, $7)',
    [receipt.job_id, receipt.application_id, receipt.release_id, on, -receipt.amount, receipt.reference, paperId],
  );
  return { paperId, entries: 1, total: -receipt.amount };
};

/** A release taken back leaves two invoices that cancel out; both are settled against each other at once. */
const reverseRelease: Reversal = async (sql, actor, paper, on, reason) => {
  const release = (await sql.get<{ id: number; job_id: number; amount: number; tax: number; reference: string }>(
    'SELECT * FROM retention_release WHERE paper_id = $1',
    [paper.id],
  ))!;
  const payable = release.amount + release.tax;
  const paperId = await postPaper(sql, actor, reversalOf(paper, on, reason), [
    retentionReleaseJournal(on, -release.amount, -release.tax),
    receiptJournal(on, payable),
    receiptJournal(on, -payable),
  ]);
  const backId = await sql.insert(
    'INSERT INTO retention_release (job_id, dated, amount, tax, reference, paper_id) VALUES ($1, $2, $3, $4, $5, $6)',
    [release.job_id, on, -release.amount, -release.tax, `${release.reference}, reversed by ${paperId}`, paperId],
  );
  for (const [id, amount] of [
    [release.id, payable],
    [backId, -payable],
  ]) {
    await sql.run(
      'INSERT INTO receipt (job_id, release_id, dated, amount, reference, paper_id) VALUES ($1, $2, $3, $4, $5, $6)',
      [release.job_id, id, on, amount, 'set off', paperId],
    );
  }
  return { paperId, entries: 1, total: -payable };
};

const REVERSALS = {
  'opening-cost': reverseCosts,
  'cost-batch': reverseCosts,
  receipt: reverseReceipt,
  'retention-release': reverseRelease,
};

function reversalOf(paper: PaperRow, on: string, reason: string) {
  return {
    kind: 'reversal' as const,
    jobId: paper.job_id,
    reference: paper.reference,
    dated: on,
    note: reason,
    reversesId: paper.id,
  };
}
