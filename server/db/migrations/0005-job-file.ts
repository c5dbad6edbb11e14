import type { Migration } from './migration';

/** What is known of a job beside its figures: people, events, checklist, attached papers, and the moves of its life. */
export const jobFile: Migration = {
  name: '0005-job-file',
  statements: [
    `ALTER TABLE job ADD COLUMN estimator TEXT NOT NULL DEFAULT ''`,
    'ALTER TABLE job ADD COLUMN defects_end TEXT',
    'ALTER TABLE job ADD COLUMN no_retention INTEGER NOT NULL DEFAULT 0',
    `ALTER TABLE company ADD COLUMN job_number_pattern TEXT NOT NULL DEFAULT ''`,
    `CREATE TABLE job_person (
      id INTEGER PRIMARY KEY, job_id INTEGER NOT NULL REFERENCES job ON DELETE CASCADE, side TEXT NOT NULL CHECK (side IN ('client', 'team')), name TEXT NOT NULL,
      role TEXT NOT NULL, email TEXT NOT NULL, phone TEXT NOT NULL)`,
    `CREATE TABLE job_event (
      id INTEGER PRIMARY KEY, job_id INTEGER NOT NULL REFERENCES job ON DELETE CASCADE, kind TEXT NOT NULL CHECK (kind IN ('note', 'call', 'meeting', 'visit', 'letter')),
      dated TEXT NOT NULL, text TEXT NOT NULL, actor TEXT NOT NULL, recorded_at TEXT NOT NULL)`,
    `CREATE TABLE job_check (
      id INTEGER PRIMARY KEY, job_id INTEGER NOT NULL REFERENCES job ON DELETE CASCADE, item TEXT NOT NULL, person TEXT NOT NULL, due_on TEXT, done_on TEXT)`,
    'CREATE TABLE check_template (id INTEGER PRIMARY KEY, name TEXT NOT NULL UNIQUE, items TEXT NOT NULL)',
    `CREATE TABLE job_file (
      id INTEGER PRIMARY KEY, job_id INTEGER NOT NULL REFERENCES job, name TEXT NOT NULL, media_type TEXT NOT NULL, size INTEGER NOT NULL, hash TEXT NOT NULL,
      about TEXT NOT NULL, actor TEXT NOT NULL, added_at TEXT NOT NULL)`,
    `CREATE TABLE job_move (
      id INTEGER PRIMARY KEY, job_id INTEGER NOT NULL REFERENCES job ON DELETE CASCADE, was TEXT NOT NULL, became TEXT NOT NULL, on_day TEXT, reason TEXT NOT NULL,
      actor TEXT NOT NULL, at TEXT NOT NULL)`,
    ...['job_event', 'job_person', 'job_check', 'job_move', 'job_file'].map(
      (table) => `CREATE INDEX ${table}_by_job ON ${table} (job_id)`,
    ),
  ],
};
