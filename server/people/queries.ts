import { JOB_ENDS } from '../../core/jobs/jobStatus';
import { shape, t } from '../db/fields';
import { query } from '../db/query';

const ENDED = ['closed', ...JOB_ENDS].map((it) => `'${it}'`).join(', ');

/** Jobs that still run and name `$1`: as manager, as estimator, on the team, or in the checklist. */
export const RUNNING_JOBS = query(
  shape({ number: t.text }),
  `SELECT number FROM job WHERE status NOT IN (${ENDED}) AND (manager = $1 OR estimator = $1
      OR EXISTS (SELECT 1 FROM job_person p WHERE p.job_id = job.id AND p.side = 'team' AND p.name = $1)
      OR EXISTS (SELECT 1 FROM job_check c WHERE c.job_id = job.id AND c.person = $1)) ORDER BY number`,
);

export const LAST_ACT = query(shape({ at: t.orNull(t.moment) }), 'SELECT max(at) AS at FROM audit WHERE actor = $1');

/** Columns of text that hold the name of one of our own people, by table. A test holds the list against the schema. */
export const NAMING = {
  person: ['name'],
  user: ['name'],
  employee: ['name'],
  job: ['manager', 'estimator'],
  job_check: ['person'],
  job_draft: ['actor'],
  job_move: ['actor'],
  job_event: ['actor'],
  attachment: ['actor'],
  application: ['saved_by'],
  approval: ['asked_by', 'decided_by', 'decided_for'],
  reminder: ['reminded_by'],
  budget_transfer: ['actor'],
  change_order: ['saved_by'],
  closing: ['actor'],
  day_sheet: ['crew', 'written_by'],
  estimate: ['saved_by'],
  message: ['actor'],
  offer_question: ['answered_by'],
  payroll_run: ['handed_by'],
  posting: ['actor'],
  price_change: ['actor'],
  quotation: ['saved_by'],
  audit: ['actor'],
} as const satisfies Record<string, readonly string[]>;

/** `$1` becomes `$2` in every one of them. */
export const RENAME_EVERYWHERE = Object.entries(NAMING).flatMap(([table, columns]) =>
  columns.map((column) => `UPDATE ${table} SET ${column} = $2 WHERE ${column} = $1`),
);

/** On teams, with what is known of the person beside the name. */
export const RENAME_ON_TEAMS = `UPDATE job_person SET name = $2, email = '', phone = '' WHERE side = 'team' AND name = $1`;

/** In what the audit trail noted: as a value of its own, and as the subject. `$1` becomes `$2`. */
export const RENAME_IN_AUDIT = [
  `UPDATE audit SET detail = replace(detail, json_quote($1), json_quote($2)) WHERE instr(detail, json_quote($1)) > 0`,
  `UPDATE audit SET subject = 'user ' || $2 WHERE subject = 'user ' || $1`,
];

/** Replies remembered against a request's being sent twice, where they hold the name. */
export const FORGET_REPLIES = 'DELETE FROM handled_request WHERE instr(reply, $1) > 0';

export const LARGEST_FORMER = query(
  shape({ count: t.whole }),
  `SELECT count(*) AS count FROM (SELECT name FROM person UNION SELECT name FROM user UNION SELECT actor FROM audit)
    WHERE name LIKE 'Former employee %'`,
);

/** All that is saved of a person named `$1`, part by part, as the person gets it; no secrets, and nothing of others. */
export const PERSONAL_DATA: Readonly<Record<string, string>> = {
  person: 'SELECT name, role, email, phone, closed FROM person WHERE name = $1',
  user: `SELECT name, email, role, all_jobs, closed, created_at, second_factor <> '' AS has_second_factor FROM user WHERE name = $1`,
  sessions: `SELECT s.began_at, s.seen_at, s.from_where FROM session s JOIN user u ON u.id = s.user_id WHERE u.name = $1 ORDER BY s.began_at`,
  employee: 'SELECT code, name, wage_class, starts_on, ends_on, payroll_number FROM employee WHERE name = $1',
  time: `SELECT x.sheet, x.line, x.dated, x.hours, x.units, x.pay, x.pay_amount FROM time_line x JOIN employee e ON e.id = x.employee_id WHERE e.name = $1 ORDER BY x.dated, x.id`,
  absences: `SELECT a.from_day, a.to_day FROM absence a JOIN user u ON u.id = a.user_id WHERE u.name = $1 ORDER BY a.from_day`,
  jobs: `SELECT number, name, manager = $1 AS as_manager, estimator = $1 AS as_estimator FROM job WHERE manager = $1 OR estimator = $1 ORDER BY number`,
  teams: `SELECT j.number AS job, p.role, p.email, p.phone FROM job_person p JOIN job j ON j.id = p.job_id WHERE p.side = 'team' AND p.name = $1 ORDER BY 1`,
  checklists: `SELECT j.number AS job, c.item, c.due_on, c.done_on FROM job_check c JOIN job j ON j.id = c.job_id WHERE c.person = $1 ORDER BY 1, 2`,
  log: `SELECT j.number AS job, e.kind, e.dated, e.text, e.recorded_at FROM job_event e JOIN job j ON j.id = e.job_id WHERE e.actor = $1 ORDER BY e.recorded_at`,
  attachments: `SELECT j.number AS job, a.name, a.added_at FROM attachment a JOIN job j ON j.id = a.job_id WHERE a.actor = $1 ORDER BY a.added_at`,
  reminders: `SELECT r.week, e.name AS hours_of, u.name AS user, r.reminded_by, r.reminded_at FROM reminder r JOIN employee e ON e.id = r.employee_id
    JOIN user u ON u.id = r.user_id WHERE $1 IN (e.name, u.name, r.reminded_by) ORDER BY r.reminded_at`,
  approvals: `SELECT id, kind, amount, state, asked_by = $1 AS asked, decided_by = $1 AS decided, asked_at, decided_at FROM approval WHERE $1 IN (asked_by, decided_by, decided_for) ORDER BY id`,
  postings: 'SELECT id AS document, kind, reference, posted_on, recorded_at FROM posting WHERE actor = $1 ORDER BY id',
  audit: 'SELECT at, command, subject, detail FROM audit WHERE actor = $1 ORDER BY id',
};
