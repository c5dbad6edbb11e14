import { shape, t, type RowOf } from '../db/fields';
import { monthIndex } from '../../core/calendar/month';
import { lastDay, periodOf } from '../../core/calendar/plainDate';
import type { Reader } from '../db/sql';
import { conditionOf, filterIds, type CostLedgerFilter } from './costLedger';

/** What the cost ledger may be subtotalled by, with the SQL of each group's key and of its name. */
const GROUPS = {
  month: { key: 'substr(e.posted_on, 1, 7)', name: "''" },
  job: { key: '(SELECT number FROM job WHERE id = e.job_id)', name: '(SELECT name FROM job WHERE id = e.job_id)' },
  section: { key: 'l.section', name: "''" },
  code: {
    key: '(SELECT code FROM cost_code WHERE id = l.cost_code_id)',
    name: '(SELECT description FROM cost_code WHERE id = l.cost_code_id)',
  },
  type: { key: 'l.cost_type', name: "''" },
  party: { key: 'e.party', name: "coalesce((SELECT name FROM vendor WHERE code = e.party), '')" },
} as const;
const GROUPED_BY: Record<keyof typeof GROUPS, string> = {
  month: '1',
  job: 'e.job_id',
  section: 'l.section',
  code: 'l.cost_code_id',
  type: 'l.cost_type',
  party: 'e.party',
};

export const CostSubtotal = shape({ key: t.text, name: t.text, count: t.whole, hours: t.hours, amount: t.cents });
export type CostSubtotal = RowOf<typeof CostSubtotal>;

/** Subtotals of all rows that match a filter, largest groups of their kind in order of key. */
export async function costSubtotals(sql: Reader, filter: CostLedgerFilter, by: keyof typeof GROUPS): Promise<CostSubtotal[]> {
  const ids = await filterIds(sql, filter);
  if (!ids) return [];
  if (by !== 'month' && by !== 'party' && fitsTotals(filter)) return subtotalsOfMonths(sql, filter, by, ids);
  const { where, bind } = conditionOf(filter, ids);
  const { key, name } = GROUPS[by];
  return sql.all(
    CostSubtotal,
    `SELECT ${key} AS key, ${name} AS name, count(*) AS count, coalesce(sum(e.hours), 0) AS hours, sum(e.amount) AS amount
      FROM cost_entry e JOIN cost_line l ON l.id = e.cost_line_id WHERE ${where.join(' AND ')} GROUP BY ${GROUPED_BY[by]} ORDER BY 1`,
    bind,
  );
}

/** True where the monthly totals hold all that the filter asks for: whole months, and nothing but the line itself. */
function fitsTotals(filter: CostLedgerFilter): boolean {
  const asked = Object.entries(filter)
    .filter(([, value]) => value !== undefined)
    .map(([key]) => key);
  return (
    filter.asOf === lastDay(periodOf(filter.asOf)) &&
    asked.every((key) =>
      ['asOf', 'job', 'section', 'costCode', 'costType', 'sort', 'descending', 'offset', 'limit'].includes(key),
    )
  );
}

/** The same subtotals from the monthly totals, so that a million entries need not be read. */
function subtotalsOfMonths(
  sql: Reader,
  { asOf, section, costType }: CostLedgerFilter,
  by: keyof typeof GROUPS,
  ids: { job?: number; costCode?: number },
): Promise<CostSubtotal[]> {
  const { key, name } = GROUPS[by];
  const bind: unknown[] = [monthIndex(asOf)];
  const where = Object.entries({
    'l.job_id': ids.job,
    'l.cost_code_id': ids.costCode,
    'l.section': section,
    'l.cost_type': costType,
  })
    .filter(([, value]) => value !== undefined)
    .map(([column, value]) => `AND ${column} = $${bind.push(value)}`);
  const ofLine = (text: string) => text.replaceAll('e.job_id', 'l.job_id');
  return sql.all(
    CostSubtotal,
    `SELECT ${ofLine(key)} AS key, ${ofLine(name)} AS name, sum(t.entries) AS count, sum(t.hours) AS hours, sum(t.cost) AS amount FROM cost_line l
      JOIN cost_total t ON t.cost_line_id = l.id AND t.month = (SELECT max(x.month) FROM cost_total x WHERE x.cost_line_id = l.id AND x.month <= $1)
      WHERE 1 ${where.join(' ')} GROUP BY ${ofLine(GROUPED_BY[by])} ORDER BY 1`,
    bind,
  );
}
