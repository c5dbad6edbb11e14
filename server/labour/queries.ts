import { PAY_CLASSES } from '../../core/labour/payClass';
import { type WEEKDAYS } from '../../core/labour/overtime';
import { shape, t } from '../db/fields';
import { query } from '../db/query';

const name = (column: string) => `coalesce(${column}, '')`;

export const PAY_RATES = query(
  shape({
    from: t.day,
    job: t.text,
    section: t.text,
    workKind: t.text,
    wageClass: t.text,
    employee: t.text,
    rate: t.unitCost,
    atLeast: t.flag,
  }),
  `SELECT r.from_day AS "from", ${name('j.number')} AS job, r.section, ${name('k.code')} AS workKind, r.wage_class AS wageClass,
      ${name('e.code')} AS employee, r.rate, r.at_least AS atLeast
    FROM pay_rate r LEFT JOIN job j ON j.id = r.job_id LEFT JOIN work_kind k ON k.id = r.work_kind_id
    LEFT JOIN employee e ON e.id = r.employee_id`,
);

export const PIECE_RATES = query(
  shape({ from: t.day, costCode: t.text, workKind: t.text, rate: t.unitCost, topsUp: t.flag }),
  `SELECT r.from_day AS "from", c.code AS costCode, ${name('k.code')} AS workKind, r.rate, r.tops_up AS topsUp
    FROM piece_rate r JOIN cost_code c ON c.id = r.cost_code_id LEFT JOIN work_kind k ON k.id = r.work_kind_id`,
);

export const BURDENS = query(
  shape({
    burden: t.text,
    from: t.day,
    to: t.orNull(t.day),
    job: t.text,
    wageClass: t.text,
    percent: t.rate,
    perHour: t.unitCost,
    onPremium: t.flag,
  }),
  `SELECT b.code AS burden, b.from_day AS "from", b.to_day AS "to", ${name('j.number')} AS job, b.wage_class AS wageClass, b.percent,
      b.per_hour AS perHour, b.on_premium AS onPremium FROM burden b LEFT JOIN job j ON j.id = b.job_id`,
);

export const OVERTIME_RULES = query(
  shape({
    from: t.day,
    dailyAfter: t.orNull(t.hours),
    doubleAfter: t.orNull(t.hours),
    weeklyAfter: t.orNull(t.hours),
    weekStarts: t.oneOf<(typeof WEEKDAYS)[number]>(),
  }),
  `SELECT from_day AS "from", daily_after AS dailyAfter, double_after AS doubleAfter, weekly_after AS weeklyAfter,
      week_starts AS weekStarts FROM overtime_rule`,
);

export const PAY_CODES = query(
  shape({ payCode: t.text, pay: t.oneOf(...PAY_CLASSES), job: t.text, workKind: t.text }),
  `SELECT p.code AS payCode, p.pay, ${name('j.number')} AS job, ${name('k.code')} AS workKind
    FROM pay_code p LEFT JOIN job j ON j.id = p.job_id LEFT JOIN work_kind k ON k.id = p.work_kind_id`,
);

/** Lines of time that are posted, with their names. */
const POSTED = (where: string) =>
  query(
    shape({
      id: t.whole,
      sheet: t.text,
      line: t.text,
      employee: t.text,
      employeeClass: t.text,
      dated: t.day,
      job: t.text,
      section: t.text,
      costCode: t.text,
      workKind: t.text,
      department: t.text,
      wageClass: t.text,
      pay: t.oneOf(...PAY_CLASSES),
      hours: t.hours,
      units: t.orNull(t.quantity),
      rate: t.unitCost,
      rung: t.text,
      payAmount: t.cents,
      burden: t.cents,
      split: t.flag,
      reverses: t.orNull(t.whole),
      reversedBy: t.orNull(t.whole),
    }),
    `SELECT x.id, x.sheet, x.line, e.code AS employee, e.wage_class AS employeeClass, x.dated, ${name('j.number')} AS job, x.section,
        ${name('c.code')} AS costCode, ${name('k.code')} AS workKind, ${name('dp.code')} AS department, x.wage_class AS wageClass, x.pay, x.hours, x.units, x.rate, x.rung,
        x.pay_amount AS payAmount, x.burden, x.split, x.reverses_id AS reverses,
        (SELECT r.id FROM time_line r WHERE r.reverses_id = x.id) AS reversedBy
      FROM time_line x JOIN employee e ON e.id = x.employee_id LEFT JOIN job j ON j.id = x.job_id
      LEFT JOIN cost_code c ON c.id = x.cost_code_id LEFT JOIN work_kind k ON k.id = x.work_kind_id
      LEFT JOIN department dp ON dp.id = x.department_id WHERE x.status = 'posted' AND ${where}`,
  );

export const POSTED_TIME = POSTED('true');
/** The line `$2` of sheet `$1`, of pay class `$3`. */
export const POSTED_LINE = POSTED('x.sheet = $1 AND x.line = $2 AND x.pay = $3');
/** Those whose ids are in the JSON list `$1`. */
export const POSTED_OF_IDS = POSTED('x.id IN (SELECT value FROM json_each($1))');
/** On job `$1`, worked from day `$2` to day `$3`. */
export const POSTED_ON_JOB = POSTED('x.job_id = $1 AND x.dated BETWEEN $2 AND $3');
/** Worked on day `$1` or later. */
export const POSTED_SINCE = POSTED('x.dated >= $1');
/** Worked from day `$1` to day `$2`, whenever posted. */
export const TIME_WORKED = POSTED('x.dated BETWEEN $1 AND $2');

