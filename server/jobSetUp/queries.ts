import { isThere } from '../jobs/queries';
import { shape, t } from '../db/fields';
import { query } from '../db/query';
import { TYPED_COST } from '../costs/queries';

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

/** The job of client `$1` that was awarded last, or begun last where none was; of those whoever reads may see. */
export const LAST_JOB_OF_CLIENT = query(
  shape({ id: t.whole }),
  `SELECT job.id FROM job JOIN client c ON c.id = job.client_id WHERE c.code = $1 AND job.status <> 'cancelled'
    ORDER BY job.awarded_on IS NULL, job.awarded_on DESC, job.id DESC LIMIT 1`,
);

export const TEMPLATES = query(shape({ name: t.text, content: t.text }), 'SELECT name, content FROM job_template ORDER BY name');

/** What freezes the original schedule and budget of a job, and whether it has happened. */
export const FROZEN_BY = [
  ['it was applied for payment', isThere('application')],
  ['a change order was approved', isThere('approved_change_line')],
  ['budget was transferred', isThere('budget_transfer')],
  ['it was awarded from an estimate', isThere('estimate', `status = 'accepted' AND job_id = $1`)],
] as const;

/** An entry of job `$1` on or before `$2`. */
export const COST_BY = query(
  shape({ found: t.whole }),
  'SELECT 1 AS found FROM cost_entry WHERE job_id = $1 AND posted_on <= $2 LIMIT 1',
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
