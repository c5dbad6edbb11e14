import { CHARGE_MARKS } from '../../core/charging/chargeMark';
import { PAY_CLASSES } from '../../core/labour/payClass';
import { shape, t } from '../db/fields';
import { query } from '../db/query';

const name = (column: string) => `coalesce(${column}, '')`;

/** Lines of time as their sheet shows them. */
const LINES = (where: string) =>
  query(
    shape({
      id: t.whole,
      sheet: t.text,
      line: t.text,
      employee: t.text,
      name: t.text,
      dated: t.day,
      postedOn: t.day,
      jobId: t.orNull(t.whole),
      job: t.text,
      section: t.text,
      costCodeId: t.orNull(t.whole),
      costCode: t.text,
      workKindId: t.orNull(t.whole),
      departmentId: t.orNull(t.whole),
      department: t.text,
      workKind: t.text,
      employeeId: t.whole,
      employeeClass: t.text,
      wageClass: t.text,
      pay: t.orNull(t.oneOf(...PAY_CLASSES)),
      hours: t.hours,
      units: t.orNull(t.quantity),
      description: t.text,
      clock: t.text,
      status: t.oneOf('submitted', 'approved', 'posted'),
      returned: t.text,
      reverses: t.orNull(t.text),
      reversedBy: t.orNull(t.text),
      split: t.flag,
      charge: t.oneOf('', ...CHARGE_MARKS),
      chargeFrom: t.orNull(t.day),
      chargeMarkup: t.orNull(t.rate),
    }),
    `SELECT x.id, x.sheet, x.line, e.code AS employee, e.name, x.dated, x.posted_on AS postedOn, x.job_id AS jobId,
        ${name('j.number')} AS job, x.section, x.cost_code_id AS costCodeId, ${name('c.code')} AS costCode,
        x.department_id AS departmentId, ${name('dp.code')} AS department, x.work_kind_id AS workKindId, ${name('k.code')} AS workKind, x.employee_id AS employeeId, e.wage_class AS employeeClass,
        x.wage_class AS wageClass, x.pay, x.hours, x.units, x.description, x.clock, x.status, x.returned, x.split,
        x.charge, x.charge_from AS chargeFrom, x.charge_markup AS chargeMarkup,
        (SELECT r.sheet || '/' || r.line || '/' || r.pay FROM time_line r WHERE r.id = x.reverses_id) AS reverses,
        (SELECT r.sheet || '/' || r.line || '/' || r.pay FROM time_line r WHERE r.reverses_id = x.id) AS reversedBy
      FROM time_line x JOIN employee e ON e.id = x.employee_id LEFT JOIN job j ON j.id = x.job_id
      LEFT JOIN cost_code c ON c.id = x.cost_code_id LEFT JOIN work_kind k ON k.id = x.work_kind_id
      LEFT JOIN department dp ON dp.id = x.department_id WHERE ${where}`,
  );

export const LINES_OF_SHEET = LINES('x.sheet = $1');
/** Worked from day `$1` to day `$2`. */
export const LINES_OF_DAYS = LINES('x.dated BETWEEN $1 AND $2');
/** Of weeks before day `$1`, not posted. */
export const OPEN_LINES_BEFORE = LINES(`x.dated < $1 AND x.status <> 'posted'`);
export const APPROVED_LINES = LINES(`x.status = 'approved'`);
/** Approved lines of the sheets whose names are in the JSON list `$1`. */
export const APPROVED_OF_SHEETS = LINES(`x.status = 'approved' AND x.sheet IN (SELECT value FROM json_each($1))`);

/** Hours of everybody from day `$1` to day `$2`, whatever the job: somebody of a team sees how long a day was, and where only of jobs of the team. */
export const HOURS_OF_DAYS = query(
  shape({
    id: t.whole,
    sheet: t.text,
    line: t.text,
    employee: t.text,
    dated: t.day,
    pay: t.orNull(t.oneOf(...PAY_CLASSES)),
    hours: t.hours,
    posted: t.flag,
    hasUnits: t.flag,
    job: t.orNull(t.text),
    section: t.text,
    costCode: t.text,
  }),
  `SELECT x.id, x.sheet, x.line, e.code AS employee, x.dated, x.pay, x.hours, x.status = 'posted' AS posted, x.units IS NOT NULL AS hasUnits,
      CASE WHEN x.job_id IS NULL THEN '' ELSE j.number END AS job, CASE WHEN j.id IS NULL THEN '' ELSE x.section END AS section,
      CASE WHEN j.id IS NULL THEN '' ELSE coalesce(c.code, '') END AS costCode
    FROM main.time_line x JOIN main.employee e ON e.id = x.employee_id LEFT JOIN job j ON j.id = x.job_id
    LEFT JOIN cost_code c ON c.id = x.cost_code_id WHERE x.dated BETWEEN $1 AND $2`,
);

/** Hours of the tasks of job `$1` that are entered and not posted, by sheet. */
export const WAITING_HOURS = query(
  shape({ sheet: t.text, section: t.text, costCode: t.text, hours: t.hours }),
  `SELECT x.sheet, x.section, c.code AS costCode, sum(x.hours) AS hours FROM time_line x JOIN cost_code c ON c.id = x.cost_code_id
    WHERE x.job_id = $1 AND x.status <> 'posted' GROUP BY x.sheet, x.section, x.cost_code_id`,
);

