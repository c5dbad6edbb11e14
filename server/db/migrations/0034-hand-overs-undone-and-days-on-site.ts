import type { Migration } from './migration';

/** A hand-over that nobody has used can be undone; those there are have been used. How long a phone of the site stays signed in. */
export const handOversUndoneAndDaysOnSite: Migration = {
  name: '0034-hand-overs-undone-and-days-on-site',
  statements: [
    'ALTER TABLE payroll_run ADD COLUMN used_on TEXT',
    'ALTER TABLE payroll_run ADD COLUMN undone_on TEXT',
    'UPDATE payroll_run SET used_on = handed_on',
    'DROP TRIGGER payroll_line_not_deleted',
    `CREATE TRIGGER payroll_line_not_deleted BEFORE DELETE ON payroll_line
      WHEN (SELECT used_on FROM payroll_run WHERE id = OLD.payroll_run_id) IS NOT NULL
      BEGIN SELECT RAISE(ABORT, 'Time that payroll has is never deleted'); END`,
    'ALTER TABLE company ADD COLUMN site_days INTEGER NOT NULL DEFAULT 30',
  ],
};
