import { bookFile, type BookAct } from '../../bookFormat/bookFile';
import { INVOICES_OF_ENTRY } from '../../charging/book/chargeColumns';
import { costCodes } from '../../company/book/bookFiles';
import { jobs } from '../../jobs/bookFiles';
import { payrollRuns } from '../../payroll/bookFiles';
import { departments, workKinds } from '../../company/book/listBookFiles';
import { employees, ofClass } from '../bookFiles';
import { actsOfTime, loadLabourOf, planTime } from './planTime';
import { saveTime } from './saveTime';
import { TIME } from './timeColumns';

/** Time as it was worked. Posted, it is cut and priced when it comes in, and goes out as it was cut. */
export const time = bookFile({
  name: 'time',
  columns: TIME,
  key: ['sheet', 'line', 'pay'],
  takenBy: 'final',
  refers: {
    employee: { to: employees },
    job: { to: jobs },
    cost_code: { to: costCodes },
    work_kind: { to: workKinds },
    wage_class: ofClass,
    department: { to: departments },
    handed_over: { to: payrollRuns },
  },
  query: `SELECT x.id, CASE WHEN r.id IS NULL THEN NULL ELSE r.sheet || '/' || r.line || '/' || r.pay END AS reverses, x.sheet, x.line,
    e.code AS employee, x.dated, nullif(x.posted_on, x.dated) AS posted_on, j.number AS job, x.section, c.code AS cost_code,
    k.code AS work_kind, x.wage_class, x.pay, x.hours, x.units, nullif(x.status, 'posted') AS status, x.description,
    CASE WHEN x.status = 'posted' THEN (CASE WHEN m.mark = 'no' AND j.pricing = 'fixed' THEN NULL ELSE m.mark END) ELSE nullif(x.charge, '') END AS charge,
    CASE WHEN x.status = 'posted' THEN m.charge_from ELSE x.charge_from END AS charge_from,
    CASE WHEN x.status = 'posted' THEN m.markup ELSE x.charge_markup END AS markup_percent, m.wording AS charge_wording, ${INVOICES_OF_ENTRY('y.id')} AS daywork_invoice, x.clock, p.payroll_run_id AS handed_over, dp.code AS department, x.returned
    FROM time_line x JOIN employee e ON e.id = x.employee_id LEFT JOIN job j ON j.id = x.job_id LEFT JOIN cost_code c ON c.id = x.cost_code_id
    LEFT JOIN work_kind k ON k.id = x.work_kind_id LEFT JOIN time_line r ON r.id = x.reverses_id
    LEFT JOIN department dp ON dp.id = x.department_id LEFT JOIN payroll_line p ON p.time_line_id = x.id
    LEFT JOIN cost_entry y ON y.time_line_id = x.id AND y.hours IS NOT NULL LEFT JOIN charge_mark m ON m.cost_entry_id = y.id`,
  prepare: (book): Promise<void> => loadLabourOf(time, book),
  countsOn: ({ status, dated, posted_on }) => (status && status !== 'posted' ? {} : posted_on ? { posted_on } : { dated }),
  checkAll: (rows, book): void => planTime(time, rows, book),
  acts: (_rows, book): readonly BookAct[] => actsOfTime(book),
  save: saveTime,
});
