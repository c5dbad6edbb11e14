import type { Migration } from './migration';

/** Week sheets: the times a line was worked between, and why it was returned. */
export const weekSheets: Migration = {
  name: '0022-week-sheets',
  statements: [
    `ALTER TABLE time_line ADD COLUMN clock TEXT NOT NULL DEFAULT ''`,
    `ALTER TABLE time_line ADD COLUMN returned TEXT NOT NULL DEFAULT ''`,
    'CREATE INDEX time_line_reverses ON time_line (reverses_id)',
    'CREATE INDEX time_line_dated ON time_line (dated)',
  ],
};
