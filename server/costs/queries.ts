import { COST_TYPES, type CostType } from '../../core/costs/costType';
import { query } from '../db/query';
import { shape, t } from '../db/fields';

/** A line of a budget, or of what a change order costs, as it is typed. */
export const TYPED_COST = {
  section: t.text,
  costCode: t.text,
  costType: t.oneOf(...COST_TYPES),
  sovLine: t.text,
  description: t.text,
  quantity: t.orNull(t.quantity),
  unit: t.text,
  hours: t.orNull(t.hours),
  amount: t.cents,
};

/** What budgets and change orders approved by `$2` say of job `$1`: which SOV line how much of a cost line serves. */
export const SERVED_SOV_LINES = query(
  shape({ id: t.whole, line: t.text, amount: t.cents }),
  `SELECT b.cost_line_id AS id, s.line, sum(b.amount) AS amount
    FROM (SELECT cost_line_id, sov_line_id, amount FROM budget_line
      UNION ALL SELECT cost_line_id, sov_line_id, amount FROM approved_change_line WHERE side = 'cost' AND decided_on <= $2) b
    JOIN sov_line s ON s.id = b.sov_line_id WHERE s.job_id = $1 GROUP BY 1, 2 ORDER BY 1, s.original DESC, s.position`,
);

export const COST_CODE_IDS = query(
  shape({ id: t.whole, code: t.text, closed: t.flag }),
  'SELECT id, code, closed FROM cost_code',
);

/** How the newest two thousand entries that stand are coded, each coding once, the newest first. */
export const RECENT_CODINGS = query(
  shape({ job: t.text, section: t.text, costCode: t.text, costType: t.text, party: t.text }),
  `SELECT j.number AS job, l.section, c.code AS costCode, l.cost_type AS costType, e.party
    FROM (SELECT id, job_id, cost_line_id, party, reverses_entry_id FROM cost_entry ORDER BY id DESC LIMIT 2000) e
    JOIN job j ON j.id = e.job_id JOIN cost_line l ON l.id = e.cost_line_id JOIN cost_code c ON c.id = l.cost_code_id
    WHERE e.reverses_entry_id IS NULL AND NOT EXISTS (SELECT 1 FROM cost_entry r WHERE r.reverses_entry_id = e.id)
    GROUP BY 1, 2, 3, 4, 5 ORDER BY max(e.id) DESC LIMIT 500`,
);

export const LAST_COST_LINE = query(shape({ id: t.whole }), 'SELECT coalesce(max(id), 0) AS id FROM cost_line');

export const JOBS_TO_POST_TO = query(
  shape({ id: t.whole, number: t.text, status: t.text, locked: t.flag }),
  'SELECT id, number, status, locked FROM job',
);

export const COMMITMENT_LINES = query(
  shape({ id: t.whole, name: t.text, job: t.text }),
  `SELECT m.id, c.number || '/' || m.line AS name, job.number AS job FROM commitment_line m JOIN commitment c ON c.id = m.commitment_id JOIN cost_line l ON l.id = m.cost_line_id JOIN job ON job.id = l.job_id`,
);

const runningTotals = (where: string) => `INSERT INTO cost_total (cost_line_id, month, cost, hours, entries)
  SELECT cost_line_id, month, sum(sum(amount)) OVER running, sum(sum(hours)) OVER running, sum(count(*)) OVER running
    FROM (SELECT cost_line_id, CAST(substr(posted_on, 1, 4) AS INTEGER) * 12 + CAST(substr(posted_on, 6, 2) AS INTEGER) - 1 AS month, amount, coalesce(hours, 0) AS hours
          FROM cost_entry ${where})
    GROUP BY cost_line_id, month
    WINDOW running AS (PARTITION BY cost_line_id ORDER BY month)`;

/** Of the jobs whose ids are in the list `$1`. */
export const DELETE_COST_TOTALS =
  'DELETE FROM cost_total WHERE cost_line_id IN (SELECT id FROM cost_line WHERE job_id IN (SELECT value FROM json_each($1)))';

export const COST_TOTALS_OF_JOBS = runningTotals('WHERE job_id IN (SELECT value FROM json_each($1))');

