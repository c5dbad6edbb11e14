import type { Migration } from './migration';

/** What a company has approved before it is done, by whom from which amount on, and who stands in for whom. */
export const approvals: Migration = {
  name: '0019-approvals',
  statements: [
    `CREATE TABLE approval_rule (
      kind TEXT NOT NULL, above INTEGER NOT NULL CHECK (above >= 0),
      role TEXT NOT NULL CHECK (role IN ('owner', 'accountant', 'manager')), PRIMARY KEY (kind, above)
    )`,
    `CREATE TABLE approval (
      id INTEGER PRIMARY KEY, job_id INTEGER REFERENCES job(id), kind TEXT NOT NULL, document TEXT NOT NULL,
      amount INTEGER NOT NULL, role TEXT NOT NULL CHECK (role IN ('owner', 'accountant', 'manager')), digest TEXT NOT NULL, facts TEXT NOT NULL, request TEXT NOT NULL,
      state TEXT NOT NULL DEFAULT 'asked' CHECK (state IN ('asked', 'given', 'refused', 'withdrawn', 'used')),
      asked_by TEXT NOT NULL, asked_at TEXT NOT NULL, reason TEXT NOT NULL,
      decided_by TEXT NOT NULL DEFAULT '', decided_for TEXT NOT NULL DEFAULT '', decided_at TEXT NOT NULL DEFAULT '',
      decision TEXT NOT NULL DEFAULT ''
    )`,
    'CREATE INDEX approval_job ON approval (job_id, kind, document)',
    'CREATE INDEX approval_state ON approval (state)',
    `CREATE TABLE absence (
      id INTEGER PRIMARY KEY, user_id INTEGER NOT NULL REFERENCES user(id) ON DELETE CASCADE,
      deputy_id INTEGER NOT NULL REFERENCES user(id) ON DELETE CASCADE, from_day TEXT NOT NULL, to_day TEXT NOT NULL
    )`,
    'ALTER TABLE application ADD COLUMN above_scheduled INTEGER NOT NULL DEFAULT 0',
    `ALTER TABLE application ADD COLUMN above_reason TEXT NOT NULL DEFAULT ''`,
  ],
};
