import { WHOLE, type Hours, type Rate } from '../money/rate';
import { divideRounded } from '../money/round';
import { contractHours, type CostLineState } from './estimateAtCompletion';

/** Hours to the last fraction, in ten-thousandths: `n ÷ d`. A sum of them is rounded once. */
interface Exact {
  n: bigint;
  d: bigint;
}
const exact = (hours: Hours): Exact => ({ n: BigInt(hours), d: 1n });
const plus = (a: Exact, b: Exact): Exact => ({ n: a.n * b.d + b.n * a.d, d: a.d * b.d });
const larger = (a: Exact, b: Exact): Exact => (a.n * b.d >= b.n * a.d ? a : b);
const rounded = ({ n, d }: Exact): number => divideRounded(n, d);
/** `part ÷ whole`; of nothing, nothing. */
const share = (part: Hours, { n, d }: Exact): Rate => (n === 0n ? 0 : divideRounded(BigInt(part) * d * BigInt(WHOLE), n));

/** Of a cost line of labour, what its hours are worked from; hours charged as daywork are left out. */
export type LabourLine = Pick<
  CostLineState,
  'hoursBudgeted' | 'hoursChangedSinceForecast' | 'hours' | 'dayworkHours' | 'forecast'
>;

/** How far a task is: hours in ten-thousandths, shares in millionths. */
export interface LabourProgress {
  budgeted: Hours;
  used: Hours;
  /** Used ÷ budgeted. */
  percentUsed: Rate;
  percentDone: Rate;
  toFinish: Hours;
  atCompletion: Hours;
  /** More than budgeted; below zero, less. */
  over: Hours;
}

/** What the forecast that counts says of a line's hours; null where it says nothing of them (docs/rules.md §7a). */
function forecastHours({ forecast, hoursChangedSinceForecast }: LabourLine): Exact | null {
  if (forecast?.method === 'hours') return exact(forecast.hoursThen + forecast.value + hoursChangedSinceForecast);
  if (forecast?.method !== 'percent' || forecast.value === 0 || forecast.hoursThen === 0) return null;
  return plus({ n: BigInt(forecast.hoursThen) * BigInt(WHOLE), d: BigInt(forecast.value) }, exact(hoursChangedSinceForecast));
}

function completionOf(line: LabourLine, finished: boolean): Exact {
  const used = exact(contractHours(line));
  if (finished) return used;
  return larger(forecastHours(line) ?? exact(line.hoursBudgeted), used);
}

function doneOf(line: LabourLine, finished: boolean, atCompletion: Exact): Rate {
  if (finished) return contractHours(line) === 0 ? 0 : WHOLE;
  const { forecast } = line;
  const says = forecast?.method === 'percent' && forecastHours(line) !== null;
  return says ? forecast.value : share(contractHours(line), atCompletion);
}

const progressOf = (budgeted: Hours, used: Hours, atCompletion: Exact, percentDone: Rate): LabourProgress => ({
  budgeted,
  used,
  percentDone,
  percentUsed: share(used, exact(budgeted)),
  atCompletion: rounded(atCompletion),
  toFinish: rounded(plus(atCompletion, exact(-used))),
  over: rounded(plus(atCompletion, exact(-budgeted))),
});

/**
 * Whether what is done of a line is only what its hours say, and these are used up: then nobody knows what is done, nor what is to
 * finish, until somebody says so. A line on which nothing was worked is not done.
 */
export function isDoneUnknown(line: LabourLine, finished: boolean): boolean {
  return !finished && forecastHours(line) === null && contractHours(line) > 0 && contractHours(line) >= line.hoursBudgeted;
}

/** Labour to finish of one line. `finished`: the job's finished date is on or before the day looked at. */
export function labourProgress(line: LabourLine, finished: boolean): LabourProgress {
  const atCompletion = completionOf(line, finished);
  return progressOf(line.hoursBudgeted, contractHours(line), atCompletion, doneOf(line, finished, atCompletion));
}

/** The same of several lines together: sums before they are rounded; done is used ÷ at completion. */
export function labourTotal(lines: readonly { line: LabourLine; finished: boolean }[]): LabourProgress {
  const sum = (value: (line: LabourLine) => Hours) => lines.reduce((total, { line }) => total + value(line), 0);
  const [budgeted, used] = [sum((it) => it.hoursBudgeted), sum(contractHours)];
  const atCompletion = lines.reduce((total, { line, finished }) => plus(total, completionOf(line, finished)), exact(0));
  return progressOf(budgeted, used, atCompletion, share(used, atCompletion));
}
