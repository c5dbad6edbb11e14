import type { Migration } from './migration';

/** When whoever asked for an approval had read that it was refused; refusals of before are read. */
export const refusalsRead: Migration = {
  name: '0029-refusals-read',
  statements: [
    `ALTER TABLE approval ADD COLUMN acknowledged_at TEXT NOT NULL DEFAULT ''`,
    `UPDATE approval SET acknowledged_at = decided_at WHERE state = 'refused'`,
  ],
};
