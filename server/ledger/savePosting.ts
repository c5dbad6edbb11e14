import { JournalLineTable, JournalTable, PostingTable } from './models';
import type { PlainDate } from '../../core/calendar/plainDate';
import type { Journal } from '../../core/ledger/journal';
import { type PostingKind } from '../../core/ledger/posting';
import { foreignAccounts } from '../../core/ledger/foreignAccounts';
import { nextId, type Sql } from '../db/sql';
import type { Actor } from '../acts/audit';
import { assertMayPost } from './gate';

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
 * Writes one posting with its journals, inside the caller's transaction, and gives back its id: once the gate lets it through.
 * `jobIds`: all its jobs, where it is about several.
 */
export async function savePosting(
  sql: Sql,
  actor: Actor,
  posting: PostingToSave,
  journals: readonly Journal[],
  jobIds: readonly number[] = posting.jobId === null ? [] : [posting.jobId],
): Promise<number> {
  const days = [posting.postedOn, ...journals.map((it) => it.dated)];
  await assertMayPost(sql, actor, { kind: posting.kind, jobIds, days });
  const id = await nextId(sql, PostingTable);
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
  for (const { posting, journals } of postings) {
    const foreign = foreignAccounts(posting.kind, journals);
    if (foreign.length > 0) throw new Error(`${posting.kind} does not post to ${foreign.join(', ')}`);
  }
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
