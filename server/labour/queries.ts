import { PAY_CLASSES } from '../../core/labour/payClass';
import { type WEEKDAYS } from '../../core/labour/overtime';
import { shape, t } from '../db/fields';
import { query } from '../db/query';

const name = (column: string) => `coalesce(${column}, '')`;

export const PAY_RATES = query(
  shape({
    ...{ from: t.day, job: t.text, section: t.text, workKind: t.text, wageClass: t.text, employee: t.text },
    ...{ rate: t.unitCost, atLeast: t.flag },
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
    ...{ burden: t.text, from: t.day, to: t.orNull(t.day), job: t.text, wageClass: t.text },
    ...{ percent: t.rate, perHour: t.unitCost, onPremium: t.flag },
  }),
  `SELECT b.code AS burden, b.from_day AS "from", b.to_day AS "to", ${name('j.number')} AS job, b.wage_class AS wageClass, b.percent,
      b.per_hour AS perHour, b.on_premium AS onPremium FROM burden b LEFT JOIN job j ON j.id = b.job_id`,
);

export const OVERTIME_RULES = query(
  shape({
    ...{ from: t.day, dailyAfter: t.orNull(t.hours), doubleAfter: t.orNull(t.hours), weeklyAfter: t.orNull(t.hours) },
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
      ...{ id: t.whole, sheet: t.text, line: t.text, employee: t.text, employeeClass: t.text, dated: t.day, job: t.text },
      ...{ section: t.text, costCode: t.text, workKind: t.text, wageClass: t.text, pay: t.oneOf(...PAY_CLASSES), hours: t.hours },
      ...{ units: t.orNull(t.quantity), rate: t.unitCost, rung: t.text, payAmount: t.cents, burden: t.cents, split: t.flag },
      ...{ reverses: t.orNull(t.whole), reversedBy: t.orNull(t.whole) },
    }),
    `SELECT x.id, x.sheet, x.line, e.code AS employee, e.wage_class AS employeeClass, x.dated, ${name('j.number')} AS job, x.section,
        ${name('c.code')} AS costCode, ${name('k.code')} AS workKind, x.wage_class AS wageClass, x.pay, x.hours, x.units, x.rate, x.rung,
        x.pay_amount AS payAmount, x.burden, x.split, x.reverses_id AS reverses,
        (SELECT r.id FROM time_line r WHERE r.reverses_id = x.id) AS reversedBy
      FROM time_line x JOIN employee e ON e.id = x.employee_id LEFT JOIN job j ON j.id = x.job_id
      LEFT JOIN cost_code c ON c.id = x.cost_code_id LEFT JOIN work_kind k ON k.id = x.work_kind_id
      WHERE x.status = 'posted' AND ${where}`,
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
  shape({ id: t.whole, first: t.day, last: t.day, postedByClass: t.whole }),
  `SELECT employee_id AS id, min(dated) AS first, max(dated) AS last, sum(status = 'posted' AND wage_class = '') AS postedByClass
    FROM time_line GROUP BY employee_id`,
);

/** What uses employees and kinds of work, by id. */
const used = (column: 'employee_id' | 'work_kind_id', tables: readonly string[]) =>
  query(
    shape({ id: t.whole, uses: t.whole }),
    `SELECT id, count(*) AS uses FROM (${tables.map((it) => `SELECT ${column} AS id FROM ${it}`).join(' UNION ALL ')})
      WHERE id IS NOT NULL GROUP BY id`,
  );
export const EMPLOYEE_USES = used('employee_id', ['time_line', 'pay_rate']);
export const WORK_KIND_USES = used('work_kind_id', ['time_line', 'pay_rate', 'piece_rate', 'pay_code']);
