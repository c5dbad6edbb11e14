import { PRICINGS } from '../../core/charging/pricing';
import type { RevenueMethod } from '../../core/progress/workInProgress';
import { shape, t } from '../db/fields';
import { query } from '../db/query';

/** Rows come as one JSON text: one object per row would cost more than the query. */
const packed = (columns: string, from: string) =>
  query(shape({ rows: t.text }), `SELECT json_group_array(json_array(${columns})) AS rows FROM ${from}`);

const ofJob = (jobId: number | null, column = 'l.job_id') => (jobId === null ? '' : `AND ${column} = ${Number(jobId)}`);

/* Each of one job, or of all where that is null. */

/** Every cost line with its cost and hours to the end of month `$1`. */
export const lineTotals = (jobId: number | null) =>
  packed(
    `l.id, l.job_id, l.cost_type = 'labour', t.cost, t.hours`,
    `cost_line l LEFT JOIN cost_total t ON t.cost_line_id = l.id
      AND t.month = (SELECT max(x.month) FROM cost_total x WHERE x.cost_line_id = l.id AND x.month <= $1) WHERE 1 ${ofJob(jobId)}`,
  );

/** Cost and hours posted from `$1` to `$2`, by line. */
export const postedBetween = (jobId: number | null) =>
  packed(
    'cost_line_id, amount, hours',
    `(SELECT cost_line_id, sum(amount) AS amount, sum(coalesce(hours, 0)) AS hours FROM cost_entry
      WHERE posted_on BETWEEN $1 AND $2 ${ofJob(jobId, 'job_id')} GROUP BY cost_line_id)`,
  );

export const originalBudget = (jobId: number | null) =>
  packed(
    'id, amount, hours',
    `(SELECT b.cost_line_id AS id, sum(b.amount) AS amount, sum(coalesce(b.hours, 0)) AS hours FROM ${
      jobId === null ? 'budget_line b' : `budget_line b JOIN cost_line l ON l.id = b.cost_line_id WHERE 1 ${ofJob(jobId)}`
    } GROUP BY b.cost_line_id)`,
  );

/** Change orders approved and transfers made by `$1`. */
export const budgetChanges = (jobId: number | null) =>
  packed(
    'id, amount, hours, dated, transfer',
    `(SELECT c.cost_line_id AS id, c.amount, coalesce(c.hours, 0) AS hours, c.decided_on AS dated, 0 AS transfer
        FROM approved_change_line c JOIN cost_line l ON l.id = c.cost_line_id WHERE c.side = 'cost' AND c.decided_on <= $1 ${ofJob(jobId)}
      UNION ALL SELECT x.cost_line_id, x.amount, coalesce(x.hours, 0), t.dated, 1
        FROM budget_transfer_line x JOIN budget_transfer t ON t.id = x.transfer_id JOIN cost_line l ON l.id = x.cost_line_id WHERE t.dated <= $1 ${ofJob(jobId)})`,
  );

/** docs/rules.md §5, as of `$1`: max(0, committed − invoiced), each commitment line by itself; 0 once closed. */
export const openCommitments = (jobId: number | null) =>
  packed(
    'id, open',
    `(SELECT m.cost_line_id AS id, CASE WHEN m.closed_on <= $1 THEN 0 ELSE
        max(0, m.amount - coalesce((SELECT sum(e.amount) FROM cost_entry e WHERE e.commitment_line_id = m.id AND e.posted_on <= $1), 0)) END AS open
      FROM commitment_line m JOIN commitment c ON c.id = m.commitment_id JOIN cost_line l ON l.id = m.cost_line_id WHERE c.dated <= $1 ${ofJob(jobId)})`,
  );

/** The latest forecast of each line by `$1`. */
export const latestForecasts = (jobId: number | null) =>
  packed(
    'f.cost_line_id, f.method, f.value, f.as_of',
    `forecast f JOIN cost_line l ON l.id = f.cost_line_id
      WHERE f.as_of = (SELECT max(x.as_of) FROM forecast x WHERE x.cost_line_id = f.cost_line_id AND x.as_of <= $1) ${ofJob(jobId)}`,
  );

