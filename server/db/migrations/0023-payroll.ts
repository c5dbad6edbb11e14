import type { Migration } from './migration';

/** Time handed over to payroll: each posted line once; how the file is laid out, and what a statement of wages declares. */
export const payroll: Migration = {
  name: '0023-payroll',
  statements: [
    `CREATE TABLE payroll_run (
      id INTEGER PRIMARY KEY, from_day TEXT NOT NULL, to_day TEXT NOT NULL, handed_on TEXT NOT NULL, handed_by TEXT NOT NULL
    )`,
    `CREATE TABLE payroll_line (
      id INTEGER PRIMARY KEY, payroll_run_id INTEGER NOT NULL REFERENCES payroll_run(id),
      time_line_id INTEGER NOT NULL UNIQUE REFERENCES time_line(id)
    )`,
    'CREATE INDEX payroll_line_run ON payroll_line (payroll_run_id)',
    `CREATE TABLE payroll_setting (id INTEGER PRIMARY KEY, declaration TEXT NOT NULL DEFAULT '', columns TEXT NOT NULL DEFAULT '')`,
    'CREATE INDEX cost_entry_time_line ON cost_entry (time_line_id) WHERE time_line_id IS NOT NULL',
    `CREATE TRIGGER payroll_line_kept BEFORE UPDATE ON payroll_line
      BEGIN SELECT RAISE(ABORT, 'Time that was handed over is never changed'); END`,
    `CREATE TRIGGER payroll_line_not_deleted BEFORE DELETE ON payroll_line
      BEGIN SELECT RAISE(ABORT, 'Time that was handed over is never deleted'); END`,
  ],
};
