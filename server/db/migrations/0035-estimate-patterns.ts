import type { Migration } from './migration';

/** Estimates kept under a name, to begin others from. */
export const estimatePatterns: Migration = {
  name: '0035-estimate-patterns',
  statements: [
    'CREATE TABLE estimate_pattern (id INTEGER PRIMARY KEY, name TEXT NOT NULL UNIQUE, content TEXT NOT NULL, saved_at TEXT NOT NULL)',
  ],
};
