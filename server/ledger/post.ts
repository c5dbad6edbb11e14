import type { Journal } from '../../core/ledger/journal';
import type { PaperKind } from '../../core/ledger/posting';
import { bulkInsert, nextId, type Sql } from '../db/sql';

/** Who does it, and when. Given by the caller, so that tests can hold the clock. */
export interface Actor {
  name: string;
  /** ISO 8601 instant. */
  at: string;
}

export interface PaperToPost {
  kind: PaperKind;
  jobId: number | null;
  reference: string;
  dated: string;
  note?: string;
  reversesId?: number | null;
}

/** Writes one paper with its journals, inside the caller's transaction. Gives back the paper's id. */
export async function postPaper(sql: Sql, actor: Actor, paper: PaperToPost, journals: readonly Journal[]): Promise<number> {
  const id = await nextId(sql, 'paper');
  await postPapers(sql, actor, [{ id, paper, journals }]);
  return id;
}

/** Writes many papers at once. Ids are the caller's: free ones, from `nextId` of the same transaction. */
export async function postPapers(
  sql: Sql,
  actor: Actor,
  papers: readonly { id: number; paper: PaperToPost; journals: readonly Journal[] }[],
): Promise<void> {
  await bulkInsert(
    sql,
    'paper',
    ['id', 'kind', 'job_id', 'reference', 'dated', 'actor', 'recorded_at', 'reverses_id', 'note'],
    papers.map(({ id, paper }) => [
      id,
      paper.kind,
      paper.jobId,
      paper.reference,
      paper.dated,
      actor.name,
      actor.at,
      paper.reversesId ?? null,
      paper.note ?? '',
    ]),
  );
  await writeJournals(
    sql,
    papers.flatMap(({ id, journals }) => journals.map((it) => ({ paperId: id, ...it }))),
  );
}

/** Writes the journals of papers that are there. Empty ones are left out. */
export async function writeJournals(sql: Sql, journals: readonly (Journal & { paperId: number })[]): Promise<void> {
  const first = await nextId(sql, 'journal');
  const numbered = journals.filter((it) => it.lines.length > 0).map((it, i) => ({ ...it, id: first + i }));
  await bulkInsert(
    sql,
    'journal',
    ['id', 'paper_id', 'dated'],
    numbered.map((it) => [it.id, it.paperId, it.dated]),
  );
  await bulkInsert(
    sql,
    'journal_line',
    ['journal_id', 'account', 'debit', 'credit'],
    numbered.flatMap((it) => it.lines.map((line) => [it.id, line.account, line.debit, line.credit])),
  );
}

/** Notes who did what, in the transaction that did it. */
export async function record(sql: Sql, actor: Actor, command: string, subject: string, detail: unknown): Promise<void> {
  await sql.run('INSERT INTO audit (at, actor, command, subject, detail) VALUES ($1, $2, $3, $4, $5)', [
    actor.at,
    actor.name,
    command,
    subject,
    JSON.stringify(detail),
  ]);
}
