import type { Cents } from '../money/cents';
import { WHOLE, type Hours } from '../money/rate';
import { multiplyDivide } from '../money/round';

export const FORECAST_METHODS = ['to-complete', 'percent', 'hours'] as const;
export type ForecastMethod = (typeof FORECAST_METHODS)[number];

/** The latest forecast of a line dated on or before the report, with what stood on the line on its date F. */
export interface LineForecast {
  method: ForecastMethod;
  /** to-complete: minor units; percent: millionths; hours: ten-thousandths of an hour to go. */
  value: number;
  asOf: string;
  costThen: Cents;
  hoursThen: Hours;
  revisedThen: Cents;
  hoursBudgetedThen: Hours;
}

/** Everything known of one cost line on a date. Amounts in minor units, cost positive. */
export interface CostLineState {
  /** True where a budget row, or a change approved by the date, stands behind the line. */
  budgeted: boolean;
  original: Cents;
  /** Change orders approved, and transfers made, by the date. */
  changes: Cents;
  /** Of those, what transfers moved to the line (or from it, below zero). */
  transfers: Cents;
  /** Of the changes, dated after the forecast that counts; 0 where there is none. */
  changesSinceForecast: Cents;
  hoursBudgeted: Hours;
  hoursChangedSinceForecast: Hours;
  cost: Cents;
  hours: Hours;
  /**
   * Of cost and hours, what is charged as daywork by the date: it stands beside budget and forecast (docs/rules.md §14). 0 on a charged
   * job. What stood on the day of the forecast is without it.
   */
  dayworkCost: Cents;
  dayworkHours: Hours;
  openCommitment: Cents;
  forecast: LineForecast | null;
}

/** A line nothing speaks of yet. */
export const EMPTY_LINE: CostLineState = {
  budgeted: false,
  original: 0,
  changes: 0,
  transfers: 0,
  changesSinceForecast: 0,
  hoursBudgeted: 0,
  hoursChangedSinceForecast: 0,
  cost: 0,
  hours: 0,
  dayworkCost: 0,
  dayworkHours: 0,
  openCommitment: 0,
  forecast: null,
};

/** Which rule of docs/rules.md §7 gave the estimate. */
export type EstimateBasis = 'finished' | 'budget' | 'spent' | ForecastMethod;

export interface LineEstimate {
  amount: Cents;
  basis: EstimateBasis;
  /** What the forecast alone says, changes since then included; null where none counts. */
  forecastSays: Cents | null;
}

/** What a line was budgeted for: original + changes, without daywork. */
export function contractBudget(line: Pick<CostLineState, 'original' | 'changes'>): Cents {
  return line.original + line.changes;
}

/** Original + changes + the cost of daywork, for which the client pays besides. */
export function revisedBudget(line: Pick<CostLineState, 'original' | 'changes' | 'dayworkCost'>): Cents {
  return contractBudget(line) + line.dayworkCost;
}

/** Estimate at completion of one line (docs/rules.md §7). `finished`: the job's finished date is on or before the report's. */
export function estimateAtCompletion(line: CostLineState, finished: boolean): LineEstimate {
  const estimate = contractEstimate(line, finished);
  return { ...estimate, amount: estimate.amount + line.dayworkCost };
}

/** The estimate of what is not daywork. */
function contractEstimate(line: CostLineState, finished: boolean): LineEstimate {
  const spent = line.cost - line.dayworkCost + line.openCommitment;
  if (finished) return { amount: spent, basis: 'finished', forecastSays: null };
  const forecast = line.forecast && forecastEstimate(line.forecast);
  if (line.forecast && forecast !== null) {
    const says = forecast + line.changesSinceForecast;
    return { amount: Math.max(says, spent), basis: says >= spent ? line.forecast.method : 'spent', forecastSays: says };
  }
  const revised = contractBudget(line);
  if (line.budgeted && revised >= spent) return { amount: revised, basis: 'budget', forecastSays: null };
  return { amount: spent, basis: 'spent', forecastSays: null };
}

/** e of docs/rules.md §7, as of the forecast's own date; null where its method finds nothing to work on. */
function forecastEstimate(forecast: LineForecast): Cents | null {
  const { value, costThen } = forecast;
  switch (forecast.method) {
    case 'to-complete':
      return costThen + value;
    case 'percent':
      return value === 0 || costThen === 0 ? null : multiplyDivide(costThen, WHOLE, value);
    case 'hours':
      return hoursEstimate(forecast);
  }
}

function hoursEstimate({ value, costThen, hoursThen, revisedThen, hoursBudgetedThen }: LineForecast): Cents | null {
  if (hoursThen > 0) return multiplyDivide(hoursThen + value, costThen, hoursThen);
  if (hoursBudgetedThen > 0) return multiplyDivide(hoursThen + value, revisedThen, hoursBudgetedThen);
  return null;
}

/** The hours of a line that are not daywork. */
export const contractHours = (line: Pick<CostLineState, 'hours' | 'dayworkHours'>): Hours => line.hours - line.dayworkHours;

/** Labour hours at completion of one line, for the hours method (docs/rules.md §8): without daywork. */
export function hoursAtCompletion(line: CostLineState, finished: boolean): Hours {
  const hours = contractHours(line);
  if (finished) return hours;
  const { forecast } = line;
  if (forecast?.method !== 'hours') return Math.max(line.hoursBudgeted, hours);
  return Math.max(forecast.hoursThen + forecast.value + line.hoursChangedSinceForecast, hours);
}
