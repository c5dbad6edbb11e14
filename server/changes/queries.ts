import { JOB_ENDS } from '../../core/jobs/jobStatus';
import { listOfTexts } from '../db/query';
import { TYPED_COST } from '../costs/queries';
import { query } from '../db/query';
import { shape, t } from '../db/fields';

export const JOB_OF_CHANGE = query(
  shape({ id: t.whole, finishes_on: t.orNull(t.day) }),
  'SELECT j.id, j.finishes_on FROM job j JOIN change_order o ON o.job_id = j.id WHERE o.id = $1',
);

export const PRICE_LINES = query(
  shape({
    quantity: t.orNull(t.quantity),
    line: t.text,
    section: t.text,
    description: t.text,
    unit: t.text,
    amount: t.cents,
    asked: t.orNull(t.cents),
    isNew: t.flag,
  }),
  `SELECT s.line, CASE WHEN l.section <> '' THEN l.section ELSE s.section END AS section, CASE WHEN l.description <> '' THEN l.description ELSE s.description END AS description,
      l.quantity, l.unit, l.amount, l.asked, s.original = 0 AS isNew FROM change_order_line l JOIN sov_line s ON s.id = l.sov_line_id
      WHERE l.change_order_id = $1 AND l.side = 'price' ORDER BY l.id`,
);

export const COST_LINES = query(
  shape(TYPED_COST),
  `SELECT k.section, c.code AS costCode, k.cost_type AS costType, coalesce(s.line, '') AS sovLine, l.description, l.quantity, l.unit, l.hours, l.amount
      FROM change_order_line l JOIN cost_line k ON k.id = l.cost_line_id JOIN cost_code c ON c.id = k.cost_code_id LEFT JOIN sov_line s ON s.id = l.sov_line_id
      WHERE l.change_order_id = $1 AND l.side = 'cost' ORDER BY l.id`,
);

export const DAYS_GRANTED = query(
  shape({ days: t.whole }),
  `SELECT coalesce(sum(days_granted), 0) AS days FROM change_order WHERE job_id = $1 AND status = 'approved' AND decided_on <= $2`,
);

export const COST_LINES_OF_CHANGES = query(
  shape({ change: t.whole, costLineId: t.whole, amount: t.cents }),
  `SELECT change_order_id AS change, cost_line_id AS costLineId, sum(amount) AS amount FROM change_order_line
      WHERE side = 'cost' AND change_order_id IN (SELECT value FROM json_each($1)) GROUP BY 1, 2 ORDER BY 1, 2`,
);

export const JOBS_BY_NUMBERS = query(
  shape({ id: t.whole }),
  'SELECT id FROM job WHERE number IN (SELECT value FROM json_each($1))',
);

export const TRANSFERS = query(
  shape({ number: t.whole, reason: t.text, dated: t.day, actor: t.text, lines: t.text }),
  `SELECT t.number, t.dated, t.reason, t.actor, (SELECT json_group_array(json_object('section', k.section, 'costCode', c.code, 'costType', k.cost_type,
        'amount', l.amount, 'hours', l.hours) ORDER BY l.id) FROM budget_transfer_line l JOIN cost_line k ON k.id = l.cost_line_id JOIN cost_code c ON c.id = k.cost_code_id
        WHERE l.transfer_id = t.id) AS lines
      FROM budget_transfer t WHERE t.job_id = $1 AND t.dated <= $2 ORDER BY t.dated DESC, t.number DESC`,
);

export const SOV_LINES_OF_JOB = query(shape({ id: t.whole, line: t.text }), 'SELECT id, line FROM sov_line WHERE job_id = $1');

export const LAST_POSITION = query(
  shape({ position: t.whole }),
  'SELECT coalesce(max(position), -1) AS position FROM sov_line WHERE job_id = $1',
);

export const APPLICATION_SINCE = query(
  shape({ number: t.whole, dated: t.day }),
  `SELECT number, dated FROM application WHERE job_id = $1 AND status <> 'draft' AND dated >= $2 ORDER BY number DESC LIMIT 1`,
);

