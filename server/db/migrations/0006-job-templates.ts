import type { Migration } from './migration';

/** Jobs to begin others from: kept as they are typed. */
export const jobTemplates: Migration = {
  name: '0006-job-templates',
  statements: [
    'CREATE TABLE job_template (id INTEGER PRIMARY KEY, name TEXT NOT NULL UNIQUE, content TEXT NOT NULL, saved_at TEXT NOT NULL)',
  ],
};
