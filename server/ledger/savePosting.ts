import type { Journal } from '../../core/ledger/journal';
import type { PostingKind } from '../../core/ledger/posting';
import { assertAllowed } from '../http/refused';
import { lockedJob } from './lockedJob';
import { bulkInsert, nextId, type Sql } from '../db/sql';
import type { Actor } from './audit';

export interface PostingToSave {
  kind: PostingKind;
  /** The job it is about; null where it is about several. */
  jobId: number | null;
  reference: string;
  dated: string;
  note?: string;
  reversesId?: number | null;
}

/**
 * Writes one posting with its journals, inside the caller's transaction, and gives back its id. The one gate of all postings:
 * throws refused where a job it posts to takes none. `jobIds`: all its jobs, where it is about several.
 */
export async function savePosting(
  sql: Sql,
  actor: Actor,
  posting: PostingToSave,
  journals: readonly Journal[],
  jobIds: readonly number[] = posting.jobId === null ? [] : [posting.jobId],
): Promise<number> {
  assertAllowed([await lockedJob(sql, jobIds)], { code: 'refused' });
  const id = await nextId(sql, 'posting');
  await savePostings(sql, actor, [{ id, posting, journals }]);
  return id;
}

/**
 * Writes many postings at once, as a book brings them: of any job, as it was. Ids are the caller's: free ones, from `nextId` of the
 * same transaction.
 */
export async function savePostings(
  sql: Sql,
  actor: Actor,
  postings: readonly { id: number; posting: PostingToSave; journals: readonly Journal[] }[],
): Promise<void> {
  await bulkInsert(
    sql,
    'posting',
    ['id', 'kind', 'job_id', 'reference', 'dated', 'actor', 'recorded_at', 'reverses_id', 'note', 'total'],
    postings.map(({ id, posting, journals }) => [
      id,
      posting.kind,
      posting.jobId,
      posting.reference,
      posting.dated,
      actor.name,
      actor.at,
      posting.reversesId ?? null,
      posting.note ?? '',
      debitsOf(journals),
    ]),
  );
  await writeJournals(
    sql,
    postings.flatMap(({ id, journals }) => journals.map((it) => ({ postingId: id, ...it }))),
  );
}

function debitsOf(journals: readonly Journal[]): number {
  return journals.reduce((total, { lines }) => total + lines.reduce((sum, line) => sum + line.debit, 0), 0);
}

/** Writes the journals of postings that are there. Empty ones are left out. */
async function writeJournals(sql: Sql, journals: readonly (Journal & { postingId: number })[]): Promise<void> {
  const first = await nextId(sql, 'journal');
  const numbered = journals.filter((it) => it.lines.length > 0).map((it, i) => ({ ...it, id: first + i }));
  await bulkInsert(
    sql,
    'journal',
    ['id', 'posting_id', 'dated'],
    numbered.map((it) => [it.id, it.postingId, it.dated]),
  );
  await bulkInsert(
    sql,
    'journal_line',
    ['journal_id', 'account', 'debit', 'credit'],
    numbered.flatMap((it) => it.lines.map((line) => [it.id, line.account, line.debit, line.credit])),
  );
}
