import type { MasterKind } from '../../core/masters/masters';
import { query } from '../db/query';
import { shape, t } from '../db/fields';

/** How often something refers to each row of a kind: its id, and how often. */
const uses = (table: string, column: string, where = 'true') =>
  query(
    shape({ id: t.whole, uses: t.whole }),
    `SELECT ${column} AS id, count(*) AS uses FROM ${table} WHERE ${column} IS NOT NULL AND ${where} GROUP BY 1`,
  );

const usedBy = (one: string, many: string, table: string, column: string) => ({
  /** Of one, and of several. */
  words: [one, many] as const,
  query: uses(table, column),
  where: `${table}.${column}`,
  /** What refers to `$1` refers to `$2`. */
  repoint: `UPDATE ${table} SET ${column} = $2 WHERE ${column} = $1`,
});
type Use = ReturnType<typeof usedBy>;

/** Of people, whom others refer to by name. */
const namedBy = (one: string, many: string, table: string, column: string, where = 'true'): Use => ({
  ...usedBy(one, many, table, column),
  query: query(
    shape({ id: t.whole, uses: t.whole }),
    `SELECT p.id, count(*) AS uses FROM ${table} JOIN person p ON p.name = ${table}.${column} WHERE ${where} GROUP BY 1`,
  ),
  repoint: `UPDATE ${table} SET ${column} = $2 WHERE ${column} = $1 AND ${where}`,
});

/** What refers to a master by its id, to a person by name, by kind. A new table that does belongs here: a test holds it against the schema. */
export const USES: Record<MasterKind, readonly Use[]> = {
  clients: [usedBy('job', 'jobs', 'job', 'client_id'), usedBy('charge rate', 'charge rates', 'charge_rate', 'client_id')],
  vendors: [
    usedBy('order or subcontract', 'orders and subcontracts', 'commitment', 'vendor_id'),
    usedBy('price', 'prices', 'price_item', 'vendor_id'),
  ],
  'cost-codes': [
    usedBy('cost line', 'cost lines of jobs', 'cost_line', 'cost_code_id'),
    usedBy('price', 'prices', 'price_item', 'cost_code_id'),
    usedBy('part of an estimate', 'parts of estimates', 'estimate_part', 'cost_code_id'),
    usedBy('price in an estimate', 'prices in estimates', 'estimate_price', 'cost_code_id'),
    usedBy('piece rate', 'piece rates', 'piece_rate', 'cost_code_id'),
    usedBy('line of time', 'lines of time', 'time_line', 'cost_code_id'),
    usedBy('entry of a day sheet', 'entries of day sheets', 'day_entry', 'cost_code_id'),
  ],
  'job-kinds': [usedBy('job', 'jobs', 'job', 'job_kind_id')],
  departments: [
    usedBy('job', 'jobs', 'job', 'department_id'),
    usedBy('employee', 'employees', 'employee', 'department_id'),
    usedBy('line of overhead', 'lines of overhead', 'time_line', 'department_id'),
  ],
  people: [
    namedBy('job as manager', 'jobs as manager', 'job', 'manager'),
    namedBy('job as estimator', 'jobs as estimator', 'job', 'estimator'),
    namedBy('team of a job', 'teams of jobs', 'job_person', 'name', `side = 'team'`),
    namedBy('item of a checklist', 'items of checklists', 'job_check', 'person'),
    // Whoever signs in as both keeps both.
    { ...namedBy('user', 'users', 'user', 'name'), repoint: 'UPDATE OR IGNORE user SET name = $2 WHERE name = $1' },
  ],
};

/** Cost lines of the cost code `$1` that the code `$2` has as well, and whether something is posted to them. */
export const LINES_IN_BOTH = query(
  shape({ id: t.whole, other: t.whole, job: t.text, section: t.text, cost_type: t.text, posted: t.flag }),
  `SELECT l.id, o.id AS other, job.number AS job, l.section, l.cost_type, EXISTS (SELECT 1 FROM cost_entry WHERE cost_line_id = l.id) AS posted
    FROM cost_line l JOIN cost_line o ON o.job_id = l.job_id AND o.section = l.section AND o.cost_type = l.cost_type AND o.cost_code_id = $2
    JOIN job ON job.id = l.job_id WHERE l.cost_code_id = $1 ORDER BY job.number, l.id`,
);

/** Of two cost lines that become one: forecasts of the same day stand on both, so that one of them would be lost. */
export const FORECASTS_IN_BOTH = query(
  shape({ as_of: t.day }),
  'SELECT as_of FROM forecast WHERE cost_line_id = $1 AND as_of IN (SELECT as_of FROM forecast WHERE cost_line_id = $2)',
);

export const COST_LINE_USERS = [
  'budget_line',
  'commitment_line',
  'forecast',
  'change_order_line',
  'budget_transfer_line',
] as const;

/** What refers to cost line `$1` refers to `$2`; its plan only where that one has none. What is left of it is its totals. */
export const JOIN_COST_LINES = [
  ...COST_LINE_USERS.map((table) => `UPDATE ${table} SET cost_line_id = $2 WHERE cost_line_id = $1`),
  'UPDATE OR IGNORE cost_line_plan SET cost_line_id = $2 WHERE cost_line_id = $1',
  'DELETE FROM cost_total WHERE cost_line_id = $1 AND $2 > 0',
];