/** Of cost and hours, what is daywork by `$1`, by line; all cost of a charged job is what it is budgeted for. */
export const dayworkOfLines = (jobId: number | null) =>
  packed(
    'id, amount, hours',
    `(SELECT e.cost_line_id AS id, sum(e.amount) AS amount, sum(coalesce(e.hours, 0)) AS hours
      FROM charge_mark m JOIN job ON job.id = m.job_id JOIN cost_entry e ON e.id = m.cost_entry_id
      WHERE m.mark = 'yes' AND m.counts_from <= $1 AND job.pricing = 'fixed' ${ofJob(jobId, 'm.job_id')} GROUP BY e.cost_line_id)`,
  );

export const ANY_DAYWORK = query(
  shape({ id: t.whole }),
  `SELECT m.cost_entry_id AS id FROM charge_mark m JOIN job ON job.id = m.job_id WHERE m.mark = 'yes' AND job.pricing = 'fixed' LIMIT 1`,
);

/** What is daywork by `$2` of what lines stood at on a day of their own: `$1` lists `[line, day]`. */
export const DAYWORK_THEN = packed(
  'cost, hours',
  `(SELECT coalesce(sum(d.amount), 0) AS cost, coalesce(sum(d.hours), 0) AS hours FROM json_each($1) a
      LEFT JOIN (SELECT e.cost_line_id AS line, e.posted_on, sum(e.amount) AS amount, sum(coalesce(e.hours, 0)) AS hours
        FROM charge_mark m JOIN job ON job.id = m.job_id JOIN cost_entry e ON e.id = m.cost_entry_id
        WHERE m.mark = 'yes' AND m.counts_from <= $2 AND job.pricing = 'fixed' GROUP BY 1, 2) d
        ON d.line = a.value->>0 AND d.posted_on <= a.value->>1
      GROUP BY a.key ORDER BY a.key)`,
);

/**
 * Cost and hours of lines, each on a day of its own. `$1` lists `[line, last complete month]`; `$2` the part of a month after it, as
 * `[line, month, first day, last day]`.
 */
export const STOOD_THEN = packed(
  'cost, hours',
  `(SELECT coalesce(t.cost, 0) + coalesce(p.cost, 0) AS cost, coalesce(t.hours, 0) + coalesce(p.hours, 0) AS hours, a.key
      FROM json_each($1) a
      LEFT JOIN cost_total t ON t.cost_line_id = a.value->>0 AND t.month = (SELECT max(x.month) FROM cost_total x WHERE x.cost_line_id = a.value->>0 AND x.month <= a.value->>1)
      LEFT JOIN (SELECT b.key AS key, sum(e.amount) AS cost, sum(coalesce(e.hours, 0)) AS hours FROM json_each($2) b
        JOIN cost_line l ON l.id = b.value->>0 JOIN cost_entry e ON e.job_id = l.job_id AND e.posted_on BETWEEN b.value->>2 AND b.value->>3 AND e.cost_line_id = l.id
        GROUP BY b.key) p ON p.key = a.key
      ORDER BY a.key)`,
);

/** That entry `e` is not charged as daywork by `$1`. */
const NOT_DAYWORK = `NOT EXISTS (SELECT 1 FROM charge_mark m WHERE m.cost_entry_id = e.id AND m.mark = 'yes' AND m.counts_from <= $1)`;
const DAYWORK_OF_JOB = `FROM charge_mark m JOIN cost_entry e ON e.id = m.cost_entry_id WHERE m.job_id = job.id AND m.mark = 'yes' AND m.counts_from <= $1`;
/** That invoice `i` is not credited in full by `$1`. */
const NOT_CREDITED = 'NOT EXISTS (SELECT 1 FROM invoice_credit c WHERE c.invoice_id = i.id AND c.in_full = 1 AND c.dated <= $1)';

