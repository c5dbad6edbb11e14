import type { Migration } from './migration';

/** Jobs that take from their team alone, documents that the site sees, and what the owner has taken from roles. */
export const restrictedAndNarrowed: Migration = {
  name: '0020-restricted-and-narrowed',
  statements: [
    'ALTER TABLE job ADD COLUMN restricted INTEGER NOT NULL DEFAULT 0',
    'ALTER TABLE attachment ADD COLUMN for_site INTEGER NOT NULL DEFAULT 0',
    `CREATE TABLE narrowing (
      part TEXT NOT NULL, role TEXT NOT NULL CHECK (role IN ('owner', 'accountant', 'manager', 'estimator', 'site')),
      PRIMARY KEY (part, role)
    )`,
  ],
};
