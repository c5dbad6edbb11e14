import { shape, t } from '../db/fields';
import { query } from '../db/query';
import type { PlainDate } from '../../core/calendar/plainDate';
import type { COST_SORTS } from '../../wire/costs';

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
  /** Entries by their ids. */
  ids?: readonly number[];
  sort?: CostSort;
  descending?: boolean;
  /** The keys of the row before the page, by the filter's order. */
  after?: readonly (string | number)[];
  offset?: number;
  limit?: number;
  /** Asked by somebody who may not see who earns what an hour: of time, neither the person nor the rate is said or looked for. */
  withoutPay?: boolean;
}

/** Whose cost an entry is, as far as whoever asks may know. */
export const partyOf = ({ withoutPay }: Pick<CostLedgerFilter, 'withoutPay'>): string =>
  withoutPay ? "CASE WHEN e.time_line_id IS NULL THEN e.party ELSE '' END" : 'e.party';

const ORDER: Record<CostSort, string> = {
  dated: 'e.posted_on',
  job: 'e.job_id, e.posted_on',
  amount: 'e.amount',
  party: 'e.party, e.posted_on',
  'cost-code': 'l.cost_code_id, e.posted_on',
};

/** What of the cost ledger is asked for, in SQL on `e` and `l`, with what is bound in it. */
export interface Condition {
  where: string[];
  bind: unknown[];
  /** Set where the condition looks at the cost line. */
  needsLine: boolean;
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
  if (filter.party !== undefined) add(`${partyOf(filter)} = ?`, filter.party);
  if (filter.posting !== undefined) add('e.posting_id = ?', filter.posting);
  if (filter.commitment !== undefined)
    add(
      'e.commitment_line_id IN (SELECT n.id FROM commitment_line n JOIN commitment m ON m.id = n.commitment_id WHERE m.number = ?)',
      filter.commitment,
    );
  if (filter.ids) add('e.id IN (SELECT value FROM json_each(?))', JSON.stringify(filter.ids));
  const threes = allThreesOf(filter.search ?? '');
  if (threes !== '') add('e.id IN (SELECT rowid FROM cost_text WHERE cost_text MATCH ?)', threes);
  if (filter.search)
    add(
      `(e.reference || ' ' || ${partyOf(filter)} || ' ' || e.description) LIKE ? ESCAPE '\\'`,
      `%${filter.search.replace(/[\\%_]/g, '\\$&')}%`,
    );
  return condition;
}

/** What the index of the words is asked for: every three letters in a row of what is searched for; nothing in less than three letters. */
export function allThreesOf(search: string): string {
  const letters = [...search];
  const threes = letters.slice(2).map((_letter, i) => letters.slice(i, i + 3).join(''));
  return threes.map((it) => `"${it.replaceAll('"', '""')}"`).join(' AND ');
}

/** What the rows are ordered by; the id last, so that no two rows are alike. */
export function keysOf(filter: CostLedgerFilter): string[] {
  const keys = ORDER[filter.sort ?? 'dated'].split(', ');
  return [...keys.map((it) => (it === 'e.party' ? partyOf(filter) : it)), 'e.id'];
}

export const JOB_ID = query(shape({ id: t.whole }), 'SELECT id FROM job WHERE number = $1');

export const COST_CODE_ID = query(shape({ id: t.whole }), 'SELECT id FROM cost_code WHERE code = $1');

export const ledgerTotals = ({ where, needsLine }: Condition) =>
  query(
    shape({ count: t.whole, amount: t.cents, hours: t.hours }),
    `SELECT count(*) AS count, coalesce(sum(e.amount), 0) AS amount, coalesce(sum(e.hours), 0) AS hours
      FROM cost_entry e ${needsLine ? 'JOIN cost_line l ON l.id = e.cost_line_id' : ''} WHERE ${where.join(' AND ')}`,
  );

const LedgerRow = shape({
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
  installed: t.cents,
  installed_on: t.orNull(t.day),
  commitment_line: t.orNull(t.text),
  reverses: t.orNull(t.whole),
  replaces: t.orNull(t.whole),
  reversed_by: t.orNull(t.whole),
  moved: t.flag,
  /** Whose time it is, by wage class and rate, and its week sheet; null for cost that is no time. */
  person: t.orNull(t.text),
  wage_class: t.orNull(t.text),
  rate: t.orNull(t.unitCost),
  sheet: t.orNull(t.text),
  /** What the rows are ordered by, as a JSON list. */
  key: t.text,
});

/** `$1` is the date of the ledger. */
const INSTALLED_TO_DATE = (what: string, none: string | number) =>
  `coalesce((SELECT ${what} FROM installation WHERE cost_entry_id = e.id AND undone_at IS NULL AND installed_on <= $1), ${none})`;

/** A page of rows: from `after` on, where it is given, whose keys join what `condition` binds. */
export function ledgerRows(filter: CostLedgerFilter, { where, bind, needsLine }: Condition, limit: number) {
  const direction = filter.descending ? 'DESC' : 'ASC';
  const keys = keysOf(filter);
  const order = keys.map((it) => `${it} ${direction}`).join(', ');
  const pay = (column: string) => (filter.withoutPay ? 'NULL' : column);
  const line = needsLine || filter.sort === 'cost-code' ? 'JOIN cost_line l ON l.id = e.cost_line_id' : '';
  if (filter.after) {
    const marks = filter.after.map((value) => `$${bind.push(value)}`);
    where.push(`(${keys.join(', ')}) ${filter.descending ? '<' : '>'} (${marks.join(', ')})`);
  }
  // Ids first: skipping over half a million rows is cheap while they are only index entries.
  return query(
    LedgerRow,
    `SELECT e.id, e.posting_id, e.posted_on, e.dated, job.number AS job, l.section, c.code, l.cost_type, e.reference, ${partyOf(filter)} AS party, e.description, e.quantity, e.hours, e.amount,
      m.number AS commitment, m.number || '/' || n.line AS commitment_line, e.uninstalled,
      ${INSTALLED_TO_DATE('sum(amount)', 0)} AS installed, ${INSTALLED_TO_DATE('max(installed_on)', 'NULL')} AS installed_on,
      (SELECT posting_id FROM cost_entry WHERE id = e.reverses_entry_id) AS reverses,
      (SELECT posting_id FROM cost_entry WHERE id = e.replaces_entry_id) AS replaces, r.posting_id AS reversed_by,
      EXISTS (SELECT 1 FROM cost_entry WHERE replaces_entry_id = e.id) AS moved, ${pay('w.name')} AS person,
      ${pay("coalesce(nullif(x.wage_class, ''), w.wage_class)")} AS wage_class, ${pay('x.rate')} AS rate, ${pay('x.sheet')} AS sheet, json_array(${keys.join(', ')}) AS key
      FROM (SELECT e.id FROM cost_entry e ${line} WHERE ${where.join(' AND ')} ORDER BY ${order} LIMIT ${limit} OFFSET ${filter.after ? 0 : (filter.offset ?? 0)}) page
      JOIN cost_entry e ON e.id = page.id JOIN cost_line l ON l.id = e.cost_line_id JOIN job ON job.id = e.job_id JOIN cost_code c ON c.id = l.cost_code_id
      LEFT JOIN cost_entry r ON r.reverses_entry_id = e.id LEFT JOIN commitment_line n ON n.id = e.commitment_line_id LEFT JOIN commitment m ON m.id = n.commitment_id
      LEFT JOIN time_line x ON x.id = e.time_line_id LEFT JOIN employee w ON w.id = x.employee_id
      ORDER BY ${order}`,
  );
}
