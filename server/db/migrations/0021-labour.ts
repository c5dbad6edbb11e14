import type { Migration } from './migration';

/** Our own employees, what their hours cost, and the time they worked: as cut, with the price it was posted at. */
export const labour: Migration = {
  name: '0021-labour',
  statements: [
    `CREATE TABLE employee (
      id INTEGER PRIMARY KEY, code TEXT NOT NULL UNIQUE, name TEXT NOT NULL, wage_class TEXT NOT NULL DEFAULT '',
      starts_on TEXT, ends_on TEXT, payroll_number TEXT NOT NULL DEFAULT ''
    )`,
    `CREATE TABLE work_kind (id INTEGER PRIMARY KEY, code TEXT NOT NULL UNIQUE, description TEXT NOT NULL)`,
    `CREATE TABLE pay_rate (
      id INTEGER PRIMARY KEY, from_day TEXT NOT NULL, job_id INTEGER REFERENCES job(id), section TEXT NOT NULL DEFAULT '',
      work_kind_id INTEGER REFERENCES work_kind(id), wage_class TEXT NOT NULL DEFAULT '',
      employee_id INTEGER REFERENCES employee(id), rate INTEGER NOT NULL, at_least INTEGER NOT NULL DEFAULT 0
    )`,
    `CREATE TABLE piece_rate (
      id INTEGER PRIMARY KEY, from_day TEXT NOT NULL, cost_code_id INTEGER NOT NULL REFERENCES cost_code(id),
      work_kind_id INTEGER REFERENCES work_kind(id), rate INTEGER NOT NULL, unit TEXT NOT NULL DEFAULT '',
      tops_up INTEGER NOT NULL DEFAULT 0
    )`,
    `CREATE TABLE burden (
      id INTEGER PRIMARY KEY, code TEXT NOT NULL, description TEXT NOT NULL DEFAULT '', from_day TEXT NOT NULL, to_day TEXT,
      job_id INTEGER REFERENCES job(id), wage_class TEXT NOT NULL DEFAULT '', percent INTEGER NOT NULL DEFAULT 0,
      per_hour INTEGER NOT NULL DEFAULT 0, on_premium INTEGER NOT NULL DEFAULT 0
    )`,
    `CREATE TABLE overtime_rule (
      id INTEGER PRIMARY KEY, from_day TEXT NOT NULL UNIQUE, daily_after INTEGER, double_after INTEGER, weekly_after INTEGER,
      week_starts TEXT NOT NULL DEFAULT 'monday'
    )`,
    `CREATE TABLE pay_code (
      id INTEGER PRIMARY KEY, code TEXT NOT NULL, pay TEXT NOT NULL CHECK (pay IN ('regular', 'overtime', 'double')),
      job_id INTEGER REFERENCES job(id), work_kind_id INTEGER REFERENCES work_kind(id)
    )`,
    `CREATE TABLE time_line (
      id INTEGER PRIMARY KEY, sheet TEXT NOT NULL, line TEXT NOT NULL, employee_id INTEGER NOT NULL REFERENCES employee(id),
      dated TEXT NOT NULL, posted_on TEXT NOT NULL, job_id INTEGER REFERENCES job(id), section TEXT NOT NULL DEFAULT '',
      cost_code_id INTEGER REFERENCES cost_code(id), work_kind_id INTEGER REFERENCES work_kind(id),
      wage_class TEXT NOT NULL DEFAULT '', pay TEXT CHECK (pay IN ('regular', 'overtime', 'double')), hours INTEGER NOT NULL,
      units INTEGER, status TEXT NOT NULL CHECK (status IN ('submitted', 'approved', 'posted')),
      description TEXT NOT NULL DEFAULT '', reverses_id INTEGER REFERENCES time_line(id), split INTEGER NOT NULL DEFAULT 0,
      posting_id INTEGER REFERENCES posting(id), rate INTEGER, rung TEXT NOT NULL DEFAULT '', pay_amount INTEGER,
      burden INTEGER
    )`,
    `CREATE UNIQUE INDEX time_line_key ON time_line (sheet, line, coalesce(pay, ''))`,
    'CREATE INDEX time_line_employee ON time_line (employee_id, dated)',
    'CREATE INDEX time_line_job ON time_line (job_id)',
    `CREATE TRIGGER time_line_posted_kept BEFORE UPDATE ON time_line WHEN OLD.status = 'posted'
      BEGIN SELECT RAISE(ABORT, 'Time that is posted is never changed'); END`,
    `CREATE TRIGGER time_line_posted_not_deleted BEFORE DELETE ON time_line WHEN OLD.status = 'posted'
      BEGIN SELECT RAISE(ABORT, 'Time that is posted is never deleted'); END`,
    'ALTER TABLE cost_entry ADD COLUMN time_line_id INTEGER REFERENCES time_line(id)',
  ],
};
