import type { Migration } from './migration';

/** Fixed billing schedules, and the days on which sections have started and finished. */
export const instalments: Migration = {
  name: '0008-instalments',
  statements: [
    `ALTER TABLE job_section ADD COLUMN started_on TEXT`,
    `ALTER TABLE job_section ADD COLUMN finished_on TEXT`,
    `CREATE INDEX audit_subject ON audit (subject)`,
    `CREATE TABLE instalment (
      id INTEGER PRIMARY KEY, job_id INTEGER NOT NULL REFERENCES job ON DELETE CASCADE, number INTEGER NOT NULL, name TEXT NOT NULL,
      due TEXT NOT NULL, day TEXT, days INTEGER NOT NULL, taken_from TEXT NOT NULL, rate INTEGER, amount INTEGER, UNIQUE (job_id, number))`,
    `CREATE TABLE instalment_stage (
      id INTEGER PRIMARY KEY, instalment_id INTEGER NOT NULL REFERENCES instalment ON DELETE CASCADE, section TEXT NOT NULL, UNIQUE (instalment_id, section))`,
  ],
};