const FigureRow = shape({
  id: t.whole,
  number: t.text,
  name: t.text,
  client: t.text,
  client_name: t.text,
  manager: t.text,
  kind: t.text,
  department: t.text,
  status: t.text,
  locked: t.flag,
  restricted: t.flag,
  awarded_on: t.orNull(t.day),
  finished_on: t.orNull(t.day),
  revenue_method: t.oneOf<RevenueMethod>(),
  original_sum: t.cents,
  changes_price: t.cents,
  billed: t.cents,
  applied: t.cents,
  pricing: t.oneOf(...PRICINGS),
  ceiling: t.orNull(t.cents),
  daywork_cost: t.cents,
  daywork_charge: t.cents,
  daywork_billed: t.cents,
  daywork_credited: t.cents,
  uninstalled: t.cents,
  received: t.cents,
  pending: t.cents,
  tax_rate: t.rate,
});

/** Each job's figures as of `$1` that need no cost line, in one pass; of one job or of all. */
export const jobFigures = (jobId: number | null) =>
  query(
    FigureRow,
    `SELECT job.id, job.number, job.name, c.code AS client, c.name AS client_name, job.manager,
  coalesce((SELECT code FROM job_kind WHERE id = job.job_kind_id), '') AS kind,
  coalesce((SELECT code FROM department WHERE id = job.department_id), '') AS department,
   job.status, job.locked, job.restricted, job.awarded_on, job.finished_on, job.revenue_method, job.tax_rate,
  coalesce((SELECT sum(scheduled_value) FROM sov_line WHERE job_id = job.id), 0) AS original_sum,
  coalesce((SELECT sum(amount) FROM approved_change_line WHERE job_id = job.id AND side = 'price' AND decided_on <= $1), 0) AS changes_price,
  coalesce((SELECT sum(l.amount) FROM change_order o JOIN change_order_line l ON l.change_order_id = o.id
        WHERE o.job_id = job.id AND l.side = 'price' AND o.raised_on <= $1 AND (o.status IN ('draft', 'issued') OR o.decided_on > $1)), 0) AS pending,
  coalesce((SELECT gross FROM certified_application WHERE job_id = job.id AND certified_on <= $1 ORDER BY number DESC LIMIT 1), 0) AS billed,
  coalesce((SELECT sum(work) FROM application_line WHERE application_id =
    (SELECT id FROM application WHERE job_id = job.id AND status <> 'draft' AND dated <= $1 ORDER BY number DESC LIMIT 1)), 0) AS applied,
  coalesce((SELECT sum(e.amount) FROM cost_entry e WHERE e.job_id = job.id AND e.uninstalled = 1 AND e.posted_on <= $1 AND ${NOT_DAYWORK}), 0)
    - coalesce((SELECT sum(i.amount) FROM installation i JOIN cost_entry e ON e.id = i.cost_entry_id
        WHERE i.job_id = job.id AND i.undone_at IS NULL AND i.installed_on <= $1 AND e.posted_on <= $1 AND ${NOT_DAYWORK}), 0) AS uninstalled,
  job.pricing, job.charge_ceiling AS ceiling,
  coalesce((SELECT sum(e.amount) ${DAYWORK_OF_JOB}), 0) AS daywork_cost,
  coalesce((SELECT sum(m.charge) ${DAYWORK_OF_JOB}), 0) AS daywork_charge,
  coalesce((SELECT sum(d.amount) FROM daywork_invoice d JOIN invoice i ON i.posting_id = d.posting_id
    WHERE d.job_id = job.id AND d.dated <= $1 AND ${NOT_CREDITED}), 0) AS daywork_billed,
  coalesce((SELECT sum(x.amount) FROM invoice_credit x JOIN invoice i ON i.id = x.invoice_id
    WHERE x.job_id = job.id AND i.kind = 'daywork' AND x.dated <= $1 AND ${NOT_CREDITED}), 0) AS daywork_credited,
  coalesce((SELECT sum(amount) FROM receipt WHERE job_id = job.id AND dated <= $1), 0) AS received
  FROM job JOIN client c ON c.id = job.client_id ${jobId === null ? '' : `WHERE job.id = ${Number(jobId)}`} ORDER BY job.number`,
  );
