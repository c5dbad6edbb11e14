import type { PlainDate } from '../calendar/plainDate';
import type { Cents } from '../money/cents';
import { ratio, type Hours, type Rate } from '../money/rate';
import { divideRounded } from '../money/round';

export const REVENUE_METHODS = ['cost-to-cost', 'hours', 'physical', 'completed'] as const;
export type RevenueMethod = (typeof REVENUE_METHODS)[number];

/** One job as of a date, before any recognition. Amounts in minor units. */
export interface JobPosition {
  method: RevenueMethod;
  /** The job's finished date is on or before the date. */
  finished: boolean;
  contractSum: Cents;
  estimate: Cents;
  cost: Cents;
  billed: Cents;
  /** Cost of uninstalled materials; counts with cost-to-cost only. */
  uninstalled: Cents;
  labourHours: Hours;
  labourHoursAtCompletion: Hours;
  /** Work applied for by the last application that is not a draft, without materials. */
  workAppliedFor: Cents;
  /** Cost charged besides, by the date; of a charged job, all that it is paid for. */
  daywork: Daywork;
  /** A charged job has no contract sum but its ceiling, where it has one. */
  charged: { ceiling: Cents | null } | null;
}

/** What is charged besides the schedule of values, docs/rules.md §14: its cost, its charge, and what of it is invoiced. */
export interface Daywork {
  cost: Cents;
  /** Less what was credited in part. */
  charge: Cents;
  /** Invoiced and not credited. */
  billed: Cents;
}

export const NO_DAYWORK: Daywork = { cost: 0, charge: 0, billed: 0 };

/** An exact proportion; `den` is never 0 and the value lies within 0 … 1. */
export interface Fraction {
  num: number;
  den: number;
}

/** One row of the work-in-progress schedule, docs/rules.md §8. */
export interface Progress {
  contractSum: Cents;
  estimate: Cents;
  estimatedProfit: Cents;
  margin: Rate;
  cost: Cents;
  /** What is still to be spent: estimate less cost. */
  toComplete: Cents;
  /** Uninstalled materials that the method counts apart: 0 but for cost-to-cost. */
  uninstalled: Cents;
  complete: Rate;
  earned: Cents;
  profitToDate: Cents;
  billed: Cents;
  overbilled: Cents;
  underbilled: Cents;
  backlog: Cents;
  lossProvision: Cents;
  /** Of cost and estimate, what is charged besides: the share complete is worked without it. 0 of a charged job. */
  dayworkCost: Cents;
}

/** True where the job counts as finished on `asOf`. */
export function isFinished(finishedOn: PlainDate | null, asOf: PlainDate): boolean {
  return finishedOn !== null && finishedOn <= asOf;
}

/** Fraction complete by the job's method, without daywork: within 0 … 1, and 0 where the divisor is 0 or less. */
export function fractionComplete(job: JobPosition): Fraction {
  if (job.charged) return within(job.cost, job.estimate);
  const apart = job.uninstalled + job.daywork.cost;
  switch (job.method) {
    case 'cost-to-cost':
      return within(job.cost - apart, job.estimate - apart);
    case 'hours':
      return within(job.labourHours, job.labourHoursAtCompletion);
    case 'physical':
      return within(job.workAppliedFor, job.contractSum);
    case 'completed':
      return { num: job.finished ? 1 : 0, den: 1 };
  }
}

function within(num: number, den: number): Fraction {
  if (den <= 0 || num <= 0) return { num: 0, den: 1 };
  return num >= den ? { num: 1, den: 1 } : { num, den };
}

/** The whole row: earned revenue is rounded once, everything else follows by adding and taking off. */
export function workInProgress(job: JobPosition): Progress {
  return job.charged ? chargedProgress(job, job.charged.ceiling) : contractProgress(job);
}

/** A job of a contract sum: the method works on it, on cost and on estimate without daywork, which is then earned at its charge. */
function contractProgress(job: JobPosition): Progress {
  const { daywork } = job;
  const uninstalled = job.method === 'cost-to-cost' ? job.uninstalled : 0;
  const deferred = job.method === 'completed' && !job.finished;
  const earned = deferred ? 0 : earnedRevenue(job.contractSum, uninstalled, fractionComplete(job));
  const lossProvision = expectedLossProvision(job, earned, deferred);
  const profit = deferred ? daywork.charge - daywork.cost : earned + daywork.charge - job.cost;
  return rowOf(job, {
    contractSum: job.contractSum + daywork.charge,
    uninstalled,
    earned: earned + daywork.charge,
    profitToDate: profit - lossProvision,
    lossProvision,
    billed: job.billed + daywork.billed,
    dayworkCost: daywork.cost,
  });
}

