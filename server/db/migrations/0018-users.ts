import type { Migration } from './migration';

/**
 * Who may sign in. A password is kept as its scrypt hash, tokens of sessions and invitations as SHA-256: what lies in the file signs
 * nobody in.
 */
export const users: Migration = {
  name: '0018-users',
  statements: [
    `CREATE TABLE user (
      id INTEGER PRIMARY KEY, name TEXT NOT NULL UNIQUE COLLATE NOCASE, email TEXT NOT NULL UNIQUE COLLATE NOCASE,
      role TEXT NOT NULL CHECK (role IN ('owner', 'accountant', 'manager', 'estimator', 'site')),
      all_jobs INTEGER NOT NULL DEFAULT 0, password TEXT NOT NULL DEFAULT '', closed INTEGER NOT NULL DEFAULT 0,
      invitation TEXT NOT NULL DEFAULT '', invited_until TEXT NOT NULL DEFAULT '', created_at TEXT NOT NULL,
      second_factor TEXT NOT NULL DEFAULT '', factor_begun TEXT NOT NULL DEFAULT '', factor_step INTEGER NOT NULL DEFAULT 0,
      recovery TEXT NOT NULL DEFAULT '[]'
    )`,
    `CREATE TABLE session (
      id INTEGER PRIMARY KEY, token TEXT NOT NULL UNIQUE, user_id INTEGER NOT NULL REFERENCES user(id) ON DELETE CASCADE,
      began_at TEXT NOT NULL, seen_at TEXT NOT NULL, from_where TEXT NOT NULL
    )`,
    'CREATE INDEX session_user ON session (user_id)',
  ],
};
