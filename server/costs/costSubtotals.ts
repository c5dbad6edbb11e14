import { conditionOf, partyOf, type CostLedgerFilter } from './ledgerQueries';
import { monthlySubtotals, subtotals, type Grouping } from './subtotalQueries';
import { type RowOf } from '../db/fields';
import { monthIndex } from '../../core/calendar/month';
import { lastDay, periodOf } from '../../core/calendar/plainDate';
import type { Reader } from '../db/sql';
import { filterIds } from './costLedger';

export type CostSubtotal = RowOf<ReturnType<typeof subtotals>>;

/** Subtotals of all rows that match a filter, largest groups of their kind in order of key. */
export async function costSubtotals(sql: Reader, filter: CostLedgerFilter, by: Grouping): Promise<CostSubtotal[]> {
  const ids = await filterIds(sql, filter);
  if (!ids) return [];
  if (by !== 'month' && by !== 'party' && fitsTotals(filter)) return subtotalsOfMonths(sql, filter, by, ids);
  const { where, bind } = conditionOf(filter, ids);
  return sql.all(subtotals(by, where, partyOf(filter)), bind);
}

/** True where the monthly totals hold all that the filter asks for: whole months, and nothing but the line itself. */
function fitsTotals(filter: CostLedgerFilter): boolean {
  const asked = Object.entries(filter)
    .filter(([, value]) => value !== undefined)
    .map(([key]) => key);
  return (
    filter.asOf === lastDay(periodOf(filter.asOf)) &&
    asked.every((key) =>
      ['asOf', 'job', 'section', 'costCode', 'costType', 'sort', 'descending', 'offset', 'limit', 'withoutPay'].includes(key),
    )
  );
}

/** The same subtotals from the monthly totals, so that a million entries need not be read. */
function subtotalsOfMonths(
  sql: Reader,
  { asOf, section, costType }: CostLedgerFilter,
  by: Exclude<Grouping, 'month' | 'party'>,
  ids: { job?: number; costCode?: number },
): Promise<CostSubtotal[]> {
  const bind: unknown[] = [monthIndex(asOf)];
  const where = Object.entries({
    'l.job_id': ids.job,
    'l.cost_code_id': ids.costCode,
    'l.section': section,
    'l.cost_type': costType,
  })
    .filter(([, value]) => value !== undefined)
    .map(([column, value]) => `AND ${column} = $${bind.push(value)}`);
  return sql.all(monthlySubtotals(by, where), bind);
}