/** A charged job: what is charged is earned, up to its ceiling, where it has one. */
function chargedProgress(job: JobPosition, ceiling: Cents | null): Progress {
  const { charge, billed } = job.daywork;
  const contractSum = ceiling ?? charge;
  const earned = ceiling === null ? charge : Math.min(charge, ceiling);
  const loss = ceiling === null ? 0 : job.estimate - contractSum;
  const lossProvision = loss > 0 ? Math.max(0, loss - (job.cost - earned)) : 0;
  const profitToDate = earned - job.cost - lossProvision;
  return rowOf(job, { contractSum, uninstalled: 0, earned, profitToDate, lossProvision, billed, dayworkCost: 0 });
}

type Worked = Pick<
  Progress,
  'contractSum' | 'uninstalled' | 'earned' | 'profitToDate' | 'lossProvision' | 'billed' | 'dayworkCost'
>;

function rowOf(job: JobPosition, it: Worked): Progress {
  const fraction = fractionComplete(job);
  return {
    contractSum: it.contractSum,
    estimate: job.estimate,
    estimatedProfit: it.contractSum - job.estimate,
    margin: ratio(it.contractSum - job.estimate, it.contractSum),
    cost: job.cost,
    toComplete: job.estimate - job.cost,
    uninstalled: it.uninstalled,
    complete: ratio(fraction.num, fraction.den),
    earned: it.earned,
    profitToDate: it.profitToDate === 0 ? 0 : it.profitToDate,
    billed: it.billed,
    overbilled: Math.max(0, it.billed - it.earned),
    underbilled: Math.max(0, it.earned - it.billed),
    backlog: it.contractSum - it.earned,
    lossProvision: it.lossProvision,
    dayworkCost: it.dayworkCost,
  };
}

/** (CS − U) × f + U, rounded once. */
function earnedRevenue(contractSum: Cents, uninstalled: Cents, { num, den }: Fraction): Cents {
  return divideRounded(BigInt(contractSum - uninstalled) * BigInt(num) + BigInt(uninstalled) * BigInt(den), BigInt(den));
}

/** Percent complete with as many places as it takes to follow earned revenue to the penny, at least one: `82.585729 %`. */
export function followedPercent(job: JobPosition): string {
  const fraction = fractionComplete(job);
  const uninstalled = job.method === 'cost-to-cost' ? job.uninstalled : 0;
  const earned = earnedRevenue(job.contractSum, uninstalled, fraction);
  for (let places = 1; ; places++) {
    const den = 10 ** (places + 2);
    const num = divideRounded(BigInt(fraction.num) * BigInt(den), BigInt(fraction.den));
    if (places === MOST_PLACES || earnedRevenue(job.contractSum, uninstalled, { num, den }) === earned)
      return `${(num / 10 ** places).toFixed(places)} %`;
  }
}

/** More are of no use: a contract sum of 15 digits is followed by them. */
const MOST_PLACES = 13;

/** What must be set aside so that the whole expected loss of the contract is taken; daywork is none of it. */
function expectedLossProvision(job: JobPosition, earned: Cents, deferred: boolean): Cents {
  const loss = job.estimate - job.daywork.cost - job.contractSum;
  if (loss <= 0) return 0;
  return deferred ? loss : Math.max(0, loss - (job.cost - job.daywork.cost - earned));
}

/** The total row: sums, and percentages from the sums; complete = (ΣC − ΣDc − ΣU) ÷ (ΣE − ΣDc − ΣU), at most 1. */
export function totalProgress(rows: readonly Progress[]): Progress {
  const total = { ...NO_PROGRESS };
  for (const row of rows) for (const key of SUMMED) total[key] += row[key];
  const apart = total.uninstalled + total.dayworkCost;
  const done = within(total.cost - apart, total.estimate - apart);
  return { ...total, margin: ratio(total.estimatedProfit, total.contractSum), complete: ratio(done.num, done.den) };
}

const NO_PROGRESS: Progress = {
  contractSum: 0,
  estimate: 0,
  estimatedProfit: 0,
  margin: 0,
  cost: 0,
  toComplete: 0,
  uninstalled: 0,
  complete: 0,
  earned: 0,
  profitToDate: 0,
  billed: 0,
  overbilled: 0,
  underbilled: 0,
  backlog: 0,
  lossProvision: 0,
  dayworkCost: 0,
};
const SUMMED = (Object.keys(NO_PROGRESS) as (keyof Progress)[]).filter((key) => key !== 'margin' && key !== 'complete');
