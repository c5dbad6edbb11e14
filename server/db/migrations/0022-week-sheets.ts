import type { Migration } from './migration';

/** Week sheets: the times a line was worked between, why it was returned, and which employee a user is. */
export const weekSheets: Migration = {
  name: '0022-week-sheets',
  statements: [
    `ALTER TABLE time_line ADD COLUMN clock TEXT NOT NULL DEFAULT ''`,
    `ALTER TABLE time_line ADD COLUMN returned TEXT NOT NULL DEFAULT ''`,
    'ALTER TABLE employee ADD COLUMN user_id INTEGER REFERENCES user(id)',
    'CREATE INDEX time_line_reverses ON time_line (reverses_id)',
    'CREATE INDEX time_line_dated ON time_line (dated)',
  ],
};