/** A month in which no entry of a line was yet begins with what the line stood at before. `$1` lists `[line, month, cost, hours, entries]`. */
export const ADD_MONTHS = `INSERT INTO cost_total (cost_line_id, month, cost, hours, entries)
  SELECT d.value->>0, d.value->>1, coalesce(p.cost, 0), coalesce(p.hours, 0), coalesce(p.entries, 0)
    FROM json_each($1) d LEFT JOIN cost_total p ON p.cost_line_id = d.value->>0
      AND p.month = (SELECT max(x.month) FROM cost_total x WHERE x.cost_line_id = d.value->>0 AND x.month < d.value->>1)
    WHERE NOT EXISTS (SELECT 1 FROM cost_total t WHERE t.cost_line_id = d.value->>0 AND t.month = d.value->>1)`;

/** The months from each on stand at as much more. `$1` as before. */
export const RAISE_TOTALS = `UPDATE cost_total SET cost = cost_total.cost + m.cost, hours = cost_total.hours + m.hours, entries = cost_total.entries + m.entries
  FROM (SELECT t.cost_line_id, t.month, sum(d.value->>2) AS cost, sum(d.value->>3) AS hours, sum(d.value->>4) AS entries
    FROM json_each($1) d JOIN cost_total t ON t.cost_line_id = d.value->>0 AND t.month >= d.value->>1 GROUP BY 1, 2) m
  WHERE m.cost_line_id = cost_total.cost_line_id AND m.month = cost_total.month`;

/** Sections of the jobs in the list `$1`, and the day each was awarded. */
export const JOBS_OF_BATCH = query(
  shape({ id: t.whole, awardedOn: t.orNull(t.day), sections: t.text }),
  `SELECT id, awarded_on AS awardedOn, (SELECT json_group_array(DISTINCT section) FROM
      (SELECT section FROM cost_line WHERE job_id = job.id AND id <= $2 UNION SELECT section FROM sov_line WHERE job_id = job.id
        UNION SELECT name FROM job_section WHERE job_id = job.id) WHERE section <> '') AS sections
    FROM job WHERE id IN (SELECT value FROM json_each($1))`,
);

/** What an entry on the cost lines in the list `$1` is on average, without its sign, where there are at least five. */
export const USUAL_AMOUNTS = query(
  shape({ id: t.whole, usual: t.cents }),
  `SELECT cost_line_id AS id, CAST(round(avg(abs(amount))) AS INTEGER) AS usual FROM cost_entry
    WHERE job_id IN (SELECT value FROM json_each($2)) AND cost_line_id IN (SELECT value FROM json_each($1))
    GROUP BY cost_line_id HAVING count(*) >= 5`,
);

/** Documents with an entry, neither reversed nor reversing, whose text has what the index is asked for by `$1`. */
export const POSTED_REFERENCES = query(
  shape({ posting: t.whole, party: t.text, reference: t.text }),
  `SELECT max(e.posting_id) AS posting, e.party, e.reference FROM cost_entry e
    WHERE e.id IN (SELECT rowid FROM cost_text WHERE cost_text MATCH $1) AND e.reverses_entry_id IS NULL
      AND NOT EXISTS (SELECT 1 FROM cost_entry r WHERE r.reverses_entry_id = e.id) GROUP BY e.party, e.reference`,
);

/** Whether an entry leaves with the book as a row of this amount: whole, or what was installed in parts as a row for each part. */
const asExported = (entry: string, amount: string) =>
  `(${entry}.amount = ${amount} OR (${entry}.uninstalled = 1 AND EXISTS (SELECT 1 FROM installed_part part WHERE part.cost_entry_id = ${entry}.id AND part.amount = ${amount})))`;

/** Rows of the list `$1` (job, section, code, type, accounting date, amount, reference, party, description) that are posted already, but for posting `$2`. */
export const IDENTICAL_ROWS = query(
  shape({ row: t.whole }),
  `SELECT DISTINCT r.key AS row FROM json_each($1) r JOIN job j ON j.number = r.value->>0 JOIN cost_code c ON c.code = r.value->>2
    JOIN cost_line l ON l.job_id = j.id AND l.section = r.value->>1 AND l.cost_code_id = c.id AND l.cost_type = r.value->>3
    JOIN cost_entry e ON e.job_id = j.id AND e.posted_on = r.value->>4 AND e.cost_line_id = l.id AND ${asExported('e', 'r.value->>5')}
      AND e.reference = r.value->>6 AND e.party = r.value->>7 AND e.description = r.value->>8
    WHERE e.posting_id IS NOT $2`,
);

