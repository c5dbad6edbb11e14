import { LedrinError } from '../../core/errors/ledrinError';
import { accountName } from '../../core/ledger/accounts';
import type { Journal } from '../../core/ledger/journal';
import { POSTING_NAMES, type PostingKind } from '../../core/ledger/posting';
import type { JournalView, PostingRow, PostingView } from '../../wire/ledger';
import { whyFixed } from './whyNotReversible';
import type { Reader } from '../db/sql';

export function journalView({ dated, lines }: Journal): JournalView {
  return { dated, lines: lines.map((line) => ({ ...line, name: accountName(line.account) })) };
}

/** Journals of a posting in order of date. */
export async function postingJournals(sql: Reader, postingId: number): Promise<JournalView[]> {
  const rows = await sql.all<{ id: number; dated: string; account: string; debit: number; credit: number }>(
    'SELECT j.id, j.dated, l.account, l.debit, l.credit FROM journal j JOIN journal_line l ON l.journal_id = j.id WHERE j.posting_id = $1 ORDER BY j.dated, j.id, l.id',
    [postingId],
  );
  const journals = new Map<number, JournalView>();
  for (const row of rows) {
    const journal = journals.get(row.id) ?? { dated: row.dated, lines: [] };
    journal.lines.push({ account: row.account, name: accountName(row.account), debit: row.debit, credit: row.credit });
    journals.set(row.id, journal);
  }
  return [...journals.values()];
}

const POSTINGS = `SELECT p.id, p.kind, job.number AS job, p.reference, p.dated, p.actor, p.recorded_at AS recordedAt, p.note, p.reverses_id AS reverses, p.job_id,
  (SELECT id FROM posting r WHERE r.reverses_id = p.id) AS reversedBy,
  coalesce((SELECT sum(l.debit) FROM journal j JOIN journal_line l ON l.journal_id = j.id WHERE j.posting_id = p.id), 0) AS total
  FROM posting p LEFT JOIN job ON job.id = p.job_id`;

type Row = PostingRow & { kind: PostingKind; note: string; job_id: number | null };

function withName(row: Row): PostingRow {
  const { id, kind, job, reference, dated, actor, recordedAt, total, reverses, reversedBy } = row;
  return { id, kind, kindName: POSTING_NAMES[kind], job, reference, dated, actor, recordedAt, total, reverses, reversedBy };
}

/** Posted postings by date, newest first, a page at a time; of one job where `job` is given. */
export async function postingList(
  sql: Reader,
  asOf: string,
  job: string | undefined,
  offset: number,
): Promise<{ postings: PostingRow[]; count: number }> {
  const where = `WHERE p.dated <= $1 ${job === undefined ? '' : 'AND (job.number = $2 OR p.id IN (SELECT e.posting_id FROM cost_entry e JOIN job j ON j.id = e.job_id WHERE j.number = $2))'}`;
  const bind = job === undefined ? [asOf] : [asOf, job];
  const [rows, count] = await Promise.all([
    sql.all<Row>(`${POSTINGS} ${where} ORDER BY p.dated DESC, p.id DESC LIMIT 200 OFFSET ${Number(offset)}`, bind),
    sql.get<{ count: number }>(`SELECT count(*) AS count FROM posting p LEFT JOIN job ON job.id = p.job_id ${where}`, bind),
  ]);
  return { postings: rows.map(withName), count: count!.count };
}

/** One posted posting with its journals, and whether it can still be reversed. */
export async function postingView(sql: Reader, id: number): Promise<PostingView> {
  const row = await sql.get<Row>(`${POSTINGS} WHERE p.id = $1`, [id]);
  if (!row) throw new LedrinError('not-found', `There is no posting ${id}`);
  const [journals, entries, fixed] = await Promise.all([
    postingJournals(sql, id),
    sql.get<{ count: number }>('SELECT count(*) AS count FROM cost_entry WHERE posting_id = $1', [id]),
    whyFixed(sql, { id, kind: row.kind, job_id: row.job_id }),
  ]);
  return { ...withName(row), note: row.note, journals, entryCount: entries!.count, fixed };
}
