import { JournalLineTable, JournalTable, PostingTable } from './models';
import type { PlainDate } from '../../core/calendar/plainDate';
import type { Journal } from '../../core/ledger/journal';
import type { PostingKind } from '../../core/ledger/posting';
import { assertAllowed } from '../acts/refused';
import { farAheadRefusal } from '../../core/ledger/postingDay';
import { assertOpenDays } from './closing';
import { lockedJob } from './lockedJob';
import { NEWEST_OF_JOBS } from './queries';
import { nextId, type Sql } from '../db/sql';
import { dayOf, type Actor } from '../acts/audit';

export interface PostingToSave {
  kind: PostingKind;
  /** The job it is about; null where it is about several. */
  jobId: number | null;
  reference: string;
  /** The accounting date. */
  postedOn: PlainDate;
  /** The document's own date, where it is another. */
  dated?: PlainDate;
  note?: string;
  reversesId?: number | null;
}

/**
 * Writes one posting with its journals, inside the caller's transaction, and gives back its id. The one gate of all postings:
 * throws refused where a job it posts to takes none, and bad input where the books are closed on its day. `jobIds`: all its jobs, where it is about several.
 */
export async function savePosting(
  sql: Sql,
  actor: Actor,
  posting: PostingToSave,
  journals: readonly Journal[],
  jobIds: readonly number[] = posting.jobId === null ? [] : [posting.jobId],
): Promise<number> {
  assertAllowed([await lockedJob(sql, jobIds)], { code: 'refused' });
  await assertNotFarAhead(sql, actor, posting.postedOn, jobIds);
  await assertOpenDays(sql, [posting.postedOn, ...journals.map((it) => it.dated)]);
  const id = await nextId(sql, PostingTable);
  await savePostings(sql, actor, [{ id, posting, journals }]);
  return id;
}

/** Throws bad input where a document is dated more than a year ahead of today and of all that is known of its jobs. */
export async function assertNotFarAhead(sql: Sql, actor: Actor, on: PlainDate, jobIds: readonly number[]): Promise<void> {
  const today = dayOf(actor);
  if (farAheadRefusal(on, [today]) === null) return;
  const known = await sql.get(NEWEST_OF_JOBS, [JSON.stringify(jobIds)]);
  assertAllowed([farAheadRefusal(on, [today, known?.newest ?? null])]);
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
  await sql.insertAll(
    PostingTable,
    postings.map(({ id, posting, journals }) => ({
      id,
      kind: posting.kind,
      job_id: posting.jobId,
      reference: posting.reference,
      posted_on: posting.postedOn,
      dated: posting.dated ?? posting.postedOn,
      actor: actor.name,
      recorded_at: actor.at,
      reverses_id: posting.reversesId ?? null,
      note: posting.note ?? '',
      total: debitsOf(journals),
    })),
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
  const first = await nextId(sql, JournalTable);
  const numbered = journals.filter((it) => it.lines.length > 0).map((it, i) => ({ ...it, id: first + i }));
  await sql.insertAll(
    JournalTable,
    numbered.map((it) => ({ id: it.id, posting_id: it.postingId, dated: it.dated })),
  );
  await sql.insertAll(
    JournalLineTable,
    numbered.flatMap((it) =>
      it.lines.map((line) => ({ journal_id: it.id, account: line.account, debit: line.debit, credit: line.credit })),
    ),
  );
}
