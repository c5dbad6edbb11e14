import { present } from '../../core/errors/known';
import { shape, t, type RowOf } from '../db/fields';
import { LedrinError } from '../../core/errors/ledrinError';
import { accountName } from '../../core/ledger/accounts';
import type { Journal } from '../../core/ledger/journal';
import { POSTINGS, type PostingKind } from '../../core/ledger/posting';
import type * as v from 'valibot';
import type { JournalView, PostingPage, PostingRow, postingsQuery, PostingView } from '../../wire/ledger';
import { whyNotReversible } from './whyNotReversible';
import type { Reader } from '../db/sql';

export function journalView({ dated, lines }: Journal): JournalView {
  return { dated, lines: lines.map((line) => ({ ...line, name: accountName(line.account) })) };
}

/** Journals of a posting in order of date. */
export async function postingJournals(sql: Reader, postingId: number): Promise<JournalView[]> {
  const rows = await sql.all(
    shape({ id: t.whole, dated: t.day, account: t.text, debit: t.cents, credit: t.cents }),
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

const SELECT_POSTINGS = `SELECT p.id, p.kind, job.number AS job, p.reference, p.posted_on AS dated, p.actor, p.recorded_at AS recordedAt, p.note, p.reverses_id AS reverses, p.job_id,
  (SELECT id FROM posting r WHERE r.reverses_id = p.id) AS reversedBy,
  p.total
  FROM posting p LEFT JOIN job ON job.id = p.job_id`;

const Row = shape({
  ...{ id: t.whole, kind: t.oneOf<PostingKind>(), job: t.orNull(t.text), reference: t.text, dated: t.day, actor: t.text },
  ...{ recordedAt: t.moment, note: t.text, reverses: t.orNull(t.whole), job_id: t.orNull(t.whole) },
  ...{ reversedBy: t.orNull(t.whole), total: t.cents },
});
type Row = RowOf<typeof Row>;

function withName(row: Row): PostingRow {
  const { id, kind, job, reference, dated, actor, recordedAt, total, reverses, reversedBy } = row;
  return { id, kind, kindName: POSTINGS[kind].title, job, reference, dated, actor, recordedAt, total, reverses, reversedBy };
}

const PAGE = 100;

/** Posted documents that match, newest first, a page at a time: each begins after the last row of the page before it. */
export async function postingList(sql: Reader, { before, ...filter }: PostingsFilter): Promise<PostingPage> {
  const { where, bind } = conditionsOf(filter);
  const [counted] = await sql.all(
    shape({ count: t.whole }),
    `SELECT count(*) AS count FROM posting p LEFT JOIN job ON job.id = p.job_id WHERE ${where.join(' AND ')}`,
    bind,
  );
  if (before !== undefined) {
    const [dated, id] = before.split('_');
    where.push(`(p.posted_on, p.id) < ($${bind.push(dated)}, $${bind.push(Number(id))})`);
  }
  const rows = await sql.all(
    Row,
    `${SELECT_POSTINGS} WHERE ${where.join(' AND ')} ORDER BY p.posted_on DESC, p.id DESC LIMIT ${PAGE + 1}`,
    bind,
  );
  const page = rows.slice(0, PAGE);
  const last = page.at(-1);
  const next = rows.length > PAGE && last ? `${last.dated}_${last.id}` : null;
  return { postings: page.map(withName), count: counted?.count ?? 0, next };
}

type PostingsFilter = v.InferOutput<typeof postingsQuery>;

const CONDITIONS: { [Key in keyof Omit<PostingsFilter, 'before'>]-?: string } = {
  asOf: 'p.posted_on <= ?',
  job: '(job.number = ? OR p.id IN (SELECT e.posting_id FROM cost_entry e JOIN job j ON j.id = e.job_id WHERE j.number = ?))',
  kind: 'p.kind = ?',
  from: 'p.posted_on >= ?',
  to: 'p.posted_on <= ?',
  search: `(p.reference || ' ' || p.note) LIKE ? ESCAPE '\\'`,
  total: 'p.total = ?',
};

function conditionsOf(filter: Omit<PostingsFilter, 'before'>): { where: string[]; bind: unknown[] } {
  const bind: unknown[] = [];
  const where = Object.entries(CONDITIONS).flatMap(([key, condition]) => {
    const value = filter[key as keyof typeof filter];
    if (value === undefined) return [];
    const mark = bind.push(key === 'search' ? `%${String(value).replace(/[\\%_]/g, '\\$&')}%` : value);
    return [condition.replaceAll('?', `$${mark}`)];
  });
  return { where, bind };
}

/** One posting with its journals, and whether it can still be reversed. */
export async function postingView(sql: Reader, id: number): Promise<PostingView> {
  const row = await sql.get(Row, `${SELECT_POSTINGS} WHERE p.id = $1`, [id]);
  if (!row) throw new LedrinError('not-found', `There is no document ${id}`);
  const [journals, entries, fixed] = await Promise.all([
    postingJournals(sql, id),
    sql.get(shape({ count: t.whole }), 'SELECT count(*) AS count FROM cost_entry WHERE posting_id = $1', [id]),
    whyNotReversible(sql, { id, kind: row.kind, job_id: row.job_id }),
  ]);
  return { ...withName(row), note: row.note, journals, entryCount: present(entries).count, fixed };
}
