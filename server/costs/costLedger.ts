import {
  COST_CODE_ID,
  JOB_ID,
  conditionOf,
  keysOf,
  ledgerRows,
  ledgerTotals,
  type Condition,
  type CostLedgerFilter,
} from './ledgerQueries';
import { type RowOf } from '../db/fields';
import type { CostPage, CostRow, CostTotals } from '../../wire/costs';
import { LedrinError } from '../../core/errors/ledrinError';
import type { Reader } from '../db/sql';

/** Number, amount in minor units and hours in ten-thousandths of all that matches. */
export async function costTotals(sql: Reader, filter: CostLedgerFilter): Promise<CostTotals> {
  const ids = await filterIds(sql, filter);
  if (!ids) return { count: 0, amount: 0, hours: 0 };
  const condition = conditionOf(filter, ids);
  const totals = await sql.get(ledgerTotals(condition), condition.bind);
  return totals ?? { count: 0, amount: 0, hours: 0 };
}

/** One page of the cost ledger: from `after` on where it is given, else from `offset`. Throws bad input where `after` is of another order. */
export async function costLedgerPage(sql: Reader, filter: CostLedgerFilter): Promise<CostPage> {
  if (filter.after && filter.after.length !== keysOf(filter).length)
    throw new LedrinError('bad-input', 'This page begins in another order of the ledger; read the first page again', [
      { field: 'after', message: 'expected where a page of this order begins' },
    ]);
  const ids = await filterIds(sql, filter);
  if (!ids) return { rows: [], next: null };
  const { rows, next } = await pageOfRows(sql, filter, conditionOf(filter, ids));
  return { rows: rows.map(costRow), next };
}

/** All rows that match, in the filter's order, a page at a time: each begins after the last row of the one before it. */
export async function* costLedgerPages(sql: Reader, filter: CostLedgerFilter, size: number): AsyncGenerator<CostRow[]> {
  const ids = await filterIds(sql, filter);
  let after: CostLedgerFilter['after'];
  while (ids) {
    const { rows, next }: Page = await pageOfRows(sql, { ...filter, after, limit: size, offset: 0 }, conditionOf(filter, ids));
    if (rows.length > 0) yield rows.map(costRow);
    if (!next) return;
    after = JSON.parse(next) as CostLedgerFilter['after'];
  }
}

type Row = RowOf<ReturnType<typeof ledgerRows>>;

interface Page {
  rows: Row[];
  next: string | null;
}

async function pageOfRows(sql: Reader, filter: CostLedgerFilter, condition: Condition): Promise<Page> {
  const limit = filter.limit ?? 200;
  const rows = await sql.all(ledgerRows(filter, condition, limit), condition.bind);
  const last = rows.at(-1);
  const next = last && rows.length === limit ? last.key : null;
  return { rows, next };
}

function costRow(row: Row): CostRow {
  return {
    id: row.id,
    postingId: row.posting_id,
    dated: row.dated,
    postedOn: row.posted_on,
    job: row.job,
    section: row.section,
    costCode: row.code,
    costType: row.cost_type,
    reference: row.reference,
    party: row.party,
    description: row.description,
    worked:
      row.person === null
        ? null
        : { name: row.person, wageClass: row.wage_class ?? '', rate: row.rate ?? 0, sheet: row.sheet ?? '' },
    quantity: row.quantity,
    hours: row.hours,
    amount: row.amount,
    commitment: row.commitment,
    uninstalled: row.uninstalled === 1,
    installedOn: row.installed === row.amount ? row.installed_on : null,
    notInstalled: row.uninstalled === 1 ? row.amount - row.installed : 0,
    commitmentLine: row.commitment_line,
    reverses: row.reverses,
    replaces: row.replaces,
    moved: row.moved === 1,
    reversedBy: row.reversed_by,
  };
}

/** Ids of the job and code a filter names; null where one does not exist, so that nothing can match. */
export async function filterIds(
  sql: Reader,
  { job, costCode }: CostLedgerFilter,
): Promise<{ job?: number; costCode?: number } | null> {
  const idOf = async (value: string | undefined, query: typeof JOB_ID) =>
    value === undefined ? undefined : ((await sql.get(query, [value]))?.id ?? null);
  const [jobId, codeId] = await Promise.all([idOf(job, JOB_ID), idOf(costCode, COST_CODE_ID)]);
  return jobId === null || codeId === null ? null : { job: jobId, costCode: codeId };
}
