import { at, known, present } from '../../core/errors/known';
import { shape, t } from '../db/fields';
import { addMonths, firstDay, lastDay, periodOf, type PlainDate } from '../../core/calendar/plainDate';
import { monthIndex } from '../../core/calendar/month';
import type { CostLineState, LineForecast } from '../../core/forecast/estimateAtCompletion';
import type { Reader } from '../db/sql';

/** A cost line with its state on a date, under the ids of the database. */
export interface LoadedCostLine extends CostLineState {
  id: number;
  jobId: number;
  labour: boolean;
  /** Something speaks of the line by the date: budget, change, cost, commitment or forecast. */
  present: boolean;
}

/**
 * State of every cost line as of `asOf`, of one job or of all. Cost comes from the monthly totals, and from the
 * entries of the last month only where that month is not complete.
 */
export async function loadCostLines(sql: Reader, asOf: PlainDate, jobId: number | null): Promise<LoadedCostLine[]> {
  const job = jobId === null ? '' : `AND l.job_id = ${Number(jobId)}`;
  const complete = asOf === lastDay(periodOf(asOf));
  const [lines, ...additions] = await Promise.all([
    loadTotals(sql, complete ? monthIndex(asOf) : monthIndex(asOf) - 1, job),
    complete ? ([] as PartMonth[]) : loadPartMonth(sql, asOf, jobId),
    loadBudget(sql, job),
    loadCommitments(sql, asOf, job),
    loadForecasts(sql, asOf, job),
    loadChanges(sql, asOf, job),
  ]);
  const [partMonth, budget, commitments, forecasts, changes] = additions;
  const byId = new Map(lines.map((line) => [line.id, line]));
  addPartMonth(partMonth, byId);
  addBudget(budget, byId);
  addCommitments(commitments, byId);
  addForecasts(forecasts, byId);
  addChanges(changes, byId);
  return lines.filter((line) => line.present);
}

type PartMonth = [id: number, amount: number, hours: number];
type Budget = [id: number, amount: number, hours: number];
type Change = [id: number, amount: number, hours: number, on: PlainDate, transfer: 0 | 1];
type Commitment = [id: number, open: number];
type Forecast = [id: number, method: LineForecast['method'], value: number, asOf: PlainDate, costThen: number, hoursThen: number];

/** Rows come as one JSON text: one object per row would cost more than the query. */
async function packed<T extends unknown[]>(
  sql: Reader,
  columns: string,
  from: string,
  bind: readonly unknown[] = [],
): Promise<T[]> {
  const row = await sql.get(
    shape({ rows: t.text }),
    `SELECT json_group_array(json_array(${columns})) AS rows FROM ${from}`,
    bind,
  );
  return JSON.parse(present(row).rows) as T[];
}

async function loadTotals(sql: Reader, month: number, job: string): Promise<LoadedCostLine[]> {
  const rows = await packed<[number, number, number, number | null, number | null]>(
    sql,
    `l.id, l.job_id, l.cost_type = 'labour', t.cost, t.hours`,
    `cost_line l LEFT JOIN cost_total t ON t.cost_line_id = l.id
      AND t.month = (SELECT max(x.month) FROM cost_total x WHERE x.cost_line_id = l.id AND x.month <= $1) WHERE 1 ${job}`,
    [month],
  );
  return rows.map(([id, jobId, labour, cost, hours]) => ({
    id,
    jobId,
    labour: labour === 1,
    present: cost !== null,
    budgeted: false,
    original: 0,
    changes: 0,
    transfers: 0,
    changesSinceForecast: 0,
    hoursBudgeted: 0,
    hoursChangedSinceForecast: 0,
    cost: cost ?? 0,
    hours: hours ?? 0,
    openCommitment: 0,
    forecast: null,
  }));
}

function loadPartMonth(sql: Reader, asOf: PlainDate, jobId: number | null): Promise<PartMonth[]> {
  const job = jobId === null ? '' : `AND job_id = ${Number(jobId)}`;
  return packed<PartMonth>(
    sql,
    'cost_line_id, amount, hours',
    `(SELECT cost_line_id, sum(amount) AS amount, sum(coalesce(hours, 0)) AS hours FROM cost_entry WHERE posted_on BETWEEN $1 AND $2 ${job} GROUP BY cost_line_id)`,
    [firstDay(periodOf(asOf)), asOf],
  );
}

function addPartMonth(rows: readonly PartMonth[], lines: Map<number, LoadedCostLine>): void {
  for (const [id, amount, hours] of rows) {
    const line = known(lines, id);
    line.cost += amount;
    line.hours += hours;
    line.present = true;
  }
}

function loadBudget(sql: Reader, job: string): Promise<Budget[]> {
  const from = job === '' ? 'budget_line b' : `budget_line b JOIN cost_line l ON l.id = b.cost_line_id WHERE 1 ${job}`;
  return packed<Budget>(
    sql,
    'id, amount, hours',
    `(SELECT b.cost_line_id AS id, sum(b.amount) AS amount, sum(coalesce(b.hours, 0)) AS hours FROM ${from} GROUP BY b.cost_line_id)`,
  );
}

function addBudget(rows: readonly Budget[], lines: Map<number, LoadedCostLine>): void {
  for (const [id, amount, hours] of rows) {
    const line = known(lines, id);
    line.original = amount;
    line.hoursBudgeted = hours;
    line.budgeted = true;
    line.present = true;
  }
}

