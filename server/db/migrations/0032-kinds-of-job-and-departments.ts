import type { Migration } from './migration';

const filled = (table: string, column: string) =>
  `CREATE INDEX ${table}_of_${column} ON ${table} (${column}) WHERE ${column} IS NOT NULL`;

/** Two lists of the company: kinds of job, with what a new job of the kind begins with, and departments. */
export const kindsOfJobAndDepartments: Migration = {
  name: '0032-kinds-of-job-and-departments',
  statements: [
    `CREATE TABLE department (id INTEGER PRIMARY KEY, code TEXT NOT NULL UNIQUE, name TEXT NOT NULL, closed INTEGER NOT NULL DEFAULT 0)`,
    `CREATE TABLE job_kind (
      id INTEGER PRIMARY KEY, code TEXT NOT NULL UNIQUE, name TEXT NOT NULL, closed INTEGER NOT NULL DEFAULT 0,
      retention_rate INTEGER,
      revenue_method TEXT NOT NULL DEFAULT '' CHECK (revenue_method IN ('cost-to-cost', 'hours', 'physical', 'completed', '')),
      terms_days INTEGER, work_kind_id INTEGER REFERENCES work_kind(id),
      pay_code TEXT NOT NULL DEFAULT '', checklist TEXT NOT NULL DEFAULT ''
    )`,
    'ALTER TABLE job ADD COLUMN job_kind_id INTEGER REFERENCES job_kind(id)',
    'ALTER TABLE job ADD COLUMN department_id INTEGER REFERENCES department(id)',
    'ALTER TABLE job ADD COLUMN work_kind_id INTEGER REFERENCES work_kind(id)',
    'ALTER TABLE employee ADD COLUMN department_id INTEGER REFERENCES department(id)',
    filled('job_kind', 'work_kind_id'),
    filled('job', 'job_kind_id'),
    filled('job', 'department_id'),
    filled('job', 'work_kind_id'),
    filled('employee', 'department_id'),
  ],
};
