import { shape, t, listed, pick } from '../db/fields';
import { query } from '../db/query';
import { HOLDING_PARTS, type HoldingPart } from '../../core/jobs/jobParts';
import { JobTable } from '../jobs/models';

/** Drafts of jobs: all, or those that `$1` typed. */
export const DRAFTS = query(
  shape({ id: t.whole, content: t.text, saved_at: t.moment }),
  'SELECT id, content, saved_at FROM job_draft WHERE $1 IS NULL OR actor = $1 ORDER BY saved_at DESC',
);

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

const OF_COST_LINES = 'cost_line_id IN (SELECT id FROM cost_line WHERE job_id = $1)';

/** Whether each part of job `$1` holds anything. */
const HELD_BY: Record<HoldingPart, string> = {
  estimates: 'SELECT 1 FROM estimate WHERE job_id = $1 UNION ALL SELECT 1 FROM quotation WHERE job_id = $1',
  contract: 'SELECT 1 FROM sov_line WHERE job_id = $1',
  budget: 'SELECT 1 FROM cost_line WHERE job_id = $1 UNION ALL SELECT 1 FROM time_line WHERE job_id = $1',
  changes: 'SELECT 1 FROM change_order WHERE job_id = $1',
  costs: 'SELECT 1 FROM cost_entry WHERE job_id = $1',
  // With a schedule there is something to be billed.
  billing: 'SELECT 1 FROM sov_line WHERE job_id = $1 UNION ALL SELECT 1 FROM instalment WHERE job_id = $1',
  postings: 'SELECT 1 FROM cost_entry WHERE job_id = $1 UNION ALL SELECT 1 FROM posting WHERE job_id = $1',
  charging: `SELECT 1 FROM charge_mark WHERE job_id = $1 UNION ALL SELECT 1 FROM daywork_invoice WHERE job_id = $1
    UNION ALL SELECT 1 FROM job WHERE id = $1 AND pricing = 'charged'`,
  plan: `SELECT 1 FROM job_section WHERE job_id = $1 UNION ALL SELECT 1 FROM cost_line_plan WHERE ${OF_COST_LINES}`,
};
export const HELD = query(
  shape(Object.fromEntries(HOLDING_PARTS.map((part) => [part, t.flag])) as Record<HoldingPart, typeof t.flag>),
  `SELECT ${HOLDING_PARTS.map((part) => `EXISTS (${HELD_BY[part]}) AS ${part}`).join(', ')}`,
);

/** Whole months from the running totals of the lines; the last, up to day `$2`, from its entries. */
export const COST_BY_MONTH = query(
  shape({ month: t.month, amount: t.cents }),
  `SELECT printf('%04d-%02d', month / 12, month % 12 + 1) AS month, sum(amount) AS amount
    FROM (SELECT t.month, t.cost - coalesce(lag(t.cost) OVER (PARTITION BY t.cost_line_id ORDER BY t.month), 0) AS amount
      FROM cost_line l JOIN cost_total t ON t.cost_line_id = l.id
      WHERE l.job_id = $1 AND t.month < CAST(substr($2, 1, 4) AS INTEGER) * 12 + CAST(substr($2, 6, 2) AS INTEGER) - 1) GROUP BY 1
    UNION ALL SELECT substr($2, 1, 7), sum(amount) FROM cost_entry
      WHERE job_id = $1 AND posted_on BETWEEN substr($2, 1, 7) || '-01' AND $2 HAVING count(*) > 0`,
);

export const CERTIFIED_BY_MONTH = query(
  shape({ month: t.month, gross: t.cents }),
  `SELECT substr(certified_on, 1, 7) AS month, gross FROM certified_application WHERE job_id = $1 AND certified_on <= $2 ORDER BY number`,
);

/** What was invoiced of charged cost of job `$1` in each month by `$2`, less credits. */
export const DAYWORK_BY_MONTH = query(
  shape({ month: t.month, amount: t.cents }),
  `SELECT substr(dated, 1, 7) AS month, sum(amount) AS amount FROM (
      SELECT dated, amount FROM daywork_invoice WHERE job_id = $1 AND status = 'issued'
      UNION ALL SELECT c.dated, -c.amount FROM invoice_credit c JOIN invoice i ON i.id = c.invoice_id WHERE c.job_id = $1 AND i.kind = 'daywork')
    WHERE dated <= $2 GROUP BY 1`,
);

export const ORIGINAL_BUDGET_SUM = query(
  shape({ amount: t.orNull(t.cents) }),
  'SELECT sum(b.amount) AS amount FROM budget_line b JOIN cost_line l ON l.id = b.cost_line_id WHERE l.job_id = $1',
);

const FACTS = pick(
  JobTable,
  ...(['contract_reference', 'site', 'awarded_on', 'starts_on', 'finishes_on', 'finished_on'] as const),
  ...(['revenue_method', 'pricing', 'charge_ceiling', 'tax_rate', 'terms_days'] as const),
);
const FactRow = shape({ ...FACTS.fields, client_terms: t.orNull(t.whole) });

export const JOB_FACTS = query(
  FactRow,
  `SELECT ${listed(FACTS, 'job')}, c.terms_days AS client_terms FROM job JOIN client c ON c.id = job.client_id WHERE job.id = $1`,
);
