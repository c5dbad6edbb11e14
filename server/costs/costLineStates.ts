import {
  budgetChanges,
  latestForecasts,
  dayworkOfLines,
  DAYWORK_THEN,
  lineTotals,
  openCommitments,
  originalBudget,
  postedBetween,
  ANY_DAYWORK,
  STOOD_THEN,
} from './lineStateQueries';
import { at, known, present } from '../../core/errors/known';
import { addMonths, firstDay, lastDay, periodOf, type PlainDate } from '../../core/calendar/plainDate';
import { monthIndex } from '../../core/calendar/month';
import { EMPTY_LINE, type CostLineState, type LineForecast } from '../../core/forecast/estimateAtCompletion';
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
 * entries of the last month only where that month is not complete. Forecasts count that were made by `forecastsBy`.
 */
export async function loadCostLines(
  sql: Reader,
  asOf: PlainDate,
  jobId: number | null,
  forecastsBy: PlainDate = asOf,
): Promise<LoadedCostLine[]> {
  const complete = asOf === lastDay(periodOf(asOf));
  const [lines, ...additions] = await Promise.all([
    loadTotals(sql, complete ? monthIndex(asOf) : monthIndex(asOf) - 1, jobId),
    complete ? ([] as PartMonth[]) : loadPartMonth(sql, asOf, jobId),
    loadBudget(sql, jobId),
    loadCommitments(sql, asOf, jobId),
    loadForecasts(sql, forecastsBy, asOf, jobId),
    loadChanges(sql, asOf, jobId),
    packed<PartMonth>(sql, dayworkOfLines(jobId), [asOf]),
  ]);
  const [partMonth, budget, commitments, forecasts, changes, daywork] = additions;
  const byId = new Map(lines.map((line) => [line.id, line]));
  addPartMonth(partMonth, byId);
  addBudget(budget, byId);
  addCommitments(commitments, byId);
  addForecasts(forecasts, byId);
  addChanges(changes, byId);
  for (const [id, cost, hours] of daywork) Object.assign(known(byId, id), { dayworkCost: cost, dayworkHours: hours });
  return lines.filter((line) => line.present);
}

type PartMonth = [id: number, amount: number, hours: number];
type Budget = [id: number, amount: number, hours: number];
type Change = [id: number, amount: number, hours: number, on: PlainDate, transfer: 0 | 1];
type Commitment = [id: number, open: number];
type Forecast = [id: number, method: LineForecast['method'], value: number, asOf: PlainDate, costThen: number, hoursThen: number];

async function packed<T extends unknown[]>(sql: Reader, query: typeof STOOD_THEN, bind: readonly unknown[] = []): Promise<T[]> {
  return JSON.parse(present(await sql.get(query, bind)).rows) as T[];
}

async function loadTotals(sql: Reader, month: number, jobId: number | null): Promise<LoadedCostLine[]> {
  const rows = await packed<[number, number, number, number | null, number | null]>(sql, lineTotals(jobId), [month]);
  return rows.map(([id, jobId, labour, cost, hours]) => ({
    id,
    jobId,
    labour: labour === 1,
    present: cost !== null,
    ...EMPTY_LINE,
    cost: cost ?? 0,
    hours: hours ?? 0,
  }));
}

function loadPartMonth(sql: Reader, asOf: PlainDate, jobId: number | null): Promise<PartMonth[]> {
  return packed<PartMonth>(sql, postedBetween(jobId), [firstDay(periodOf(asOf)), asOf]);
}

function addPartMonth(rows: readonly PartMonth[], lines: Map<number, LoadedCostLine>): void {
  for (const [id, amount, hours] of rows) {
    const line = known(lines, id);
    line.cost += amount;
    line.hours += hours;
    line.present = true;
  }
}

function loadBudget(sql: Reader, jobId: number | null): Promise<Budget[]> {
  return packed<Budget>(sql, originalBudget(jobId));
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

function loadChanges(sql: Reader, asOf: PlainDate, jobId: number | null): Promise<Change[]> {
  return packed<Change>(sql, budgetChanges(jobId), [asOf]);
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
function loadCommitments(sql: Reader, asOf: PlainDate, jobId: number | null): Promise<Commitment[]> {
  return packed<Commitment>(sql, openCommitments(jobId), [asOf]);
}

function addCommitments(rows: readonly Commitment[], lines: Map<number, LoadedCostLine>): void {
  for (const [id, open] of rows) {
    const line = known(lines, id);
    line.openCommitment += open;
    line.present = true;
  }
}

/**
 * The latest forecast of each line made by a date, with cost and hours as they stood on the forecast's own day, without what is daywork
 * by `asOf`.
 */
async function loadForecasts(sql: Reader, madeBy: PlainDate, asOf: PlainDate, jobId: number | null): Promise<Forecast[]> {
  const rows = await packed<[number, LineForecast['method'], number, string]>(sql, latestForecasts(jobId), [madeBy]);
  if (rows.length === 0) return [];
  const asked = rows.map(([id, , , on]) => [id, on] as const);
  const then = await stoodThen(sql, asked);
  const daywork = (await isAnyDaywork(sql))
    ? await packed<[number, number]>(sql, DAYWORK_THEN, [JSON.stringify(asked), asOf])
    : [];
  return rows.map((row, i) => {
    const [[cost, hours], [dayworkCost, dayworkHours]] = [at(then, i), daywork[i] ?? [0, 0]];
    return [...row, cost - dayworkCost, hours - dayworkHours];
  });
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

const isAnyDaywork = async (sql: Reader) => (await sql.get(ANY_DAYWORK)) !== undefined;

/** Cost and hours of each line on a day of its own, in the order asked. */
async function stoodThen(sql: Reader, asked: readonly (readonly [number, PlainDate])[]): Promise<[number, number][]> {
  const points = asked.map(([id, on]) => {
    const complete = on === lastDay(periodOf(on));
    const month = complete ? periodOf(on) : addMonths(periodOf(on), -1);
    return [id, monthIndex(firstDay(month)), complete ? '' : firstDay(periodOf(on)), on];
  });
  return packed<[number, number]>(sql, STOOD_THEN, [
    JSON.stringify(points),
    JSON.stringify(points.map((point) => (point[2] === '' ? [0, 0, '9', '0'] : point))),
  ]);
}
