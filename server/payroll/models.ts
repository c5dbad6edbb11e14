import { t, table } from '../db/fields';

export const PayrollRunTable = table('payroll_run', {
  id: t.id,
  from_day: t.day,
  to_day: t.day,
  handed_on: t.day,
  handed_by: t.text,
  /** The day its file was first taken. */
  used_on: t.orNull(t.day),
  undone_on: t.orNull(t.day),
});

export const PayrollLineTable = table('payroll_line', {
  id: t.id,
  payroll_run_id: t.ref('payroll_run'),
  time_line_id: t.ref('time_line'),
});

export const PayrollSettingTable = table('payroll_setting', {
  id: t.id,
  /** What a statement of wages declares, in the company's own words. */
  declaration: t.filled(t.text, ''),
  /** Columns of the file, as core writes them; empty: the usual ones. */
  columns: t.filled(t.text, ''),
});