/** What was worked on from day `$1` to day `$2`, by employee, the newest first: of jobs whoever asks sees. */
export const TASKS_OF_DAYS = query(
  shape({ employee: t.text, job: t.text, section: t.text, costCode: t.text }),
  `SELECT e.code AS employee, j.number AS job, x.section, c.code AS costCode
    FROM time_line x JOIN employee e ON e.id = x.employee_id JOIN job j ON j.id = x.job_id JOIN cost_code c ON c.id = x.cost_code_id
    WHERE x.dated BETWEEN $1 AND $2 GROUP BY x.employee_id, x.job_id, x.section, x.cost_code_id HAVING sum(x.hours) > 0
    ORDER BY max(x.dated) DESC, sum(x.hours) DESC, 1, 2, 3, 4`,
);

/** Employees on the team of a job, by their names. */
export const EMPLOYEES_OF_TEAMS = query(
  shape({ employee: t.text, job: t.text }),
  `SELECT e.code AS employee, j.number AS job FROM job_person p JOIN employee e ON e.name = p.name JOIN job j ON j.id = p.job_id
    WHERE p.side = 'team' GROUP BY 1, 2 ORDER BY 1, 2`,
);

/**
 * Who of the users hands in the hours of each employee that the JSON list `$1` has by code: the employee themselves, else whoever saved the
 * last sheet or day sheet with hours of theirs. Null: nobody.
 */
export const WHO_HANDS_IN = query(
  shape({ employeeId: t.whole, employee: t.text, name: t.text, userId: t.orNull(t.whole), user: t.orNull(t.text) }),
  `SELECT e.id AS employeeId, e.code AS employee, e.name, u.id AS userId, u.name AS user
    FROM json_each($1) given JOIN employee e ON e.code = given.value
    LEFT JOIN user u ON u.closed = 0 AND u.name = coalesce(
      (SELECT name FROM user WHERE closed = 0 AND name = e.name),
      (SELECT a.actor FROM audit a WHERE a.subject = 'week sheet ' || (SELECT x.sheet FROM main.time_line x WHERE x.employee_id = e.id
          ORDER BY x.dated DESC, x.id DESC LIMIT 1)
        AND a.command IN ('add-sheet', 'save-sheet', 'post-hours') ORDER BY a.id DESC LIMIT 1),
      (SELECT d.written_by FROM main.day_sheet d JOIN main.time_line x ON x.sheet = d.sheet AND x.dated = d.dated AND x.job_id = d.job_id
        WHERE x.employee_id = e.id ORDER BY d.dated DESC LIMIT 1))
    ORDER BY e.name, e.id`,
);

/** Who was reminded of whose hours of week `$1`, and when. */
export const REMINDERS_OF_WEEK = query(
  shape({ employee: t.text, user: t.text, at: t.moment }),
  `SELECT e.code AS employee, u.name AS user, r.reminded_at AS at FROM reminder r JOIN employee e ON e.id = r.employee_id
    JOIN user u ON u.id = r.user_id WHERE r.week = $1`,
);

/** Weeks whose hours user `$1` was reminded of, as long as they are missing; by their name. */
export const WEEKS_REMINDED = query(
  shape({ document: t.day, people: t.text, since: t.day }),
  `SELECT r.week AS document, group_concat(DISTINCT e.name ORDER BY e.name) AS people, substr(min(r.reminded_at), 1, 10) AS since
    FROM reminder r JOIN employee e ON e.id = r.employee_id JOIN user u ON u.id = r.user_id
    WHERE u.name = $1 AND NOT EXISTS (SELECT 1 FROM main.time_line x WHERE x.employee_id = e.id AND x.dated BETWEEN r.week AND date(r.week, '+6 days'))
    GROUP BY r.week ORDER BY r.week`,
);

/** Names of sheets that are whole numbers: the next one follows them. */
export const LAST_SHEET = query(
  shape({ last: t.whole }),
  `SELECT coalesce(max(last), 0) AS last FROM (
      SELECT max(CAST(sheet AS INTEGER)) AS last FROM main.time_line WHERE sheet NOT GLOB '*[^0-9]*' AND length(sheet) < 16
      UNION ALL SELECT max(CAST(substr(subject, 12) AS INTEGER)) FROM audit
        WHERE subject > 'week sheet ' AND subject < 'week sheet!' AND substr(subject, 12) NOT GLOB '*[^0-9]*' AND length(subject) < 27)`,
);

export const JOBS_FOR_TIME = query(
  shape({ id: t.id, number: t.text, name: t.text, status: t.text, locked: t.flag, workKind: t.text, sections: t.text }),
  `SELECT j.id, j.number, j.name, j.status, j.locked, coalesce((SELECT code FROM work_kind WHERE id = j.work_kind_id), '') AS workKind,
      (SELECT json_group_array(section) FROM (SELECT section FROM cost_line l WHERE l.job_id = j.id
        UNION SELECT section FROM sov_line s WHERE s.job_id = j.id ORDER BY 1) WHERE section <> '') AS sections
    FROM job j ORDER BY j.number`,
);

export const CODES_FOR_TIME = query(
  shape({ code: t.text, description: t.text }),
  'SELECT code, description FROM cost_code WHERE closed = 0 ORDER BY code',
);

export const DELETE_LINES = 'DELETE FROM time_line WHERE id IN (SELECT value FROM json_each($1))';

/** What posting says of lines that are there, one array a line in `$1`: nothing else of them is touched. */
export const POST_LINES = `UPDATE time_line SET posted_on = v.posted_on, pay = v.pay, hours = v.hours, split = v.split, status = 'posted',
    posting_id = v.posting_id, rate = v.rate, rung = v.rung, pay_amount = v.pay_amount, burden = v.burden, returned = ''
  FROM (SELECT value->>0 AS id, value->>1 AS posted_on, value->>2 AS pay, value->>3 AS hours, value->>4 AS split, value->>5 AS posting_id,
      value->>6 AS rate, value->>7 AS rung, value->>8 AS pay_amount, value->>9 AS burden FROM json_each($1)) v
  WHERE time_line.id = v.id`;
