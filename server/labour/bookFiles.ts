import { PAY_CLASSES } from '../../core/labour/payClass';
import { WEEKDAYS } from '../../core/labour/overtime';
import { rungOf } from '../../core/labour/payRates';
import { bookFile } from '../bookFormat/bookFile';
import { date, oneOf, percent, quantity, REQUIRED, text, unitCost, yesNo, type Row } from '../bookFormat/columns';
import type { BookSave } from '../bookFormat/bookSave';
import { costCodes } from '../company/book/bookFiles';
import { departments, workKinds } from '../company/book/listBookFiles';
import { jobs } from '../jobs/bookFiles';
import {
  BurdenTable,
  EmployeeTable,
  OvertimeRuleTable,
  PayCodeTable,
  PayRateTable,
  PieceRateTable,
  WageClassTable,
} from './models';

export const wageClasses = bookFile({
  name: 'wage_classes',
  columns: { wage_class: text(REQUIRED), description: text() },
  key: ['wage_class'],
  called: 'wage class',
  query: 'SELECT id, code AS wage_class, description FROM wage_class',
  save: (rows, into): Promise<void> => into.keyed(wageClasses, WageClassTable, rows, (row) => [row.wage_class], wageClassValues),
});

/** A class of the list, where there is one. */
export const ofClass = { to: wageClasses, ifAny: true } as const;

export const employees = bookFile({
  name: 'employees',
  columns: {
    employee: text(REQUIRED),
    name: text(REQUIRED),
    wage_class: text(),
    starts_on: date(),
    ends_on: date(),
    payroll_number: text(),
    department: text(),
  },
  key: ['employee'],
  called: 'employee',
  refers: { wage_class: ofClass, department: { to: departments } },
  query: `SELECT e.id, e.code AS employee, e.name, e.wage_class, e.starts_on, e.ends_on, e.payroll_number, d.code AS department
    FROM employee e LEFT JOIN department d ON d.id = e.department_id`,
  check(row, book) {
    if (row.starts_on && row.ends_on && row.ends_on < row.starts_on)
      book.fault(employees, row, 'ends_on', `${row.ends_on} is before the first day, ${row.starts_on}`);
  },
  save: (rows, into): Promise<void> =>
    into.keyed(
      employees,
      EmployeeTable,
      rows,
      (row) => [row.employee],
      (row) => employeeValues(row, into),
    ),
});

/** The ids of what a rate is for; null for a cell left out. */
const forIds = (into: BookSave, row: { job?: string | null; work_kind?: string | null; employee?: string | null }) => ({
  job_id: row.job ? into.id(jobs, row.job) : null,
  work_kind_id: row.work_kind ? into.id(workKinds, row.work_kind) : null,
  ...(row.employee === undefined ? {} : { employee_id: row.employee ? into.id(employees, row.employee) : null }),
});

export const payRates = bookFile({
  name: 'pay_rates',
  columns: {
    from: date(REQUIRED),
    job: text(),
    section: text(),
    work_kind: text(),
    wage_class: text(),
    employee: text('the filled cells make one of the six rungs of docs/rules.md §10'),
    rate: unitCost(REQUIRED),
    at_least: yesNo(),
  },
  key: ['from', 'job', 'section', 'work_kind', 'wage_class', 'employee'],
  refers: { job: { to: jobs }, work_kind: { to: workKinds }, wage_class: ofClass, employee: { to: employees } },
  query: `SELECT r.id, r.from_day AS "from", j.number AS job, r.section, k.code AS work_kind, r.wage_class, e.code AS employee, r.rate, r.at_least
    FROM pay_rate r LEFT JOIN job j ON j.id = r.job_id LEFT JOIN work_kind k ON k.id = r.work_kind_id LEFT JOIN employee e ON e.id = r.employee_id`,
  check(row, book) {
    const { job, section, work_kind: workKind, wage_class: wageClass, employee } = row;
    if ([job, section, workKind, wageClass, employee].includes(undefined)) return;
    const cells = {
      job: job ?? '',
      section: section ?? '',
      workKind: workKind ?? '',
      wageClass: wageClass ?? '',
      employee: employee ?? '',
    };
    if (rungOf(cells) === null)
      book.fault(
        payRates,
        row,
        'employee',
        'the filled cells make no rung: expected job, section and wage class; job and wage class; kind of work and employee; kind of work and wage class; employee; or wage class',
      );
  },
  save: (rows, into): Promise<void> =>
    into.insertAll(
      PayRateTable,
      rows.map((row) => payRateValues(row, into)),
    ),
});

export const pieceRates = bookFile({
  name: 'piece_rates',
  columns: {
    from: date(REQUIRED),
    cost_code: text(REQUIRED),
    work_kind: text(),
    rate: unitCost(REQUIRED),
    unit: text(),
    tops_up: yesNo(),
  },
  key: ['from', 'cost_code', 'work_kind'],
  refers: { cost_code: { to: costCodes }, work_kind: { to: workKinds } },
  query: `SELECT r.id, r.from_day AS "from", c.code AS cost_code, k.code AS work_kind, r.rate, r.unit, r.tops_up
    FROM piece_rate r JOIN cost_code c ON c.id = r.cost_code_id LEFT JOIN work_kind k ON k.id = r.work_kind_id`,
  save: (rows, into): Promise<void> =>
    into.insertAll(
      PieceRateTable,
      rows.map((row) => pieceRateValues(row, into)),
    ),
});

