import type { InvoiceKind } from '../../core/billing/invoice';
import { query } from '../db/query';
import { shape, t } from '../db/fields';

export const AWARDED_LINE = query(
  shape({ id: t.whole, estimate: t.cents, spread: t.cents, difference: t.cents }),
  `SELECT a.sov_line_id AS id, e.number AS estimate, a.spread, a.difference FROM award a JOIN sov_line s ON s.id = a.sov_line_id JOIN estimate e ON e.id = a.estimate_id
      WHERE s.job_id = $1 AND s.line = $2`,
);

export const ESTIMATE_LINES_OF = query(
  shape({ id: t.whole }),
  'SELECT estimate_line_id AS id FROM award_line WHERE sov_line_id = $1',
);

export const BUDGET_OF_LINE = query(
  shape({
    description: t.text,
    sov: t.orNull(t.text),
    amount: t.cents,
    hours: t.orNull(t.hours),
    estimateLine: t.orNull(t.text),
    estimate: t.orNull(t.cents),
  }),
  `SELECT b.description, s.line AS sov, b.amount, b.hours, e.line AS estimateLine, (SELECT number FROM estimate WHERE id = e.estimate_id) AS estimate
      FROM budget_line b LEFT JOIN sov_line s ON s.id = b.sov_line_id LEFT JOIN estimate_line e ON e.id = b.estimate_line_id WHERE b.cost_line_id = $1 ORDER BY b.id`,
);

export const CHANGES_OF_LINE = query(
  shape({ number: t.text, title: t.text, decided_on: t.day, amount: t.cents, hours: t.orNull(t.hours) }),
  `SELECT c.number, c.title, c.decided_on, c.amount, c.hours FROM approved_change_line c
      WHERE c.cost_line_id = $1 AND c.side = 'cost' AND c.decided_on <= $2 ORDER BY c.decided_on`,
);

export const TRANSFERS_OF_LINE = query(
  shape({ number: t.whole, dated: t.day, reason: t.text, amount: t.cents, hours: t.orNull(t.hours) }),
  `SELECT t.number, t.dated, t.reason, x.amount, x.hours FROM budget_transfer_line x JOIN budget_transfer t ON t.id = x.transfer_id
      WHERE x.cost_line_id = $1 AND t.dated <= $2 ORDER BY t.dated, t.number`,
);

export const ACTUAL_BY_MONTH = query(
  shape({ month: t.month, count: t.whole, amount: t.cents }),
  'SELECT substr(posted_on, 1, 7) AS month, count(*) AS count, sum(amount) AS amount FROM cost_entry WHERE job_id = $1 AND cost_line_id = $2 AND posted_on <= $3 GROUP BY 1',
);

export const COMMITTED_OF_LINE = query(
  shape({ name: t.text, vendor: t.text, amount: t.cents, invoiced: t.cents, closed: t.flag }),
  `SELECT c.number || '/' || m.line AS name, v.name AS vendor, m.amount, coalesce(m.closed_on <= $2, 0) AS closed, coalesce((SELECT sum(amount) FROM cost_entry WHERE commitment_line_id = m.id AND posted_on <= $2), 0) AS invoiced
        FROM commitment_line m JOIN commitment c ON c.id = m.commitment_id JOIN vendor v ON v.id = c.vendor_id WHERE m.cost_line_id = $1 AND c.dated <= $2 ORDER BY c.number`,
);

export const HOURS_BY_MONTH = query(
  shape({ month: t.month, amount: t.cents }),
  'SELECT substr(posted_on, 1, 7) AS month, sum(coalesce(hours, 0)) AS amount FROM cost_entry WHERE job_id = $1 AND cost_line_id = $2 AND posted_on <= $3 GROUP BY 1',
);

/** Hours of a line in month `$3` up to day `$4` by the week sheet they were entered on; null: on none. */
export const HOURS_OF_MONTH_BY_SHEET = query(
  shape({ sheet: t.orNull(t.text), amount: t.cents }),
  `SELECT x.sheet, sum(coalesce(e.hours, 0)) AS amount FROM cost_entry e LEFT JOIN time_line x ON x.id = e.time_line_id
    WHERE e.job_id = $1 AND e.cost_line_id = $2 AND substr(e.posted_on, 1, 7) = $3 AND e.posted_on <= $4
    GROUP BY 1 ORDER BY x.sheet IS NULL, CAST(x.sheet AS INTEGER), x.sheet`,
);

