import type * as v from 'valibot';
import type { PostingOrder, postingsQuery } from '../../wire/ledger';
import type { InvoiceKind } from '../../core/billing/invoice';
import type { PostingKind } from '../../core/ledger/posting';
import { query } from '../db/query';
import { shape, t } from '../db/fields';

/** The jobs in the list `$1`, as far as it decides what they take. */
export const JOBS_AMONG = query(
  shape({ number: t.text, status: t.text, locked: t.flag }),
  'SELECT number, status, locked FROM job WHERE id IN (SELECT value FROM json_each($1)) ORDER BY number',
);

export const JOURNAL_LINES = query(
  shape({ id: t.whole, dated: t.day, account: t.text, debit: t.cents, credit: t.cents }),
  'SELECT j.id, j.dated, l.account, l.debit, l.credit FROM journal j JOIN journal_line l ON l.journal_id = j.id WHERE j.posting_id = $1 ORDER BY j.dated, j.id, l.id',
);

/** The documents recorded before and after `$1`. */
export const BESIDE_POSTING = query(
  shape({ previous: t.orNull(t.whole), next: t.orNull(t.whole) }),
  'SELECT (SELECT max(id) FROM posting WHERE id < $1) AS previous, (SELECT min(id) FROM posting WHERE id > $1) AS next',
);

/** The client of the job of posting `$1`, and the invoice that it received money on. */
export const POSTED_FOR = query(
  shape({ client: t.orNull(t.text), kind: t.orNull(t.oneOf<InvoiceKind>()), reference: t.orNull(t.text) }),
  `SELECT c.name AS client, i.kind, i.reference FROM posting p LEFT JOIN job ON job.id = p.job_id LEFT JOIN client c ON c.id = job.client_id
    LEFT JOIN receipt r ON r.posting_id = p.id LEFT JOIN invoice i ON i.id = r.invoice_id WHERE p.id = $1`,
);

/** The newest day that is known of the jobs in the list `$1`: awarded, planned to end, or posted. */
export const NEWEST_OF_JOBS = query(
  shape({ newest: t.orNull(t.day) }),
  `SELECT max(day) AS newest FROM (
      SELECT awarded_on AS day FROM job WHERE id IN (SELECT value FROM json_each($1))
      UNION ALL SELECT finishes_on FROM job WHERE id IN (SELECT value FROM json_each($1))
      UNION ALL SELECT max(posted_on) FROM posting WHERE job_id IN (SELECT value FROM json_each($1))
      UNION ALL SELECT max(posted_on) FROM cost_entry WHERE job_id IN (SELECT value FROM json_each($1)))`,
);

export const ENTRY_COUNT = query(shape({ count: t.whole }), 'SELECT count(*) AS count FROM cost_entry WHERE posting_id = $1');

/** Week sheets whose time posting `$1` posted. */
export const SHEETS_OF_POSTING = query(
  shape({ sheet: t.text, dated: t.day }),
  'SELECT sheet, min(dated) AS dated FROM time_line WHERE posting_id = $1 GROUP BY sheet ORDER BY CAST(sheet AS INTEGER), sheet',
);

export const REVERSAL_OF = query(shape({ id: t.whole }), 'SELECT id FROM posting WHERE reverses_id = $1');

/** Whether a posting has a cost entry that was neither reversed nor moved. */
export const ANY_LIVE_ENTRY = query(
  shape({ id: t.whole }),
  `SELECT e.id FROM cost_entry e WHERE e.posting_id = $1 AND NOT EXISTS (SELECT 1 FROM cost_entry r WHERE r.reverses_entry_id = e.id) LIMIT 1`,
);

/** The documents that corrected lines of posting `$1`, and those whose lines it corrects, but for whole reversals. */
export const CORRECTIONS_OF = query(
  shape({ id: t.whole, by: t.flag }),
  `SELECT DISTINCT r.posting_id AS id, 1 AS by FROM cost_entry e JOIN cost_entry r ON r.reverses_entry_id = e.id WHERE e.posting_id = $1
    UNION SELECT DISTINCT o.posting_id, 0 FROM cost_entry e JOIN cost_entry o ON o.id IN (e.reverses_entry_id, e.replaces_entry_id)
      WHERE e.posting_id = $1 AND o.posting_id <> $1
    ORDER BY id`,
);

export const JOBS_OF_POSTING = query(shape({ job_id: t.whole }), 'SELECT DISTINCT job_id FROM cost_entry WHERE posting_id = $1');

export const RECEIVED_ON_POSTING = query(
  shape({ id: t.whole }),
  'SELECT i.id FROM receipt r JOIN invoice i ON i.id = r.invoice_id WHERE i.posting_id = $1 GROUP BY i.id HAVING sum(r.amount) <> 0',
);

const SELECT_POSTINGS = `SELECT p.id, p.kind, job.number AS job, p.reference, p.posted_on AS dated, p.actor, p.recorded_at AS recordedAt, p.note, p.reverses_id AS reverses, p.job_id,
  (SELECT id FROM posting r WHERE r.reverses_id = p.id) AS reversedBy,
  p.total
  FROM posting p LEFT JOIN job ON job.id = p.job_id`;

const PostingRow = shape({
  id: t.whole,
  kind: t.oneOf<PostingKind>(),
  job: t.orNull(t.text),
  reference: t.text,
  dated: t.day,
  actor: t.text,
  recordedAt: t.moment,
  note: t.text,
  reverses: t.orNull(t.whole),
  job_id: t.orNull(t.whole),
  reversedBy: t.orNull(t.whole),
  total: t.cents,
});

export const POSTING = query(PostingRow, `${SELECT_POSTINGS} WHERE p.id = $1`);

/** What postings are sorted by; the id last, so that no two are alike. */
export const POSTING_KEYS: Record<PostingOrder, string> = { dated: 'p.posted_on', id: 'p.id', total: 'p.total' };

/** The first postings in an order under conditions on `p` and `job`, at most `limit`. */
export const postingsInOrder = (where: readonly string[], by: PostingOrder, way: 'ASC' | 'DESC', limit: number) =>
  query(
    PostingRow,
    `${SELECT_POSTINGS} WHERE ${where.join(' AND ')} ORDER BY ${POSTING_KEYS[by]} ${way}, p.id ${way} LIMIT ${limit}`,
  );

/** How many there are under the same conditions. */
export const postingCount = (where: readonly string[]) =>
  query(
    shape({ count: t.whole }),
    `SELECT count(*) AS count FROM posting p LEFT JOIN job ON job.id = p.job_id WHERE ${where.join(' AND ')}`,
  );

export type PostingsFilter = v.InferOutput<typeof postingsQuery>;

/** What of it narrows the list, rather than ordering it. */
export type PostingsNarrowed = Omit<PostingsFilter, 'before' | 'sort' | 'ascending'>;

/** What each part of a filter asks of `p` and `job`; each `?` is the value. */
export const POSTING_CONDITIONS: { [Key in keyof PostingsNarrowed]-?: string } = {
  asOf: 'p.posted_on <= ?',
  job: '(job.number = ? OR p.id IN (SELECT e.posting_id FROM cost_entry e JOIN job j ON j.id = e.job_id WHERE j.number = ?))',
  kind: 'p.kind = ?',
  from: 'p.posted_on >= ?',
  to: 'p.posted_on <= ?',
  search: `(p.reference || ' ' || p.note) LIKE ? ESCAPE '\\'`,
  total: 'p.total = ?',
};

/** The newest accounting date; null where nothing is posted. */
export const NEWEST_POSTING = query(shape({ newest: t.orNull(t.day) }), 'SELECT max(posted_on) AS newest FROM posting');
