import type { Migration } from './migration';

/** Quotations, the papers that were offered to a client with their answers, and the messages they went out with. */
export const quotationsAndOffers: Migration = {
  name: '0004-quotations-and-offers',
  statements: [
    'CREATE TABLE terms_text (id INTEGER PRIMARY KEY, name TEXT NOT NULL UNIQUE, body TEXT NOT NULL)',
    `CREATE TABLE quotation (
      id INTEGER PRIMARY KEY, job_id INTEGER NOT NULL REFERENCES job, number INTEGER NOT NULL, estimate_id INTEGER NOT NULL REFERENCES estimate, title TEXT NOT NULL,
      presentation TEXT NOT NULL CHECK (presentation IN ('lump-sum', 'section', 'line')), quantities INTEGER NOT NULL, unit_prices INTEGER NOT NULL,
      contact TEXT NOT NULL, email TEXT NOT NULL, introduction TEXT NOT NULL, exclusions TEXT NOT NULL, terms TEXT NOT NULL, valid_until TEXT,
      status TEXT NOT NULL CHECK (status IN ('draft', 'sent', 'accepted', 'declined')), sent_on TEXT, answered_on TEXT, answered_by TEXT NOT NULL DEFAULT '',
      version INTEGER NOT NULL DEFAULT 1, saved_by TEXT NOT NULL, saved_at TEXT NOT NULL, UNIQUE (job_id, number), CHECK (status = 'draft' OR sent_on IS NOT NULL))`,
    `CREATE TABLE quotation_alternate (
      id INTEGER PRIMARY KEY, quotation_id INTEGER NOT NULL REFERENCES quotation ON DELETE CASCADE, name TEXT NOT NULL, amount INTEGER NOT NULL)`,
    `CREATE TABLE quotation_payment (
      id INTEGER PRIMARY KEY, quotation_id INTEGER NOT NULL REFERENCES quotation ON DELETE CASCADE, name TEXT NOT NULL, rate INTEGER, amount INTEGER,
      due_on TEXT, stage TEXT NOT NULL)`,
    `CREATE TABLE offer (
      id INTEGER PRIMARY KEY, job_id INTEGER NOT NULL REFERENCES job, kind TEXT NOT NULL CHECK (kind IN ('quotation', 'change')), number TEXT NOT NULL,
      token TEXT NOT NULL UNIQUE, recipient TEXT NOT NULL, sent_on TEXT NOT NULL, sent_at TEXT NOT NULL, valid_until TEXT, document TEXT NOT NULL, hash TEXT NOT NULL,
      status TEXT NOT NULL CHECK (status IN ('open', 'accepted', 'declined')), answered_at TEXT, answered_by TEXT NOT NULL DEFAULT '', signature TEXT NOT NULL DEFAULT '',
      reason TEXT NOT NULL DEFAULT '', seal TEXT NOT NULL DEFAULT '')`,
    'CREATE INDEX offer_by_job ON offer (job_id, kind, number)',
    `CREATE TABLE offer_question (
      id INTEGER PRIMARY KEY, offer_id INTEGER NOT NULL REFERENCES offer, asked_at TEXT NOT NULL, asked_by TEXT NOT NULL, question TEXT NOT NULL,
      answered_at TEXT, answered_by TEXT NOT NULL DEFAULT '', answer TEXT NOT NULL DEFAULT '')`,
    `CREATE TABLE message (
      id INTEGER PRIMARY KEY, job_id INTEGER NOT NULL REFERENCES job, recipient TEXT NOT NULL, subject TEXT NOT NULL, body TEXT NOT NULL, attachments TEXT NOT NULL,
      sent_at TEXT NOT NULL, actor TEXT NOT NULL, file TEXT NOT NULL)`,
    `CREATE TRIGGER answered_offer_kept BEFORE UPDATE ON offer WHEN OLD.status <> 'open'
      BEGIN SELECT RAISE(ABORT, 'A paper that was answered is never changed'); END`,
    ...['offer', 'message'].map(
      (table) =>
        `CREATE TRIGGER ${table}_no_delete BEFORE DELETE ON ${table} BEGIN SELECT RAISE(ABORT, 'What was sent is never deleted'); END`,
    ),
  ],
};
