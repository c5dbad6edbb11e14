import { PRICINGS } from '../../core/charging/pricing';
import { query } from '../db/query';
import { shape, t } from '../db/fields';

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

export const WHAT_IS_THERE = query(
  shape({
    number: t.text,
    lines: t.whole,
    sum: t.cents,
    budget: t.cents,
    retention: t.flag,
    none: t.flag,
    terms: t.orNull(t.whole),
    pricing: t.oneOf(...PRICINGS),
  }),
  `SELECT job.number, job.pricing, (SELECT count(*) FROM sov_line WHERE job_id = job.id AND original = 1) AS lines,
      (SELECT coalesce(sum(scheduled_value), 0) FROM sov_line WHERE job_id = job.id) AS sum,
      (SELECT coalesce(sum(b.amount), 0) FROM budget_line b JOIN cost_line l ON l.id = b.cost_line_id WHERE l.job_id = job.id) AS budget,
      (job.retention_rate > 0 OR coalesce(job.retention_step_to, 0) > 0 OR EXISTS (SELECT 1 FROM sov_line WHERE job_id = job.id AND retention_rate > 0)) AS retention,
      job.no_retention AS none, coalesce(job.terms_days, c.terms_days) AS terms
      FROM job JOIN client c ON c.id = job.client_id WHERE job.id = $1`,
);

/** Whether a table has a row of job `$1`. */
export const isThere = (table: string, where = 'job_id = $1') =>
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
  ['approvals', isThere('approval')],
] as const;

/** Whether anything is posted to a job. */
export const ANY_POSTING = query(
  shape({ id: t.whole }),
  'SELECT id FROM posting WHERE job_id = $1 OR id IN (SELECT posting_id FROM cost_entry WHERE job_id = $1) LIMIT 1',
);

/** Takes out a job nothing ever happened on, with what was set up for it. */
export const DELETE_JOB = [
  'DELETE FROM quotation WHERE job_id = $1',
  `DELETE FROM budget_line WHERE ${OF_COST_LINES}`,
  'DELETE FROM estimate WHERE job_id = $1',
  'DELETE FROM cost_line WHERE job_id = $1',
  'DELETE FROM sov_line WHERE job_id = $1',
  'DELETE FROM pay_code WHERE job_id = $1',
  'DELETE FROM job WHERE id = $1',
];

/** Restricted jobs among those whose ids `$1` lists, on whose team `$2` is not. */
export const RESTRICTED_TO_OTHERS = query(
  shape({ number: t.text }),
  `SELECT number FROM job WHERE id IN (SELECT value FROM json_each($1)) AND restricted = 1 AND manager <> $2
    AND NOT EXISTS (SELECT 1 FROM job_person p WHERE p.job_id = job.id AND p.side = 'team' AND p.name = $2) ORDER BY number`,
);
