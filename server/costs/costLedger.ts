import type { PlainDate } from '../../core/calendar/plainDate';
import type { COST_SORTS, CostPage, CostRow } from '../../wire/costs';
import type { Reader } from '../db/sql';

type CostSort = (typeof COST_SORTS)[number];

/** What part of the cost ledger is asked for. Text filters match the whole value, but for `search`. */
export interface CostLedgerFilter {
  asOf: PlainDate;
  job?: string;
  section?: string;
  costCode?: string;
  costType?: string;
  party?: string;
  from?: PlainDate;
  to?: PlainDate;
  /** Part of reference, party or description. */
  search?: string;
  /** All entries of one posting. */
  posting?: number;
  commitment?: string;
  /** Uninstalled material as of the date only. */
  uninstalled?: boolean;
  sort?: CostSort;
  descending?: boolean;
  offset?: number;
  limit?: number;
}

const ORDER: Record<CostSort, string> = {
  dated: 'e.dated',
  job: 'e.job_id, e.dated',
  amount: 'e.amount',
  party: 'e.party, e.dated',
  'cost-code': 'l.cost_code_id, e.dated',
};

export interface Condition {
  where: string[];
  bind: unknown[];
  /** Set where the condition looks at the cost line. */
  needsLine: boolean;
}

/** One page of the cost ledger with the totals of all that matches. */
export async function costLedgerPage(sql: Reader, filter: CostLedgerFilter): Promise<CostPage> {
  const ids = await filterIds(sql, filter);
  if (!ids) return { rows: [], count: 0, amount: 0, hours: 0 };
  const condition = conditionOf(filter, ids);
  const from = `cost_entry e ${condition.needsLine ? 'JOIN cost_line l ON l.id = e.cost_line_id' : ''} WHERE ${condition.where.join(' AND ')}`;
  const [totals, rows] = await Promise.all([
    sql.get<{ count: number; amount: number; hours: number }>(
      `SELECT count(*) AS count, coalesce(sum(e.amount), 0) AS amount, coalesce(sum(e.hours), 0) AS hours FROM ${from}`,
      condition.bind,
    ),
    pageRows(sql, filter, condition),
  ]);
  return { ...totals!, rows };
}

/** All rows that match, in the filter's order, a page at a time: each begins after the last row of the one before it. */
export async function* costLedgerPages(sql: Reader, filter: CostLedgerFilter, size: number): AsyncGenerator<CostRow[]> {
  const ids = await filterIds(sql, filter);
  if (!ids) return;
  const keys = [...orderOf(filter), 'e.id'];
  let after: unknown[] | null = null;
  for (;;) {
    const condition = conditionOf(filter, ids);
    if (after !== null) {
      const marks = after.map((value) => `$${condition.bind.push(value)}`);
      condition.where.push(`(${keys.join(', ')}) ${filter.descending ? '<' : '>'} (${marks.join(', ')})`);
    }
    const rows: Row[] = await pageOfRows(sql, { ...filter, limit: size, offset: 0 }, condition);
    if (rows.length > 0) yield rows.map(costRow);
    const last = rows.at(-1);
    if (!last || rows.length < size) return;
    after = keys.map((_key, i) => last[`key${i}` as 'key0']);
  }
}

async function pageRows(sql: Reader, filter: CostLedgerFilter, condition: Condition): Promise<CostRow[]> {
  return (await pageOfRows(sql, filter, condition)).map(costRow);
}

interface Row {
  id: number;
  posting_id: number;
  dated: string;
  job: string;
  section: string;
  code: string;
  cost_type: string;
  reference: string;
  party: string;
  description: string;
  quantity: number | null;
  hours: number | null;
  amount: number;
  commitment: string | null;
  uninstalled: number;
  installed_on: string | null;
  /** What the rows are ordered by: `key0`, `key1` … */
  key0: unknown;
}

function orderOf({ sort }: CostLedgerFilter): string[] {
  return ORDER[sort ?? 'dated'].split(', ');
}