function loadChanges(sql: Reader, asOf: PlainDate, job: string): Promise<Change[]> {
  return packed<Change>(
    sql,
    'id, amount, hours, dated, transfer',
    `(SELECT c.cost_line_id AS id, c.amount, coalesce(c.hours, 0) AS hours, c.decided_on AS dated, 0 AS transfer
        FROM approved_change_line c JOIN cost_line l ON l.id = c.cost_line_id WHERE c.side = 'cost' AND c.decided_on <= $1 ${job}
      UNION ALL SELECT x.cost_line_id, x.amount, coalesce(x.hours, 0), t.dated, 1
        FROM budget_transfer_line x JOIN budget_transfer t ON t.id = x.transfer_id JOIN cost_line l ON l.id = x.cost_line_id WHERE t.dated <= $1 ${job})`,
    [asOf],
  );
}

/** Cost lines of change orders approved, and transfers made, by the date; those after the forecast that counts are listed separately too. */
function addChanges(rows: readonly Change[], lines: Map<number, LoadedCostLine>): void {
  for (const [id, amount, hours, on, transfer] of rows) {
    const line = known(lines, id);
    line.changes += amount;
    if (transfer) line.transfers += amount;
    line.hoursBudgeted += hours;
    line.budgeted = true;
    line.present = true;
    if (!line.forecast) continue;
    if (on > line.forecast.asOf) {
      line.changesSinceForecast += amount;
      line.hoursChangedSinceForecast += hours;
    } else {
      line.forecast.revisedThen += amount;
      line.forecast.hoursBudgetedThen += hours;
    }
  }
}

/** docs/rules.md §5: max(0, committed − invoiced), each commitment line by itself; 0 once closed. */
function loadCommitments(sql: Reader, asOf: PlainDate, job: string): Promise<Commitment[]> {
  return packed<Commitment>(
    sql,
    'id, open',
    `(SELECT m.cost_line_id AS id, CASE WHEN m.closed_on <= $1 THEN 0 ELSE
        max(0, m.amount - coalesce((SELECT sum(e.amount) FROM cost_entry e WHERE e.commitment_line_id = m.id AND e.posted_on <= $1), 0)) END AS open
      FROM commitment_line m JOIN commitment c ON c.id = m.commitment_id JOIN cost_line l ON l.id = m.cost_line_id WHERE c.dated <= $1 ${job})`,
    [asOf],
  );
}

function addCommitments(rows: readonly Commitment[], lines: Map<number, LoadedCostLine>): void {
  for (const [id, open] of rows) {
    const line = known(lines, id);
    line.openCommitment += open;
    line.present = true;
  }
}

/** The latest forecast of each line by the date, with cost and hours as they stood on the forecast's own date. */
async function loadForecasts(sql: Reader, asOf: PlainDate, job: string): Promise<Forecast[]> {
  const rows = await packed<[number, LineForecast['method'], number, string]>(
    sql,
    'f.cost_line_id, f.method, f.value, f.as_of',
    `forecast f JOIN cost_line l ON l.id = f.cost_line_id WHERE f.as_of = (SELECT max(x.as_of) FROM forecast x WHERE x.cost_line_id = f.cost_line_id AND x.as_of <= $1) ${job}`,
    [asOf],
  );
  if (rows.length === 0) return [];
  const then = await stoodThen(
    sql,
    rows.map(([id, , , on]) => [id, on]),
  );
  return rows.map((row, i) => [...row, ...at(then, i)]);
}

/** To be added after the budget and before the changes: what a forecast was made on is the budget with the changes by its date. */
function addForecasts(rows: readonly Forecast[], lines: Map<number, LoadedCostLine>): void {
  for (const [id, method, value, asOf, costThen, hoursThen] of rows) {
    const line = known(lines, id);
    line.present = true;
    line.forecast = {
      method,
      value,
      asOf,
      costThen,
      hoursThen,
      revisedThen: line.original,
      hoursBudgetedThen: line.hoursBudgeted,
    };
  }
}

/** Cost and hours of each line on a day of its own, in the order asked. */
async function stoodThen(sql: Reader, asked: readonly (readonly [number, PlainDate])[]): Promise<[number, number][]> {
  const points = asked.map(([id, on]) => {
    const complete = on === lastDay(periodOf(on));
    const month = complete ? periodOf(on) : addMonths(periodOf(on), -1);
    return [id, monthIndex(firstDay(month)), complete ? '' : firstDay(periodOf(on)), on];
  });
  const rows = await packed<[number, number]>(
    sql,
    'cost, hours',
    `(SELECT coalesce(t.cost, 0) + coalesce(p.cost, 0) AS cost, coalesce(t.hours, 0) + coalesce(p.hours, 0) AS hours, a.key
      FROM json_each($1) a
      LEFT JOIN cost_total t ON t.cost_line_id = a.value->>0 AND t.month = (SELECT max(x.month) FROM cost_total x WHERE x.cost_line_id = a.value->>0 AND x.month <= a.value->>1)
      LEFT JOIN (SELECT b.key AS key, sum(e.amount) AS cost, sum(coalesce(e.hours, 0)) AS hours FROM json_each($2) b
        JOIN cost_line l ON l.id = b.value->>0 JOIN cost_entry e ON e.job_id = l.job_id AND e.posted_on BETWEEN b.value->>2 AND b.value->>3 AND e.cost_line_id = l.id
        GROUP BY b.key) p ON p.key = a.key
      ORDER BY a.key)`,
    [JSON.stringify(points), JSON.stringify(points.map((point) => (point[2] === '' ? [0, 0, '9', '0'] : point)))],
  );
  return rows;
}
