import {
  BESIDE_POSTING,
  CORRECTIONS_OF,
  JOURNAL_LINES,
  ENTRY_COUNT,
  POSTED_FOR,
  SHEETS_OF_POSTING,
  POSTING,
  POSTING_KEYS,
  postingCount,
  postingsInOrder,
  POSTING_CONDITIONS,
  type PostingsFilter,
  type PostingsNarrowed,
} from './queries';
import { present } from '../../core/errors/known';
import { type RowOf } from '../db/fields';
import { LedrinError } from '../../core/errors/ledrinError';

import { messageOf, showIn } from '../../core/refusals/messages';
import { POSTINGS } from '../../core/ledger/posting';
import type { JournalView, PostingPage, PostingRow, PostingView } from '../../wire/ledger';
import { whyNotReversible } from './whyNotReversible';
import { accountName } from '../../core/ledger/accounts';
import type { Reader } from '../db/sql';

/** Journals of a posting in order of date. */
export async function postingJournals(sql: Reader, postingId: number): Promise<JournalView[]> {
  const rows = await sql.all(JOURNAL_LINES, [postingId]);
  const journals = new Map<number, JournalView>();
  for (const row of rows) {
    const journal = journals.get(row.id) ?? { dated: row.dated, lines: [] };
    journal.lines.push({ account: row.account, name: accountName(row.account), debit: row.debit, credit: row.credit });
    journals.set(row.id, journal);
  }
  return [...journals.values()];
}

type Row = RowOf<typeof POSTING>;

function withName(row: Row): PostingRow {
  const { id, kind, job, reference, dated, actor, recordedAt, total, reverses, reversedBy } = row;
  return { id, kind, kindName: POSTINGS[kind].title, job, reference, dated, actor, recordedAt, total, reverses, reversedBy };
}

const PAGE = 100;

/**
 * Posted documents that match, newest first or in another order, a page at a time: each begins after the last row of the page before
 * it. Throws bad-input where a page of another order is asked for.
 */
export async function postingList(
  sql: Reader,
  { before, sort = 'dated', ascending, ...filter }: PostingsFilter,
): Promise<PostingPage> {
  const { where, bind } = conditionsOf(filter);
  const [counted] = await sql.all(postingCount(where), bind);
  if (before !== undefined) {
    const [value = '', id] = before.split('_');
    if (value.includes('-', 1) !== (sort === 'dated'))
      throw new LedrinError('bad-input', 'before: expected where a page of this order begins');
    const mark = bind.push(sort === 'dated' ? value : Number(value));
    where.push(`(${POSTING_KEYS[sort]}, p.id) ${ascending ? '>' : '<'} ($${mark}, $${bind.push(Number(id))})`);
  }
  const rows = await sql.all(postingsInOrder(where, sort, ascending ? 'ASC' : 'DESC', PAGE + 1), bind);
  const page = rows.slice(0, PAGE);
  const last = page.at(-1);
  const next = rows.length > PAGE && last ? `${last[sort]}_${last.id}` : null;
  return { postings: page.map(withName), count: counted?.count ?? 0, next };
}

function conditionsOf(filter: PostingsNarrowed): { where: string[]; bind: unknown[] } {
  const bind: unknown[] = [];
  const where = Object.entries(POSTING_CONDITIONS).flatMap(([key, condition]) => {
    const value = filter[key as keyof typeof filter];
    if (value === undefined) return [];
    const mark = bind.push(key === 'search' ? `%${String(value).replace(/[\\%_]/g, '\\$&')}%` : value);
    return [condition.replaceAll('?', `$${mark}`)];
  });
  return { where, bind };
}

/** One posting with its journals, and whether it can still be reversed. */
export async function postingView(sql: Reader, id: number): Promise<PostingView> {
  const row = await sql.get(POSTING, [id]);
  if (!row) throw new LedrinError('not-found', `There is no document ${id}`);
  const [journals, entries, corrections, beside, postedFor, fixed, weekSheets] = await Promise.all([
    postingJournals(sql, id),
    sql.get(ENTRY_COUNT, [id]),
    sql.all(CORRECTIONS_OF, [id]),
    sql.get(BESIDE_POSTING, [id]),
    sql.get(POSTED_FOR, [id]),
    whyNotReversible(sql, { id, kind: row.kind, job_id: row.job_id }),
    sql.all(SHEETS_OF_POSTING, [id]),
  ]);
  const { client, kind, reference } = present(postedFor);
  const others = (by: 0 | 1, known: number | null) =>
    corrections.filter((it) => it.by === by && it.id !== known).map((it) => it.id);
  return {
    ...withName(row),
    note: row.note,
    journals,
    entryCount: present(entries).count,
    fixed: fixed && messageOf(fixed, showIn(0)),
    client,
    receivedOn: kind === null || reference === null ? null : { kind, reference },
    weekSheets,
    ...present(beside),
    corrects: others(0, row.reverses),
    correctedBy: others(1, row.reversedBy),
  };
}