/** The days each employee has time on, and whether any of it is posted by the wage class of the employee. */
export const EMPLOYEE_DAYS = query(
  shape({ id: t.whole, first: t.day, last: t.day, posted: t.whole, postedByClass: t.whole }),
  `SELECT employee_id AS id, min(dated) AS first, max(dated) AS last, sum(status = 'posted') AS posted, sum(status = 'posted' AND wage_class = '') AS postedByClass
    FROM time_line GROUP BY employee_id`,
);

/** What uses employees and kinds of work, by id. */
const used = (column: 'employee_id' | 'work_kind_id', tables: readonly string[]) =>
  query(
    shape({ id: t.whole, uses: t.whole }),
    `SELECT id, count(*) AS uses FROM (${tables.map((it) => `SELECT ${column} AS id FROM ${it}`).join(' UNION ALL ')})
      WHERE id IS NOT NULL GROUP BY id`,
  );
export const EMPLOYEE_USES = used('employee_id', ['time_line', 'pay_rate', 'charge_rate', 'day_entry']);
export const WORK_KIND_USES = used('work_kind_id', [
  'time_line',
  'pay_rate',
  'charge_rate',
  'piece_rate',
  'pay_code',
  'day_entry',
  'job',
  'job_kind',
]);

/** Wage classes that are named, and by what. */
export const USED_WAGE_CLASSES = query(
  shape({ wageClass: t.text, by: t.text }),
  `SELECT wage_class AS wageClass, group_concat(DISTINCT what ORDER BY what) AS by FROM (
      SELECT wage_class, 'employees' AS what FROM employee UNION ALL SELECT wage_class, 'pay rates' FROM pay_rate
      UNION ALL SELECT wage_class, 'burdens' FROM burden UNION ALL SELECT wage_class, 'charge rates' FROM charge_rate UNION ALL SELECT wage_class, 'lines of time' FROM time_line)
    WHERE wage_class <> '' GROUP BY 1 ORDER BY 1`,
);

/** What the labour lines of job `$1` are to install, by cost line: of the budget, else of the estimate it came from. */
export const TASK_QUANTITIES = query(
  shape({ id: t.whole, quantity: t.orNull(t.quantity), unit: t.text, otherUnit: t.text }),
  `SELECT b.cost_line_id AS id, sum(coalesce(b.quantity, e.quantity)) AS quantity,
      min(CASE WHEN b.quantity IS NULL THEN coalesce(e.unit, '') ELSE b.unit END) AS unit,
      max(CASE WHEN b.quantity IS NULL THEN coalesce(e.unit, '') ELSE b.unit END) AS otherUnit
    FROM budget_line b JOIN cost_line l ON l.id = b.cost_line_id LEFT JOIN estimate_line e ON e.id = b.estimate_line_id
    WHERE l.job_id = $1 AND l.cost_type = 'labour' AND coalesce(b.quantity, e.quantity) IS NOT NULL GROUP BY b.cost_line_id`,
);

/** Hours and installed quantities on the day sheets of job `$1` up to day `$2`, by task; quantities by their unit. */
export const ON_DAY_SHEETS = query(
  shape({ section: t.text, costCode: t.text, unit: t.text, hours: t.hours, quantity: t.quantity }),
  `SELECT x.section, c.code AS costCode, x.unit, coalesce(sum(CASE WHEN x.kind = 'hours' THEN x.hours END), 0) AS hours,
      coalesce(sum(x.quantity), 0) AS quantity
    FROM day_entry x JOIN day_sheet d ON d.id = x.day_sheet_id JOIN cost_code c ON c.id = x.cost_code_id
    WHERE d.job_id = $1 AND d.dated <= $2 GROUP BY x.section, c.code, x.unit`,
);

/** Hours worked from day `$1` to day `$2` by employee, week or day, job and state; a week is seven days from `$1`. */
export const HOURS_AT_WORK = query(
  shape({ employee: t.text, name: t.text, week: t.whole, job: t.text, hours: t.hours, overtime: t.hours, open: t.hours }),
  `SELECT e.code AS employee, e.name, CAST((julianday(x.dated) - julianday($1)) / 7 AS INTEGER) AS week, ${name('j.number')} AS job,
      sum(x.hours) AS hours, sum(CASE WHEN x.pay IN ('overtime', 'double') THEN x.hours ELSE 0 END) AS overtime,
      sum(CASE WHEN x.status = 'posted' THEN 0 ELSE x.hours END) AS open
    FROM time_line x JOIN employee e ON e.id = x.employee_id LEFT JOIN job j ON j.id = x.job_id
    WHERE x.dated BETWEEN $1 AND $2 GROUP BY e.id, week, x.job_id ORDER BY e.name, week, job`,
);

/** Who works where by sheets that are not posted, from day `$1` on: the first and the last day of each. */
export const WORK_AHEAD = query(
  shape({
    name: t.text,
    job: t.text,
    jobName: t.text,
    section: t.text,
    first: t.day,
    last: t.day,
    hours: t.hours,
    sheets: t.text,
  }),
  `SELECT e.name, ${name('j.number')} AS job, ${name('j.name')} AS jobName, x.section, min(x.dated) AS first, max(x.dated) AS last,
      sum(x.hours) AS hours, group_concat(DISTINCT x.sheet ORDER BY x.sheet) AS sheets
    FROM time_line x JOIN employee e ON e.id = x.employee_id LEFT JOIN job j ON j.id = x.job_id
    WHERE x.status <> 'posted' AND x.dated >= $1 GROUP BY e.id, x.job_id, x.section ORDER BY e.name, first`,
);
