import { TYPED_COST } from '../costs/queries';
import type { RevenueMethod } from '../../core/progress/workInProgress';
import { JobTable } from './models';
import { query } from '../db/query';
import { shape, t, listed, pick } from '../db/fields';

export const JOB_BY_NUMBER = query(
  shape({
    id: t.whole,
    number: t.text,
    name: t.text,
    status: t.text,
    awarded_on: t.orNull(t.day),
    finished_on: t.orNull(t.day),
    locked: t.flag,
  }),
  'SELECT id, number, name, status, awarded_on, finished_on, locked FROM job WHERE number = $1',
);

/** Drafts of jobs: all, or those that `$1` typed. */
export const DRAFTS = query(
  shape({ id: t.whole, content: t.text, saved_at: t.moment }),
  'SELECT id, content, saved_at FROM job_draft WHERE $1 IS NULL OR actor = $1 ORDER BY saved_at DESC',
);

export const ORIGINAL_SOV_LINES = query(
  shape({
    line: t.text,
    section: t.text,
    description: t.text,
    scheduledValue: t.cents,
    quantity: t.orNull(t.quantity),
    unit: t.text,
    retentionRate: t.orNull(t.rate),
  }),
  `SELECT line, section, description, scheduled_value AS scheduledValue, quantity, unit, retention_rate AS retentionRate
        FROM sov_line WHERE job_id = $1 AND original = 1 ORDER BY position`,
);

export const ORIGINAL_BUDGET = query(
  shape(TYPED_COST),
  `SELECT l.section, c.code AS costCode, l.cost_type AS costType, coalesce(s.line, '') AS sovLine, b.description, b.quantity, b.unit, b.hours, b.amount
        FROM budget_line b JOIN cost_line l ON l.id = b.cost_line_id JOIN cost_code c ON c.id = l.cost_code_id LEFT JOIN sov_line s ON s.id = b.sov_line_id
        WHERE l.job_id = $1 ORDER BY b.id`,
);

export const TEMPLATES = query(shape({ name: t.text, content: t.text }), 'SELECT name, content FROM job_template ORDER BY name');

export const ESTIMATE_TO_AWARD = query(
  shape({ number: t.whole, status: t.text, acceptedBy: t.orNull(t.text) }),
  `SELECT number, status, (SELECT answered_by FROM quotation WHERE estimate_id = estimate.id AND status = 'accepted' ORDER BY number DESC) AS acceptedBy
        FROM estimate WHERE job_id = $1 AND chosen = 1`,
);

export const CHANGE_ORDERS = query(
  shape({
    number: t.text,
    title: t.text,
    status: t.text,
    raisedOn: t.day,
    decidedOn: t.orNull(t.day),
    price: t.cents,
    cost: t.cents,
  }),
  `SELECT o.number, o.title, CASE WHEN o.decided_on > $2 THEN 'issued' ELSE o.status END AS status, o.raised_on AS raisedOn, CASE WHEN o.decided_on > $2 THEN NULL ELSE o.decided_on END AS decidedOn,
      coalesce(sum(CASE WHEN l.side = 'price' THEN l.amount END), 0) AS price, coalesce(sum(CASE WHEN l.side = 'cost' THEN l.amount END), 0) AS cost
      FROM change_order o LEFT JOIN change_order_line l ON l.change_order_id = o.id WHERE o.job_id = $1 AND o.raised_on <= $2 GROUP BY o.id ORDER BY o.raised_on, o.id`,
);

export const COST_BY_MONTH = query(
  shape({ month: t.month, amount: t.cents }),
  'SELECT substr(posted_on, 1, 7) AS month, sum(amount) AS amount FROM cost_entry WHERE job_id = $1 AND posted_on <= $2 GROUP BY 1',
);

export const CERTIFIED_BY_MONTH = query(
  shape({ month: t.month, gross: t.cents }),
  `SELECT substr(certified_on, 1, 7) AS month, gross FROM certified_application WHERE job_id = $1 AND certified_on <= $2 ORDER BY number`,
);

export const ORIGINAL_BUDGET_SUM = query(
  shape({ amount: t.orNull(t.cents) }),
  'SELECT sum(b.amount) AS amount FROM budget_line b JOIN cost_line l ON l.id = b.cost_line_id WHERE l.job_id = $1',
);