/** Entries of the newest opening cost that are posted before it, word for word. */
export const IDENTICAL_OF_POSTING = query(
  shape({ job: t.text, reference: t.text, party: t.text, dated: t.day, amount: t.cents }),
  `SELECT j.number AS job, e.reference, e.party, e.dated, e.amount FROM cost_entry e JOIN job j ON j.id = e.job_id
    WHERE e.posting_id = (SELECT max(id) FROM posting WHERE kind = 'opening-cost') AND EXISTS (SELECT 1 FROM cost_entry o
      WHERE o.job_id = e.job_id AND o.posted_on = e.posted_on AND o.posting_id <> e.posting_id AND o.cost_line_id = e.cost_line_id AND ${asExported('o', 'e.amount')}
        AND o.reference = e.reference AND o.party = e.party AND o.description = e.description)
    ORDER BY e.id`,
);

export const ESTIMATED_LINES = query(
  shape({ id: t.whole, section: t.text, code: t.text, description: t.text, cost_type: t.oneOf<CostType>(), serves: t.text }),
  `SELECT l.id, l.section, c.code, c.description, l.cost_type,
      (SELECT json_group_array(s.line) FROM sov_line s WHERE s.id IN (
        SELECT sov_line_id FROM budget_line WHERE cost_line_id = l.id
        UNION SELECT sov_line_id FROM approved_change_line WHERE side = 'cost' AND cost_line_id = l.id AND decided_on <= $2
      )) AS serves
      FROM cost_line l JOIN cost_code c ON c.id = l.cost_code_id WHERE l.job_id = $1`,
);

/** Cost lines with a budget of the jobs whose numbers the JSON list `$1` has. */
export const BUDGETED_LINES = query(
  shape({ id: t.whole, jobId: t.whole, job: t.text, section: t.text, costCode: t.text, costType: t.text }),
  `SELECT l.id, j.id AS jobId, j.number AS job, l.section, c.code AS costCode, l.cost_type AS costType
    FROM cost_line l JOIN job j ON j.id = l.job_id JOIN cost_code c ON c.id = l.cost_code_id
    WHERE j.number IN (SELECT value FROM json_each($1)) AND (EXISTS (SELECT 1 FROM budget_line b WHERE b.cost_line_id = l.id)
      OR EXISTS (SELECT 1 FROM approved_change_line a WHERE a.side = 'cost' AND a.cost_line_id = l.id))
    ORDER BY j.number, l.section, c.code, l.cost_type`,
);

/** What was budgeted by quantity on the cost lines of job `$1`, and what change orders approved by `$2` add to it, in that order. */
export const BUDGETED_QUANTITIES = query(
  shape({ line: t.whole, quantity: t.orNull(t.quantity), unit: t.text, isChange: t.flag, title: t.text }),
  `SELECT line, quantity, unit, isChange, title FROM (
      SELECT b.cost_line_id AS line, b.quantity, b.unit, 0 AS isChange, b.description AS title, b.id AS place
        FROM budget_line b JOIN cost_line k ON k.id = b.cost_line_id WHERE k.job_id = $1
      UNION ALL SELECT l.cost_line_id, l.quantity, l.unit, 1, o.number || ' ' || o.title, l.id
        FROM change_order o JOIN change_order_line l ON l.change_order_id = o.id
        WHERE o.job_id = $1 AND l.side = 'cost' AND o.status = 'approved' AND o.decided_on <= $2)
      ORDER BY isChange, place`,
);

/** What was posted with a quantity on the cost lines of job `$1` by `$2`, by its unit, without daywork. */
export const USED_QUANTITIES = query(
  shape({ line: t.whole, unit: t.text, quantity: t.quantity, cost: t.cents }),
  `SELECT e.cost_line_id AS line, e.unit, sum(e.quantity) AS quantity, sum(e.amount) AS cost FROM cost_entry e JOIN job ON job.id = e.job_id
    WHERE e.job_id = $1 AND e.posted_on <= $2 AND e.quantity <> 0 AND (job.pricing = 'charged' OR NOT EXISTS
      (SELECT 1 FROM charge_mark m WHERE m.cost_entry_id = e.id AND m.mark = 'yes' AND m.counts_from <= $2)) GROUP BY 1, 2`,
);
