import { present } from '../../core/errors/known';
import { COST_TYPES } from '../../core/costs/costType';
import { shape, t } from '../db/fields';
import { LedrinError } from '../../core/errors/ledrinError';
import { LAST_DAY, daysBetween } from '../../core/calendar/plainDate';
import { spentOnPending } from '../../core/changes/changeOrder';
import { revisedBudget } from '../../core/forecast/estimateAtCompletion';
import type { ChangeSummary, ChangeView, RegisteredChange, TransferView } from '../../wire/changes';
import type { Reader } from '../db/sql';
import { loadCostLines } from '../costs/costLineStates';
import { jobByNumber } from '../jobs/jobByNumber';

/** Changes with their totals; `$1` is the date: one decided after it was still open then. */
const SUMMARIES = `SELECT o.id, job.number AS job, job.name AS jobName, o.number, o.title, CASE WHEN o.decided_on > $1 THEN 'issued' ELSE o.status END AS status,
  o.raised_on AS raisedOn, o.issued_on AS issuedOn, CASE WHEN o.decided_on > $1 THEN NULL ELSE o.decided_on END AS decidedOn, o.reference, o.reason, o.asked_by AS askedBy,
  o.days_asked AS daysAsked, CASE WHEN o.decided_on > $1 THEN NULL ELSE o.days_granted END AS daysGranted,
  CASE WHEN o.decided_on > $1 THEN '' ELSE o.decided_by END AS decidedBy, CASE WHEN o.decided_on > $1 THEN '' ELSE o.decision END AS decision,
  o.version, o.saved_by AS savedBy, o.saved_at AS savedAt,
  coalesce((SELECT sum(coalesce(asked, amount)) FROM change_order_line WHERE change_order_id = o.id AND side = 'price'), 0) AS asked,
  coalesce((SELECT sum(CASE WHEN o.decided_on > $1 THEN coalesce(asked, amount) ELSE amount END) FROM change_order_line WHERE change_order_id = o.id AND side = 'price'), 0) AS price,
  coalesce((SELECT sum(amount) FROM change_order_line WHERE change_order_id = o.id AND side = 'cost'), 0) AS cost,
  coalesce((SELECT sum(hours) FROM change_order_line WHERE change_order_id = o.id AND side = 'cost'), 0) AS hours
  FROM change_order o JOIN job ON job.id = o.job_id`;

type Loaded = ChangeSummary & Pick<ChangeView, 'version' | 'savedBy' | 'savedAt'> & { id: number };

/** A row of `SUMMARIES`. */
const SummaryRow = shape({
  job: t.text,
  jobName: t.text,
  number: t.text,
  title: t.text,
  status: t.text,
  raisedOn: t.day,
  issuedOn: t.orNull(t.day),
  decidedOn: t.orNull(t.day),
  reference: t.text,
  reason: t.text,
  askedBy: t.text,
  daysAsked: t.orNull(t.whole),
  daysGranted: t.orNull(t.whole),
  decidedBy: t.text,
  decision: t.text,
  asked: t.cents,
  price: t.cents,
  cost: t.cents,
  hours: t.hours,
  version: t.whole,
  savedBy: t.text,
  savedAt: t.moment,
  id: t.whole,
});

/** The changes of a job raised by the date, in the order they were raised. */
export async function jobChanges(sql: Reader, job: string, asOf: string): Promise<ChangeSummary[]> {
  const { id } = await jobByNumber(sql, job, 'job');
  const rows = await sql.all(SummaryRow, `${SUMMARIES} WHERE o.job_id = $2 AND o.raised_on <= $1 ORDER BY o.raised_on, o.id`, [
    asOf,
    id,
  ]);
  return rows.map(({ id: _id, ...row }) => row);
}

