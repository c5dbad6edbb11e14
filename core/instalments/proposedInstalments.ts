import { at } from '../errors/known';
import { addDays, addMonths, lastDay, periodOf, type PlainDate } from '../calendar/plainDate';
import type { CostType } from '../costs/costType';
import { allocate } from '../money/allocate';
import { sum, type Cents } from '../money/cents';
import { ratio, WHOLE, type Rate } from '../money/rate';
import type { Instalment } from './instalment';

/** The most instalments a schedule may have. */
export const MAX_INSTALMENTS = 500;

export interface Intervals {
  from: PlainDate;
  /** Instalments fall due up to this day, included. */
  until: PlainDate;
  every: number;
  unit: 'weeks' | 'months';
}

/**
 * The days of an interval, the first included. By months the day of the month is saved, or its last day where the
 * month is shorter; from the last day of a month always to the last. Never more than one beyond MOST_INSTALMENTS.
 */
export function daysAtIntervals({ from, until, every, unit }: Intervals): PlainDate[] {
  const days: PlainDate[] = [];
  for (let step = 0; days.length <= MAX_INSTALMENTS; step += every) {
    const day = unit === 'weeks' ? addDays(from, 7 * step) : sameDay(from, step);
    if (day > until) break;
    days.push(day);
  }
  return days;
}

function sameDay(from: PlainDate, months: number): PlainDate {
  const [period, end] = [periodOf(from), lastDay(periodOf(from))];
  const last = lastDay(addMonths(period, months));
  if (from === end) return last;
  const day = `${addMonths(period, months)}-${from.slice(8)}`;
  return day > last ? last : day;
}

/** An amount in equal instalments, one each day, to the penny: the odd pennies to the first. */
export function atIntervals(days: readonly PlainDate[], amount: Cents): Instalment[] {
  return allocate(
    amount,
    days.map(() => 1n),
  ).map((part, i) => ({
    name: `Instalment ${i + 1} of ${days.length}`,
    stages: [],
    due: 'day' as const,
    day: at(days, i),
    days: 0,
    from: 'job' as const,
    rate: null,
    amount: part,
  }));
}

/** A stage with what its budget is made of. */
export interface StageCost {
  name: string;
  /** Revised budget by cost type. */
  costs: Readonly<Partial<Record<CostType, Cents>>>;
}

export interface StagePattern {
  stages: readonly StageCost[];
  /** Cost types whose share of the price is billed at the start of the stage; the others at its finish. */
  atStart: readonly CostType[];
  /** How many stages go on one bill, in their order. */
  bundle: number;
  /** Days after the start or finish. */
  days: number;
}

/**
 * Bills each stage, or each bundle of stages, in full: at its start the share of its price that the budget has for the
 * cost types of the start, at its finish the rest. A stage without budget is billed at its finish.
 */
export function byStages({ stages, atStart, bundle, days }: StagePattern): Instalment[] {
  const bundles: StageCost[][] = [];
  for (let i = 0; i < stages.length; i += bundle) bundles.push(stages.slice(i, i + bundle));
  return bundles.flatMap((of) => {
    const names = of.map((it) => it.name);
    const early = sum(of.flatMap((it) => atStart.map((type) => it.costs[type] ?? 0)));
    const all = sum(of.flatMap((it) => Object.values(it.costs)));
    const share = all <= 0 ? 0 : Math.min(WHOLE, Math.max(0, ratio(early, all)));
    const label = names.length > 1 ? `${names[0]} to ${names.at(-1)}` : at(names, 0);
    const one = (rate: Rate, due: 'start' | 'finish'): Instalment[] =>
      rate === 0
        ? []
        : [
            {
              name: `${label}, ${due}`,
              stages: names,
              due,
              day: null,
              days,
              from: 'stages' as const,
              rate,
              amount: null,
            },
          ];
    return [...one(share, 'start'), ...one(WHOLE - share, 'finish')];
  });
}

/** A part of the price as the client agreed to pay it, with the quotation. */
export interface AgreedPayment {
  name: string;
  rate: Rate | null;
  amount: Cents | null;
  dueOn: PlainDate | null;
  stage: string;
}

/** The payments of an accepted quotation as instalments; one that names a stage of the job falls due when it is finished. */
export function byPayments(payments: readonly AgreedPayment[], stages: readonly string[]): Instalment[] {
  return payments.map((it) => {
    const named = stages.find((name) => name.toLowerCase() === it.stage.trim().toLowerCase());
    const day = { due: 'day' as const, stages: [], day: it.dueOn };
    const when = it.dueOn !== null || named === undefined ? day : { due: 'finish' as const, stages: [named], day: null };
    return { name: it.name, ...when, days: 0, from: 'job' as const, rate: it.rate, amount: it.amount };
  });
}