export const WHAT_IS_THERE = query(
  shape({
    number: t.text,
    lines: t.whole,
    sum: t.cents,
    budget: t.cents,
    retention: t.flag,
    none: t.flag,
    terms: t.orNull(t.whole),
  }),
  `SELECT job.number, (SELECT count(*) FROM sov_line WHERE job_id = job.id AND original = 1) AS lines,
      (SELECT coalesce(sum(scheduled_value), 0) FROM sov_line WHERE job_id = job.id) AS sum,
      (SELECT coalesce(sum(b.amount), 0) FROM budget_line b JOIN cost_line l ON l.id = b.cost_line_id WHERE l.job_id = job.id) AS budget,
      (job.retention_rate > 0 OR coalesce(job.retention_step_to, 0) > 0 OR EXISTS (SELECT 1 FROM sov_line WHERE job_id = job.id AND retention_rate > 0)) AS retention,
      job.no_retention AS none, coalesce(job.terms_days, c.terms_days) AS terms
      FROM job JOIN client c ON c.id = job.client_id WHERE job.id = $1`,
);

const FACTS = pick(
  JobTable,
  ...(['contract_reference', 'site', 'awarded_on', 'starts_on', 'finishes_on', 'finished_on'] as const),
  ...(['revenue_method', 'tax_rate', 'terms_days'] as const),
);
const FactRow = shape({ ...FACTS.fields, client_terms: t.orNull(t.whole) });

export const JOB_FACTS = query(
  FactRow,
  `SELECT ${listed(FACTS, 'job')}, c.terms_days AS client_terms FROM job JOIN client c ON c.id = job.client_id WHERE job.id = $1`,
);

const FigureRow = shape({
  id: t.whole,
  number: t.text,
  name: t.text,
  client: t.text,
  client_name: t.text,
  manager: t.text,
  status: t.text,
  locked: t.flag,
  restricted: t.flag,
  awarded_on: t.orNull(t.day),
  finished_on: t.orNull(t.day),
  revenue_method: t.oneOf<RevenueMethod>(),
  contract_sum: t.cents,
  billed: t.cents,
  applied: t.cents,
  uninstalled: t.cents,
  received: t.cents,
  pending: t.cents,
  tax_rate: t.rate,
});

/** Each job's figures as of `$1` that need no cost line, in one pass; of one job or of all. */
export const jobFigures = (jobId: number | null) =>
  query(
    FigureRow,
    `SELECT job.id, job.number, job.name, c.code AS client, c.name AS client_name, job.manager, job.status, job.locked, job.restricted, job.awarded_on, job.finished_on, job.revenue_method, job.tax_rate,
  coalesce((SELECT sum(scheduled_value) FROM sov_line WHERE job_id = job.id), 0)
    + coalesce((SELECT sum(amount) FROM approved_change_line WHERE job_id = job.id AND side = 'price' AND decided_on <= $1), 0) AS contract_sum,
  coalesce((SELECT sum(l.amount) FROM change_order o JOIN change_order_line l ON l.change_order_id = o.id
        WHERE o.job_id = job.id AND l.side = 'price' AND o.raised_on <= $1 AND (o.status IN ('draft', 'issued') OR o.decided_on > $1)), 0) AS pending,
  coalesce((SELECT gross FROM certified_application WHERE job_id = job.id AND certified_on <= $1 ORDER BY number DESC LIMIT 1), 0) AS billed,
  coalesce((SELECT sum(work) FROM application_line WHERE application_id =
    (SELECT id FROM application WHERE job_id = job.id AND status <> 'draft' AND dated <= $1 ORDER BY number DESC LIMIT 1)), 0) AS applied,
  coalesce((SELECT sum(amount) FROM cost_entry WHERE job_id = job.id AND uninstalled = 1 AND posted_on <= $1), 0)
    - coalesce((SELECT sum(i.amount) FROM installation i JOIN cost_entry e ON e.id = i.cost_entry_id
        WHERE i.job_id = job.id AND i.undone_at IS NULL AND i.installed_on <= $1 AND e.posted_on <= $1), 0) AS uninstalled,
  coalesce((SELECT sum(amount) FROM receipt WHERE job_id = job.id AND dated <= $1), 0) AS received
  FROM job JOIN client c ON c.id = job.client_id ${jobId === null ? '' : `WHERE job.id = ${Number(jobId)}`} ORDER BY job.number`,
  );

