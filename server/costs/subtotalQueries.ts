import { shape, t } from '../db/fields';
import { query } from '../db/query';

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

export type Grouping = keyof typeof GROUPS;

const SubtotalRow = shape({ key: t.text, name: t.text, count: t.whole, hours: t.hours, amount: t.cents });

/** Subtotals of the entries under conditions on `e` and `l`; `party` is whose cost an entry is, for whoever asks. */
export function subtotals(by: Grouping, where: readonly string[], party: string) {
  const { key, name } = by === 'party' ? { key: party, name: GROUPS.party.name } : GROUPS[by];
  return query(
    SubtotalRow,
    `SELECT ${key} AS key, ${name} AS name, count(*) AS count, coalesce(sum(e.hours), 0) AS hours, sum(e.amount) AS amount
      FROM cost_entry e JOIN cost_line l ON l.id = e.cost_line_id WHERE ${where.join(' AND ')} GROUP BY ${by === 'party' ? party : GROUPED_BY[by]} ORDER BY 1`,
  );
}

/** The same from the totals of the months to `$1`, under conditions on `l`. */
export function monthlySubtotals(by: Exclude<Grouping, 'month' | 'party'>, where: readonly string[]) {
  const ofLine = (text: string) => text.replaceAll('e.job_id', 'l.job_id');
  const { key, name } = GROUPS[by];
  return query(
    SubtotalRow,
    `SELECT ${ofLine(key)} AS key, ${ofLine(name)} AS name, sum(t.entries) AS count, sum(t.hours) AS hours, sum(t.cost) AS amount FROM cost_line l
      JOIN cost_total t ON t.cost_line_id = l.id AND t.month = (SELECT max(x.month) FROM cost_total x WHERE x.cost_line_id = l.id AND x.month <= $1)
      WHERE 1 ${where.join(' ')} GROUP BY ${ofLine(GROUPED_BY[by])} ORDER BY 1`,
  );
}
