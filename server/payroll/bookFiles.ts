import { readColumns } from '../../core/labour/payroll';
import { bookFile } from '../bookFormat/bookFile';
import { date, integer, REQUIRED, text } from '../bookFormat/columns';
import { PayrollRunTable, PayrollSettingTable } from './models';

const MOST_RUNS = 1_000_000;

export const payrollRuns = bookFile({
  name: 'payroll_runs',
  columns: {
    run: integer(1, MOST_RUNS)(REQUIRED),
    from: date(REQUIRED),
    to: date(REQUIRED),
    handed_on: date(REQUIRED),
    handed_by: text(REQUIRED),
    used_on: date('its file was taken; empty: nobody has it'),
    undone_on: date(),
  },
  key: ['run'],
  called: 'hand-over',
  query: 'SELECT id, id AS run, from_day AS "from", to_day AS "to", handed_on, handed_by, used_on, undone_on FROM payroll_run',
  check(row, book) {
    if (row.from && row.to && row.to < row.from) book.fault(payrollRuns, row, 'to', `${row.to} is before from, ${row.from}`);
  },
  save: (rows, into): Promise<void> =>
    into.insertAll(
      PayrollRunTable,
      rows.map((row) => ({
        id: row.run,
        from_day: row.from,
        to_day: row.to,
        handed_on: row.handed_on,
        handed_by: row.handed_by,
        used_on: row.used_on,
        undone_on: row.undone_on,
      })),
    ),
});

export const payrollSettings = bookFile({
  name: 'payroll_settings',
  columns: {
    columns: text('columns of the file for payroll: `Title=field; Title=field`; empty: the usual ones'),
    declaration: text('what a statement of wages declares'),
  },
  key: [],
  keyNote: 'one row',
  query: 'SELECT id, columns, declaration FROM payroll_setting',
  check(row, book) {
    if (row.columns && readColumns(row.columns) === null)
      book.fault(payrollSettings, row, 'columns', 'expected columns such as Name=name; Hours=hours');
  },
  checkAll(rows, book) {
    for (const row of rows.slice(1)) book.fault(payrollSettings, row, 'columns', 'duplicate key: there is one row');
  },
  async save([row], { sql }) {
    if (row)
      await sql.save(PayrollSettingTable, [{ id: 1, columns: row.columns ?? '', declaration: row.declaration ?? '' }], ['id']);
  },
});