const isThere = (table: string, where = 'job_id = $1') =>
  query(shape({ used: t.flag }), `SELECT 1 AS used FROM ${table} WHERE ${where} LIMIT 1`);
const OF_COST_LINES = 'cost_line_id IN (SELECT id FROM cost_line WHERE job_id = $1)';

/** What may have happened on a job, and whether it has. */
export const HISTORY = [
  ['posted cost', isThere('cost_entry')],
  ['applications', isThere('application')],
  ['change orders', isThere('change_order')],
  ['commitments', isThere('commitment_line', OF_COST_LINES)],
  ['forecasts', isThere('forecast', OF_COST_LINES)],
  ['budget transfers', isThere('budget_transfer')],
  ['postings sent to the client', isThere('offer')],
  ['estimates that were sent', isThere('estimate', `status <> 'draft' AND job_id = $1`)],
  ['attachments', isThere('attachment')],
  ['noted events', isThere('job_event')],
  ['time', isThere('time_line')],
  ['day sheets', isThere('day_sheet')],
  ['pay rates of its own', isThere('pay_rate')],
  ['burdens of its own', isThere('burden')],
  ['pay codes of its own', isThere('pay_code')],
  ['approvals', isThere('approval')],
] as const;

/** What freezes the original schedule and budget of a job, and whether it has happened. */
export const FROZEN_BY = [
  ['cost is posted to it', isThere('cost_entry')],
  ['it was applied for payment', isThere('application')],
  ['a change order was approved', isThere('approved_change_line')],
  ['budget was transferred', isThere('budget_transfer')],
  ['it was awarded from an estimate', isThere('estimate', `status = 'accepted' AND job_id = $1`)],
] as const;

/** Whether anything is posted to a job. */
export const ANY_POSTING = query(
  shape({ id: t.whole }),
  'SELECT id FROM posting WHERE job_id = $1 OR id IN (SELECT posting_id FROM cost_entry WHERE job_id = $1) LIMIT 1',
);

/** SOV lines of a job that change orders name, with one of them. */
export const SOV_LINES_IN_CHANGES = query(
  shape({ line: t.text, original: t.flag, changes: t.text }),
  `SELECT s.line, s.original, min(o.number) AS changes FROM change_order_line l JOIN sov_line s ON s.id = l.sov_line_id
    JOIN change_order o ON o.id = l.change_order_id WHERE s.job_id = $1 GROUP BY s.id`,
);

/** Takes out cost lines of a job that nothing refers to any more. */
export const UNUSED_COST_LINES = `DELETE FROM cost_line WHERE job_id = $1 AND ${[
  'budget_line',
  'commitment_line',
  'cost_entry',
  'forecast',
  'change_order_line',
  'budget_transfer_line',
]
  .map((table) => `NOT EXISTS (SELECT 1 FROM ${table} r WHERE r.cost_line_id = cost_line.id)`)
  .join(' AND ')}`;

/** Takes out a job nothing ever happened on, with what was set up for it. */
export const DELETE_JOB = [
  'DELETE FROM quotation WHERE job_id = $1',
  `DELETE FROM budget_line WHERE ${OF_COST_LINES}`,
  'DELETE FROM estimate WHERE job_id = $1',
  'DELETE FROM cost_line WHERE job_id = $1',
  'DELETE FROM sov_line WHERE job_id = $1',
  'DELETE FROM job WHERE id = $1',
];

/** Restricted jobs among those whose ids `$1` lists, on whose team `$2` is not. */
export const RESTRICTED_TO_OTHERS = query(
  shape({ number: t.text }),
  `SELECT number FROM job WHERE id IN (SELECT value FROM json_each($1)) AND restricted = 1 AND manager <> $2
    AND NOT EXISTS (SELECT 1 FROM job_person p WHERE p.job_id = job.id AND p.side = 'team' AND p.name = $2) ORDER BY number`,
);