export const SCHEDULED_SUM = query(
  shape({ amount: t.cents }),
  'SELECT coalesce(sum(scheduled_value), 0) AS amount FROM sov_line WHERE job_id = $1',
);

export const ORIGINAL_SCHEDULE = query(
  shape({ line: t.text, description: t.text, amount: t.cents }),
  'SELECT line, description, scheduled_value AS amount FROM sov_line WHERE job_id = $1 AND scheduled_value <> 0 ORDER BY position',
);

export const APPROVED_CHANGES = query(
  shape({ number: t.text, title: t.text, decided_on: t.day, amount: t.cents }),
  `SELECT o.number, o.title, o.decided_on, sum(l.amount) AS amount FROM change_order o JOIN change_order_line l ON l.change_order_id = o.id
        WHERE o.job_id = $1 AND l.side = 'price' AND o.status = 'approved' AND o.decided_on <= $2 GROUP BY o.id ORDER BY o.decided_on`,
);

export const COST_BY_TYPE = query(
  shape({ type: t.text, amount: t.cents }),
  'SELECT l.cost_type AS type, sum(e.amount) AS amount FROM cost_entry e JOIN cost_line l ON l.id = e.cost_line_id WHERE e.job_id = $1 AND e.posted_on <= $2 GROUP BY 1',
);

export const LAST_CERTIFIED = query(
  shape({ number: t.whole, gross: t.cents }),
  `SELECT number, gross FROM certified_application WHERE job_id = $1 AND certified_on <= $2 ORDER BY number DESC LIMIT 1`,
);

export const RECEIPTS = query(
  shape({ posting: t.text, dated: t.day, amount: t.cents, id: t.whole }),
  `SELECT CASE i.kind WHEN 'application' THEN 'application ' ELSE '' END || i.reference AS posting, r.dated, r.amount, r.posting_id AS id
        FROM receipt r JOIN invoice i ON i.id = r.invoice_id WHERE r.job_id = $1 AND r.dated <= $2 ORDER BY r.dated, r.id`,
);

export const TAX_RATE = query(shape({ tax_rate: t.rate }), 'SELECT tax_rate FROM job WHERE id = $1');

export const PENDING_CHANGES = query(
  shape({ number: t.text, title: t.text, amount: t.cents }),
  `SELECT o.number, o.title, sum(l.amount) AS amount FROM change_order o JOIN change_order_line l ON l.change_order_id = o.id
        WHERE o.job_id = $1 AND l.side = 'price' AND o.raised_on <= $2 AND (o.status IN ('draft', 'issued') OR o.decided_on > $2) GROUP BY o.id`,
);

export const LAST_RETENTION = query(
  shape({ number: t.whole, retention: t.cents }),
  `SELECT number, retention FROM certified_application WHERE job_id = $1 AND certified_on <= $2 ORDER BY number DESC LIMIT 1`,
);

export const RELEASES = query(
  shape({ reference: t.text, dated: t.day, amount: t.cents, posting: t.whole }),
  'SELECT reference, dated, amount, posting_id AS posting FROM retention_release WHERE job_id = $1 AND dated <= $2',
);

export const INVOICE_ASKED = query(
  shape({ id: t.whole, kind: t.oneOf<InvoiceKind>(), asked: t.cents }),
  'SELECT id, kind, payable AS asked FROM invoice WHERE job_id = $1 AND reference = $2 AND posted_on <= $3',
);

export const RECEIPTS_OF_INVOICE = query(
  shape({ dated: t.day, amount: t.cents, reference: t.text, posting: t.whole }),
  'SELECT dated, amount, reference, posting_id AS posting FROM receipt WHERE invoice_id = $1 AND dated <= $2 ORDER BY dated, id',
);

/** What change orders of job `$1`, approved after day `$2` and by day `$3`, added to its contract sum. */
export const PRICE_APPROVED_BETWEEN = query(
  shape({ number: t.text, decidedOn: t.day, amount: t.cents }),
  `SELECT o.number, o.decided_on AS decidedOn, sum(l.amount) AS amount FROM change_order o JOIN change_order_line l ON l.change_order_id = o.id
    WHERE o.job_id = $1 AND l.side = 'price' AND o.status = 'approved' AND o.decided_on > $2 AND o.decided_on <= $3
    GROUP BY o.id ORDER BY o.decided_on, o.id`,
);