/** One change whole, as it stands now; its effect is worked by the command that can try it out. */
export async function loadChange(sql: Reader, job: string, number: string): Promise<Omit<ChangeView, 'effect'> & { id: number }> {
  const { id: jobId } = await jobByNumber(sql, job, 'job');
  const row = await sql.get(SummaryRow, `${SUMMARIES} WHERE o.job_id = $2 AND o.number = $3`, [LAST_DAY, jobId, number]);
  if (!row) throw new LedrinError('not-found', `Job ${job} has no change order ${number}`);
  const priceLines = await sql.all(
    shape({
      quantity: t.orNull(t.quantity),
      line: t.text,
      section: t.text,
      description: t.text,
      unit: t.text,
      amount: t.cents,
      asked: t.orNull(t.cents),
      isNew: t.flag,
    }),
    `SELECT s.line, CASE WHEN l.section <> '' THEN l.section ELSE s.section END AS section, CASE WHEN l.description <> '' THEN l.description ELSE s.description END AS description,
      l.quantity, l.unit, l.amount, l.asked, s.original = 0 AS isNew FROM change_order_line l JOIN sov_line s ON s.id = l.sov_line_id
      WHERE l.change_order_id = $1 AND l.side = 'price' ORDER BY l.id`,
    [row.id],
  );
  const costLines = await sql.all(
    shape({
      section: t.text,
      costCode: t.text,
      costType: t.oneOf(...COST_TYPES),
      sovLine: t.text,
      description: t.text,
      quantity: t.orNull(t.quantity),
      unit: t.text,
      hours: t.orNull(t.hours),
      amount: t.cents,
    }),
    `SELECT k.section, c.code AS costCode, k.cost_type AS costType, coalesce(s.line, '') AS sovLine, l.description, l.quantity, l.unit, l.hours, l.amount
      FROM change_order_line l JOIN cost_line k ON k.id = l.cost_line_id JOIN cost_code c ON c.id = k.cost_code_id LEFT JOIN sov_line s ON s.id = l.sov_line_id
      WHERE l.change_order_id = $1 AND l.side = 'cost' ORDER BY l.id`,
    [row.id],
  );
  return { ...row, priceLines: priceLines.map((it) => ({ ...it, isNew: it.isNew === 1 })), costLines };
}

/** Extension granted, days by changes approved by the date: how much later the planned finish is. */
export async function daysGranted(sql: Reader, jobId: number, asOf: string): Promise<number> {
  const row = await sql.get(
    shape({ days: t.whole }),
    `SELECT coalesce(sum(days_granted), 0) AS days FROM change_order WHERE job_id = $1 AND status = 'approved' AND decided_on <= $2`,
    [jobId, asOf],
  );
  return present(row).days;
}

/** Every change of every job raised by the date: open ones with their age and the cost already on them. */
export async function changeRegister(sql: Reader, asOf: string): Promise<RegisteredChange[]> {
  const rows = await sql.all(
    SummaryRow,
    `${SUMMARIES} WHERE o.raised_on <= $1 AND job.status <> 'tender' ORDER BY job.number, o.raised_on, o.id`,
    [asOf],
  );
  const spent = await spentOnOpen(sql, asOf, rows);
  return rows.map(({ id, ...row }) => ({
    ...row,
    age: row.status === 'issued' && row.issuedOn && row.issuedOn <= asOf ? daysBetween(row.issuedOn, asOf) : null,
    spent: spent.get(id) ?? 0,
  }));
}

async function spentOnOpen(sql: Reader, asOf: string, rows: readonly Loaded[]): Promise<Map<number, number>> {
  const open = rows.filter((it) => it.status === 'draft' || it.status === 'issued');
  if (open.length === 0) return new Map();
  const lines = await sql.all(
    shape({ change: t.whole, costLineId: t.whole, amount: t.cents }),
    `SELECT change_order_id AS change, cost_line_id AS costLineId, sum(amount) AS amount FROM change_order_line
      WHERE side = 'cost' AND change_order_id IN (SELECT value FROM json_each($1)) GROUP BY 1, 2 ORDER BY 1, 2`,
    [JSON.stringify(open.map((it) => it.id))],
  );
  const jobs = await sql.all(shape({ id: t.whole }), 'SELECT id FROM job WHERE number IN (SELECT value FROM json_each($1))', [
    JSON.stringify([...new Set(open.map((it) => it.job))]),
  ]);
  const beyond = new Map<number, number>();
  for (const { id } of jobs)
    for (const line of await loadCostLines(sql, asOf, id)) beyond.set(line.id, line.cost - revisedBudget(line));
  return spentOnPending(
    open.map(({ id }) => ({ id, lines: lines.filter((it) => it.change === id) })),
    beyond,
  );
}

/** The budget transfers of a job by the date, newest first. */
export async function jobTransfers(sql: Reader, job: string, asOf: string): Promise<TransferView[]> {
  const { id } = await jobByNumber(sql, job, 'job');
  const rows = await sql.all(
    shape({ number: t.whole, reason: t.text, dated: t.day, actor: t.text, lines: t.text }),
    `SELECT t.number, t.dated, t.reason, t.actor, (SELECT json_group_array(json_object('section', k.section, 'costCode', c.code, 'costType', k.cost_type,
        'amount', l.amount, 'hours', l.hours) ORDER BY l.id) FROM budget_transfer_line l JOIN cost_line k ON k.id = l.cost_line_id JOIN cost_code c ON c.id = k.cost_code_id
        WHERE l.transfer_id = t.id) AS lines
      FROM budget_transfer t WHERE t.job_id = $1 AND t.dated <= $2 ORDER BY t.dated DESC, t.number DESC`,
    [id, asOf],
  );
  return rows.map((row) => ({ ...row, lines: JSON.parse(row.lines) as TransferView['lines'] }));
}