async function pageOfRows(sql: Reader, filter: CostLedgerFilter, { where, bind, needsLine }: Condition): Promise<Row[]> {
  const direction = filter.descending ? 'DESC' : 'ASC';
  const keys = [...orderOf(filter), 'e.id'];
  const order = keys.map((it) => `${it} ${direction}`).join(', ');
  const line = needsLine || filter.sort === 'cost-code' ? 'JOIN cost_line l ON l.id = e.cost_line_id' : '';
  // Ids first: skipping over half a million rows is cheap while they are only index entries.
  return sql.all<Row>(
    `SELECT e.id, e.posting_id, e.dated, job.number AS job, l.section, c.code, l.cost_type, e.reference, e.party, e.description, e.quantity, e.hours, e.amount,
      m.number AS commitment, e.uninstalled, e.installed_on, ${keys.map((key, i) => `${key} AS key${i}`).join(', ')}
      FROM (SELECT e.id FROM cost_entry e ${line} WHERE ${where.join(' AND ')} ORDER BY ${order} LIMIT ${Number(filter.limit ?? 200)} OFFSET ${Number(filter.offset ?? 0)}) page
      JOIN cost_entry e ON e.id = page.id JOIN cost_line l ON l.id = e.cost_line_id JOIN job ON job.id = e.job_id JOIN cost_code c ON c.id = l.cost_code_id
      LEFT JOIN commitment_line n ON n.id = e.commitment_line_id LEFT JOIN commitment m ON m.id = n.commitment_id
      ORDER BY ${order}`,
    bind,
  );
}

function costRow(row: Row): CostRow {
  return {
    id: row.id,
    postingId: row.posting_id,
    dated: row.dated,
    job: row.job,
    section: row.section,
    costCode: row.code,
    costType: row.cost_type,
    reference: row.reference,
    party: row.party,
    description: row.description,
    quantity: row.quantity,
    hours: row.hours,
    amount: row.amount,
    commitment: row.commitment,
    uninstalled: row.uninstalled === 1,
    installedOn: row.installed_on,
  };
}

/** Ids of the job and code a filter names; null where one does not exist, so that nothing can match. */
export async function filterIds(
  sql: Reader,
  { job, costCode }: CostLedgerFilter,
): Promise<{ job?: number; costCode?: number } | null> {
  const idOf = async (value: string | undefined, query: string) =>
    value === undefined ? undefined : ((await sql.get<{ id: number }>(query, [value]))?.id ?? null);
  const [jobId, codeId] = await Promise.all([
    idOf(job, 'SELECT id FROM job WHERE number = $1'),
    idOf(costCode, 'SELECT id FROM cost_code WHERE code = $1'),
  ]);
  return jobId === null || codeId === null ? null : { job: jobId, costCode: codeId };
}

export function conditionOf(filter: CostLedgerFilter, ids: { job?: number; costCode?: number }): Condition {
  const condition: Condition = { where: [], bind: [], needsLine: false };
  const add = (sql: string, value: unknown, ofLine = false) => {
    condition.bind.push(value);
    condition.where.push(sql.replaceAll('?', `$${condition.bind.length}`));
    condition.needsLine ||= ofLine;
  };
  add('e.dated <= ?', filter.asOf);
  if (filter.from) add('e.dated >= ?', filter.from);
  if (filter.to) add('e.dated <= ?', filter.to);
  if (ids.job !== undefined) add('e.job_id = ?', ids.job);
  if (ids.costCode !== undefined) add('l.cost_code_id = ?', ids.costCode, true);
  if (filter.section !== undefined) add('l.section = ?', filter.section, true);
  if (filter.costType !== undefined) add('l.cost_type = ?', filter.costType, true);
  if (filter.party !== undefined) add('e.party = ?', filter.party);
  if (filter.posting !== undefined) add('e.posting_id = ?', filter.posting);
  if (filter.commitment !== undefined)
    add(
      'e.commitment_line_id IN (SELECT n.id FROM commitment_line n JOIN commitment m ON m.id = n.commitment_id WHERE m.number = ?)',
      filter.commitment,
    );
  if (filter.uninstalled) add('e.uninstalled = 1 AND (e.installed_on IS NULL OR e.installed_on > ?)', filter.asOf);
  if (filter.search)
    add(
      `(e.reference || ' ' || e.party || ' ' || e.description) LIKE ? ESCAPE '\\'`,
      `%${filter.search.replace(/[\\%_]/g, '\\$&')}%`,
    );
  return condition;
}