export const burdens = bookFile({
  name: 'burdens',
  columns: {
    burden: text(REQUIRED),
    description: text(),
    from: date(REQUIRED),
    to: date(),
    job: text(),
    wage_class: text(),
    percent: percent(),
    per_hour: unitCost(),
    on_premium: yesNo(),
  },
  key: ['burden', 'from', 'job', 'wage_class'],
  refers: { job: { to: jobs }, wage_class: ofClass },
  query: `SELECT b.id, b.code AS burden, b.description, b.from_day AS "from", b.to_day AS "to", j.number AS job, b.wage_class, b.percent, b.per_hour, b.on_premium
    FROM burden b LEFT JOIN job j ON j.id = b.job_id`,
  check(row, book) {
    if (row.from && row.to && row.to < row.from) book.fault(burdens, row, 'to', `${row.to} is before its first day, ${row.from}`);
  },
  save: (rows, into): Promise<void> =>
    into.insertAll(
      BurdenTable,
      rows.map((row) => burdenValues(row, into)),
    ),
});

export const overtimeRules = bookFile({
  name: 'overtime_rules',
  columns: {
    from: date(REQUIRED),
    daily_after: quantity(),
    double_after: quantity('only with daily_after, and not below it'),
    weekly_after: quantity(),
    week_starts: oneOf(WEEKDAYS)('empty: monday'),
  },
  key: ['from'],
  query: `SELECT id, from_day AS "from", daily_after, double_after, weekly_after, week_starts FROM overtime_rule`,
  check(row, book) {
    const { daily_after: daily, double_after: double } = row;
    if (double !== null && double !== undefined && daily !== undefined && (daily === null || double < daily))
      book.fault(overtimeRules, row, 'double_after', 'expected hours a day after which overtime begins, and not above this');
    for (const column of ['daily_after', 'double_after', 'weekly_after'] as const)
      if ((row[column] ?? 0) < 0) book.fault(overtimeRules, row, column, 'is below 0');
  },
  save: (rows, into): Promise<void> =>
    into.insertAll(
      OvertimeRuleTable,
      rows.map((row) => overtimeRuleValues(row)),
    ),
});

export const payCodes = bookFile({
  name: 'pay_codes',
  columns: { pay_code: text(REQUIRED), pay: oneOf(PAY_CLASSES)(REQUIRED), job: text(), work_kind: text('never beside a job') },
  key: ['pay', 'job', 'work_kind'],
  refers: { job: { to: jobs }, work_kind: { to: workKinds } },
  query: `SELECT p.id, p.code AS pay_code, p.pay, j.number AS job, k.code AS work_kind
    FROM pay_code p LEFT JOIN job j ON j.id = p.job_id LEFT JOIN work_kind k ON k.id = p.work_kind_id`,
  check(row, book) {
    if (row.job && row.work_kind)
      book.fault(payCodes, row, 'work_kind', 'a pay code is of a job or of a kind of work; leave one of them out');
  },
  save: (rows, into): Promise<void> =>
    into.insertAll(
      PayCodeTable,
      rows.map((row) => payCodeValues(row, into)),
    ),
});

/** Rows of these files as they are saved. */
export const employeeValues = (row: Row<typeof employees.columns>, into: BookSave) => ({
  code: row.employee,
  name: row.name,
  wage_class: row.wage_class ?? '',
  starts_on: row.starts_on,
  ends_on: row.ends_on,
  payroll_number: row.payroll_number ?? '',
  department_id: row.department ? into.id(departments, row.department) : null,
});
export const wageClassValues = (row: Row<typeof wageClasses.columns>) => ({
  code: row.wage_class,
  description: row.description ?? '',
});
export const payRateValues = (row: Row<typeof payRates.columns>, into: BookSave) => ({
  from_day: row.from,
  section: row.section ?? '',
  wage_class: row.wage_class ?? '',
  rate: row.rate,
  ...forIds(into, row),
  at_least: row.at_least ? 1 : 0,
});
export const pieceRateValues = (row: Row<typeof pieceRates.columns>, into: BookSave) => ({
  from_day: row.from,
  cost_code_id: into.id(costCodes, row.cost_code),
  rate: row.rate,
  unit: row.unit ?? '',
  work_kind_id: row.work_kind ? into.id(workKinds, row.work_kind) : null,
  tops_up: row.tops_up ? 1 : 0,
});
export const burdenValues = (row: Row<typeof burdens.columns>, into: BookSave) => ({
  code: row.burden,
  description: row.description ?? '',
  from_day: row.from,
  to_day: row.to,
  job_id: row.job ? into.id(jobs, row.job) : null,
  wage_class: row.wage_class ?? '',
  percent: row.percent ?? 0,
  per_hour: row.per_hour ?? 0,
  on_premium: row.on_premium ? 1 : 0,
});
export const overtimeRuleValues = (row: Row<typeof overtimeRules.columns>) => ({
  from_day: row.from,
  daily_after: row.daily_after,
  double_after: row.double_after,
  weekly_after: row.weekly_after,
  week_starts: row.week_starts ?? 'monday',
});
export const payCodeValues = (row: Row<typeof payCodes.columns>, into: BookSave) => ({
  code: row.pay_code,
  pay: row.pay,
  ...forIds(into, { job: row.job, work_kind: row.work_kind }),
});
