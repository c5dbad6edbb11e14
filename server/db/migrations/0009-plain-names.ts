import type { Migration } from './migration';

const never = (trigger: string, act: string, table: string, when: string, message: string) =>
  `CREATE TRIGGER ${trigger} BEFORE ${act} ON ${table} ${when} BEGIN SELECT RAISE(ABORT, '${message}'); END`;

/**
 * The names of docs/words.md for tables and columns: posting, client, attachment. And what commands need beside them: a version
 * of application drafts, and the requests already handled with their replies, so that one sent twice is done once.
 */
export const plainNames: Migration = {
  name: '0009-plain-names',
  statements: [
    ...['posting_no_update', 'posting_no_delete'].map((it) => `DROP TRIGGER ${it.replace('posting', 'paper')}`),
    'DROP INDEX paper_by_job',
    'DROP INDEX journal_by_paper',
    'ALTER TABLE paper RENAME TO posting',
    ...['cost_entry', 'application', 'retention_release', 'receipt', 'journal'].map(
      (table) => `ALTER TABLE ${table} RENAME COLUMN paper_id TO posting_id`,
    ),
    // What a posting debits in all, so that a list of a hundred thousand needs no journal.
    'ALTER TABLE posting ADD COLUMN total INTEGER NOT NULL DEFAULT 0',
    `UPDATE posting SET total = coalesce((SELECT sum(l.debit) FROM journal j JOIN journal_line l ON l.journal_id = j.id WHERE j.posting_id = posting.id), 0)`,
    'CREATE INDEX posting_by_job ON posting (job_id, dated)',
    'CREATE INDEX posting_by_date ON posting (dated, id)',
    'CREATE INDEX journal_by_posting ON journal (posting_id)',
    'CREATE INDEX cost_entry_by_posting ON cost_entry (posting_id)',
    never('posting_no_update', 'UPDATE', 'posting', '', 'A posting is never changed'),
    never('posting_no_delete', 'DELETE', 'posting', '', 'A posting is never deleted'),
    'ALTER TABLE customer RENAME TO client',
    'ALTER TABLE job RENAME COLUMN customer_id TO client_id',
    `UPDATE job_draft SET content = replace(content, '"customer":', '"client":')`,
    'DROP INDEX job_file_by_job',
    'ALTER TABLE job_file RENAME TO attachment',
    'CREATE INDEX attachment_by_job ON attachment (job_id)',
    'DROP TRIGGER answered_offer_kept',
    never('answered_offer_fixed', 'UPDATE', 'offer', `WHEN OLD.status <> 'open'`, 'An answered offer is never changed'),
    // The PDF a client was sent, by its hash among the attachments' files; none of offers that came with a book.
    `ALTER TABLE offer ADD COLUMN pdf_hash TEXT NOT NULL DEFAULT ''`,
    'ALTER TABLE application ADD COLUMN version INTEGER NOT NULL DEFAULT 1',
    `ALTER TABLE application ADD COLUMN saved_by TEXT NOT NULL DEFAULT ''`,
    `ALTER TABLE application ADD COLUMN saved_at TEXT NOT NULL DEFAULT ''`,
    `CREATE TABLE handled_request (
      id TEXT PRIMARY KEY, command TEXT NOT NULL, digest TEXT NOT NULL, reply TEXT NOT NULL, at TEXT NOT NULL) WITHOUT ROWID`,
    'CREATE INDEX handled_request_by_time ON handled_request (at)',
    // Reports of what serves an SOV line ask by it.
    'CREATE INDEX budget_line_by_sov_line ON budget_line (sov_line_id) WHERE sov_line_id IS NOT NULL',
  ],
};
