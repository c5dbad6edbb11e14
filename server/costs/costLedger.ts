import { shape, t, type RowOf } from '../db/fields';
import type { PlainDate } from '../../core/calendar/plainDate';
import type { COST_SORTS, CostPage, CostRow, CostTotals } from '../../wire/costs';
import { LedrinError } from '../../core/errors/ledrinError';
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
  /** The keys of the row before the page, by the filter's order. */
  after?: readonly (string | number)[];
  offset?: number;
  limit?: number;
}

const ORDER: Record<CostSort, string> = {
  dated: 'e.posted_on',
  job: 'e.job_id, e.posted_on',
  amount: 'e.amount',
  party: 'e.party, e.posted_on',
  'cost-code': 'l.cost_code_id, e.posted_on',
};

export interface Condition {
  where: string[];
  bind: unknown[];
  /** Set where the condition looks at the cost line. */
  needsLine: boolean;
}

/** Number, amount in minor units and hours in ten-thousandths of all that matches. */
export async function costTotals(sql: Reader, filter: CostLedgerFilter): Promise<CostTotals> {
  const ids = await filterIds(sql, filter);
  if (!ids) return { count: 0, amount: 0, hours: 0 };
  const { where, bind, needsLine } = conditionOf(filter, ids);
  const totals = await sql.get(
    shape({ count: t.whole, amount: t.cents, hours: t.hours }),
    `SELECT count(*) AS count, coalesce(sum(e.amount), 0) AS amount, coalesce(sum(e.hours), 0) AS hours
      FROM cost_entry e ${needsLine ? 'JOIN cost_line l ON l.id = e.cost_line_id' : ''} WHERE ${where.join(' AND ')}`,
    bind,
  );
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

const Row = shape({
  id: t.whole,
  posting_id: t.whole,
  posted_on: t.day,
  dated: t.day,
  job: t.text,
  section: t.text,
  code: t.text,
  cost_type: t.text,
  reference: t.text,
  party: t.text,
  description: t.text,
  quantity: t.orNull(t.quantity),
  hours: t.orNull(t.hours),
  amount: t.cents,
  commitment: t.orNull(t.text),
  uninstalled: t.flag,
  installed_on: t.orNull(t.day),
  /** What the rows are ordered by, as a JSON list. */
  key: t.text,
});
type Row = RowOf<typeof Row>;

interface Page {
  rows: Row[];
  next: string | null;
}

/** What the rows are ordered by; the id last, so that no two rows are alike. */
function keysOf({ sort }: CostLedgerFilter): string[] {
  return [...ORDER[sort ?? 'dated'].split(', '), 'e.id'];
}

async function pageOfRows(sql: Reader, filter: CostLedgerFilter, { where, bind, needsLine }: Condition): Promise<Page> {
  const direction = filter.descending ? 'DESC' : 'ASC';
  const limit = filter.limit ?? 200;
  const keys = keysOf(filter);
  const order = keys.map((it) => `${it} ${direction}`).join(', ');
  const line = needsLine || filter.sort === 'cost-code' ? 'JOIN cost_line l ON l.id = e.cost_line_id' : '';
  if (filter.after) {
    const marks = filter.after.map((value) => `$${bind.push(value)}`);
    where.push(`(${keys.join(', ')}) ${filter.descending ? '<' : '>'} (${marks.join(', ')})`);
  }
  // Ids first: skipping over half a million rows is cheap while they are only index entries.
  const rows = await sql.all(
    Row,
    `SELECT e.id, e.posting_id, e.posted_on, e.dated, job.number AS job, l.section, c.code, l.cost_type, e.reference, e.party, e.description, e.quantity, e.hours, e.amount,
      m.number AS commitment, e.uninstalled, e.installed_on, json_array(${keys.join(', ')}) AS key
      FROM (SELECT e.id FROM cost_entry e ${line} WHERE ${where.join(' AND ')} ORDER BY ${order} LIMIT ${limit} OFFSET ${filter.after ? 0 : (filter.offset ?? 0)}) page
      JOIN cost_entry e ON e.id = page.id JOIN cost_line l ON l.id = e.cost_line_id JOIN job ON job.id = e.job_id JOIN cost_code c ON c.id = l.cost_code_id
      LEFT JOIN commitment_line n ON n.id = e.commitment_line_id LEFT JOIN commitment m ON m.id = n.commitment_id
      ORDER BY ${order}`,
    bind,
  );
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
    value === undefined ? undefined : ((await sql.get(shape({ id: t.whole }), query, [value]))?.id ?? null);
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
  add('e.posted_on <= ?', filter.asOf);
  if (filter.from) add('e.posted_on >= ?', filter.from);
  if (filter.to) add('e.posted_on <= ?', filter.to);
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
  const threes = threesOf(filter.search ?? '');
  if (threes.length > 0)
    add(
      'e.id IN (SELECT rowid FROM cost_text WHERE cost_text MATCH ?)',
      threes.map((it) => `"${it.replaceAll('"', '""')}"`).join(' AND '),
    );
  if (filter.search)
    add(
      `(e.reference || ' ' || e.party || ' ' || e.description) LIKE ? ESCAPE '\\'`,
      `%${filter.search.replace(/[\\%_]/g, '\\$&')}%`,
    );
  return condition;
}

/** Every three letters in a row of what is searched for: what the index of the words knows. None in less than three letters. */
function threesOf(search: string): string[] {
  const letters = [...search];
  return letters.slice(2).map((_letter, i) => letters.slice(i, i + 3).join(''));
}
