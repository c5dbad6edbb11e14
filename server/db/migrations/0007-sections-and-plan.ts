import type { Migration } from './migration';

/** Sections of a job with dates of their own, and dates of single cost lines: what a plan by month is worked from. */
export const sectionsAndPlan: Migration = {
  name: '0007-sections-and-plan',
  statements: [
    `CREATE TABLE job_section (
      id INTEGER PRIMARY KEY, job_id INTEGER NOT NULL REFERENCES job ON DELETE CASCADE, name TEXT NOT NULL, starts_on TEXT, finishes_on TEXT, UNIQUE (job_id, name))`,
    `CREATE TABLE cost_line_plan (
      cost_line_id INTEGER PRIMARY KEY REFERENCES cost_line ON DELETE CASCADE, starts_on TEXT NOT NULL, finishes_on TEXT NOT NULL)`,
  ],
};
