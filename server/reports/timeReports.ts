import { firstDay, periodOf } from '../../core/calendar/plainDate';
import { PAY_CLASSES } from '../../core/labour/payClass';
import { payCodeOf } from '../../core/labour/payCodes';
import { payrollRows } from '../../core/labour/payroll';
import { inSheetOrder } from '../../core/labour/sheets';
import { departmentOfHour } from '../../core/jobs/jobGroups';
import { fieldError } from '../acts/refused';
import { DepartmentTable } from '../company/models';
import { JobTable } from '../jobs/models';
import { EmployeeTable } from '../labour/models';
import { groupColumn, groupsOf, inGroups } from './jobGroups';
import type { RowOf } from '../db/fields';
import type { Reader } from '../db/sql';
import { PAY_CODES, TIME_WORKED } from '../labour/queries';
import { columns, type Report, type ReportRequest } from '../reportFiles/report';

type Line = RowOf<typeof TIME_WORKED> & { payCode: string };

/** Posted lines worked from `from` to `asOf`, whenever they were posted, in the order of sheet, line and class. */
async function worked(sql: Reader, { asOf, from = firstDay(periodOf(asOf)), department }: ReportRequest): Promise<Line[]> {
  const codes = await sql.all(PAY_CODES);
  const lines = await sql.all(TIME_WORKED, [from, asOf]);
  const departments = await departmentsOf(sql);
  return lines
    .map((it) => ({ ...it, payCode: payCodeOf(codes, it), department: departmentOfHour({ job: it.job, ...departments(it) }) }))
    .filter((it) => department === undefined || it.department === department)
    .sort((a, b) => inSheetOrder(a, b) || PAY_CLASSES.indexOf(a.pay) - PAY_CLASSES.indexOf(b.pay));
}

/** The departments of jobs and of employees, by code; empty where there is none. */
async function departmentsOf(sql: Reader) {
  const names = new Map((await sql.find(DepartmentTable, {})).map((it) => [it.id, it.code]));
  const nameOf = (id: number | null) => names.get(id ?? 0) ?? '';
  const jobs = new Map((await sql.find(JobTable, {})).map((it) => [it.number, nameOf(it.department_id)]));
  const employees = new Map((await sql.find(EmployeeTable, {})).map((it) => [it.code, nameOf(it.department_id)]));
  return ({ job, employee, department }: { job: string; employee: string; department: string }) => ({
    lineDepartment: department,
    jobDepartment: jobs.get(job) ?? '',
    employeeDepartment: employees.get(employee) ?? '',
  });
}

const sum = <Row>(rows: readonly Row[], value: (row: Row) => number) => rows.reduce((total, row) => total + value(row), 0);

const TIME_COLUMNS = columns(
  ...(['sheet:t:Sheet', 'line:t:Line', 'employee:t:Employee', 'dated:d:Day', 'job:t:Job', 'section:t:Section'] as const),
  ...(['cost_code:t:Cost code', 'work_kind:t:Kind of work', 'wage_class:t:Wage class', 'pay:t:Pay', 'hours:h:Hours'] as const),
  ...(['units:h:Units', 'rate:r:Rate', 'rung:t:Rung', 'pay_amount:a:Pay', 'burden:a:Burden', 'total:a:Total'] as const),
  'pay_code:t:Pay code',
);

/** What time cost, line by line, with the rate and where it comes from. */
export async function timeCostReport(sql: Reader, request: ReportRequest): Promise<Report> {
  if (request.by !== undefined && request.by !== 'department')
    throw fieldError('by', 'by: time is grouped by department alone; choose that, or leave it out');
  const inOrder = await worked(sql, request);
  const lines = request.by === undefined ? inOrder : inGroups(inOrder, (it) => it.department);
  const rows = lines.map((it) => ({
    ...(request.by === undefined ? {} : { group: it.department }),
    sheet: it.sheet,
    line: it.line,
    employee: it.employee,
    dated: it.dated,
    job: it.job,
    section: it.section,
    cost_code: it.costCode,
    work_kind: it.workKind,
    wage_class: it.wageClass || it.employeeClass,
    pay: it.pay,
    hours: it.hours,
    units: it.units ?? '',
    rate: it.rate,
    rung: it.rung,
    pay_amount: it.payAmount,
    burden: it.burden,
    total: it.payAmount + it.burden,
    pay_code: it.payCode,
  }));
  const columnsOf = [...groupColumn(request), ...TIME_COLUMNS];
  const total = (of: readonly Line[]) => ({
    ...Object.fromEntries(columnsOf.map(({ key }) => [key, ''])),
    sheet: 'TOTAL',
    hours: sum(of, (it) => it.hours),
    pay_amount: sum(of, (it) => it.payAmount),
    burden: sum(of, (it) => it.burden),
    total: sum(of, (it) => it.payAmount + it.burden),
  });
  return {
    name: 'time-cost',
    title: 'Time and what it cost',
    columns: columnsOf,
    rows: [...rows, total(lines)],
    hasTotal: true,
    ...(await groupsOf(sql, request, lines, (it) => it.department, total)),
  };
}

const PAYROLL_COLUMNS = columns(
  'employee:t:Employee',
  'pay_code:t:Pay code',
  'job:t:Job',
  'hours:h:Hours',
  'rate:r:Rate',
  'amount:a:Amount',
);

/** What is to be paid: hours and pay without burden, by employee, pay code, job and rate. */
export async function payrollReport(sql: Reader, request: ReportRequest): Promise<Report> {
  const lines = await worked(sql, request);
  const rows = payrollRows(lines.map((it) => ({ ...it, pieces: null }))).map((it) => ({
    employee: it.employee,
    pay_code: it.payCode,
    job: it.job,
    hours: it.hours,
    rate: it.rate,
    amount: it.amount,
  }));
  const total = {
    employee: 'TOTAL',
    pay_code: '',
    job: '',
    hours: sum(rows, (it) => it.hours),
    rate: '',
    amount: sum(rows, (it) => it.amount),
  };
  return { name: 'payroll', title: 'Payroll', columns: PAYROLL_COLUMNS, rows: [...rows, total], hasTotal: true };
}