export const PRICE_AMOUNTS = query(
  shape({ id: t.whole, amount: t.cents }),
  `SELECT id, amount FROM change_order_line WHERE change_order_id = $1 AND side = 'price' ORDER BY id`,
);

/** Changes with their totals; `$1` is the date: one decided after it was still open then. */
const SUMMARIES = `SELECT o.id, job.number AS job, job.name AS jobName, o.number, o.title, CASE WHEN o.decided_on > $1 THEN 'issued' ELSE o.status END AS status,
  o.raised_on AS raisedOn, o.issued_on AS issuedOn, CASE WHEN o.decided_on > $1 THEN NULL ELSE o.decided_on END AS decidedOn, o.reference, o.reason, o.asked_by AS askedBy,
  o.days_asked AS daysAsked, CASE WHEN o.decided_on > $1 THEN NULL ELSE o.days_granted END AS daysGranted,
  CASE WHEN o.decided_on > $1 THEN '' ELSE o.decided_by END AS decidedBy, CASE WHEN o.decided_on > $1 THEN '' ELSE o.decision END AS decision,
  o.version, o.saved_by AS savedBy, o.saved_at AS savedAt,
  coalesce((SELECT sum(coalesce(asked, amount)) FROM change_order_line WHERE change_order_id = o.id AND side = 'price'), 0) AS asked,
  coalesce((SELECT sum(CASE WHEN o.decided_on > $1 THEN coalesce(asked, amount) ELSE amount END) FROM change_order_line WHERE change_order_id = o.id AND side = 'price'), 0) AS price,
  coalesce((SELECT sum(amount) FROM change_order_line WHERE change_order_id = o.id AND side = 'cost'), 0) AS cost,
  coalesce((SELECT sum(hours) FROM change_order_line WHERE change_order_id = o.id AND side = 'cost'), 0) AS hours
  FROM change_order o JOIN job ON job.id = o.job_id`;

const SummaryRow = shape({
  job: t.text,
  jobName: t.text,
  number: t.text,
  title: t.text,
  status: t.text,
  raisedOn: t.day,
  issuedOn: t.orNull(t.day),
  decidedOn: t.orNull(t.day),
  reference: t.text,
  reason: t.text,
  askedBy: t.text,
  daysAsked: t.orNull(t.whole),
  daysGranted: t.orNull(t.whole),
  decidedBy: t.text,
  decision: t.text,
  asked: t.cents,
  price: t.cents,
  cost: t.cents,
  hours: t.hours,
  version: t.whole,
  savedBy: t.text,
  savedAt: t.moment,
  id: t.whole,
});

export const CHANGES_OF_JOB = query(
  SummaryRow,
  `${SUMMARIES} WHERE o.job_id = $2 AND o.raised_on <= $1 ORDER BY o.raised_on, o.id`,
);

export const CHANGE_BY_NUMBER = query(SummaryRow, `${SUMMARIES} WHERE o.job_id = $2 AND o.number = $3`);

export const CHANGE_REGISTER = query(
  SummaryRow,
  `${SUMMARIES} WHERE o.raised_on <= $1 AND job.status NOT IN ('tender', ${listOfTexts(JOB_ENDS)}) ORDER BY job.number, o.raised_on, o.id`,
);

/** Those of job `$1` that no original contract, change, application or budget names. */
export const DELETE_UNNAMED_SOV_LINES = `DELETE FROM sov_line WHERE job_id = $1 AND original = 0
      AND NOT EXISTS (SELECT 1 FROM change_order_line x WHERE x.sov_line_id = sov_line.id)
      AND NOT EXISTS (SELECT 1 FROM application_line x WHERE x.sov_line_id = sov_line.id)
      AND NOT EXISTS (SELECT 1 FROM budget_line x WHERE x.sov_line_id = sov_line.id)`;
