import { addDays, type PlainDate } from '../calendar/plainDate';
import type { Cents } from '../money/cents';
import type { Rate } from '../money/rate';

/** What an instalment falls due at: a day agreed, or the start or the finish of its stages. */
export const DUE_AT = ['day', 'start', 'finish'] as const;
export type DueAt = (typeof DUE_AT)[number];

/** One bill of a fixed billing schedule. */
export interface Instalment {
  name: string;
  /** The sections it waits for; none means the job as a whole. */
  stages: readonly string[];
  due: DueAt;
  /** The day agreed; null where it is not agreed yet, and always with `start` and `finish`. */
  day: PlainDate | null;
  /** Days after the start or the finish; below zero for before. 0 with a day agreed. */
  days: number;
  /** The SOV lines it is taken from: those of its stages, or all of the job. */
  from: 'stages' | 'job';
  /** Percent of the scheduled value of what it is taken from; null where it is an amount. */
  rate: Rate | null;
  /** Minor units; null where it is a percent. */
  amount: Cents | null;
}

/** A stage's days as planned, and as they came. */
export interface StageDates {
  startsOn: PlainDate | null;
  finishesOn: PlainDate | null;
  startedOn: PlainDate | null;
  finishedOn: PlainDate | null;
}

/** The days of a job and of its stages by name. */
export interface WorkDates {
  job: StageDates;
  stages: ReadonlyMap<string, StageDates>;
}

export interface DueDay {
  /** The day it is expected to fall due: as it came, else as planned. Null where no dates are known. */
  expected: PlainDate | null;
  /** The day it fell due; null until the start or finish it waits for has come. */
  reached: PlainDate | null;
}

/**
 * When an instalment falls due (docs/rules.md). Stages bundled have begun with the first of them and are finished with
 * the last. What a stage has no date for is taken from the job, for what is expected; never for what has come.
 */
export function dueDay(it: Instalment, { job, stages }: WorkDates): DueDay {
  if (it.due === 'day') return { expected: it.day, reached: it.day };
  const waited = it.stages.length === 0 ? [job] : it.stages.map((name) => stages.get(name) ?? NO_DATES);
  const [planned, came] = it.due === 'start' ? (['startsOn', 'startedOn'] as const) : (['finishesOn', 'finishedOn'] as const);
  const expected = waited.map((dates) => dates[came] ?? dates[planned] ?? job[planned]);
  const reached = waited.map((dates) => dates[came]);
  const pick = it.due === 'start' ? earliest : latest;
  const after = (day: PlainDate | null) => (day === null ? null : addDays(day, it.days));
  const reachedDay = after(pick(reached));
  return { expected: reachedDay ?? after(pick(expected)), reached: reachedDay };
}

const NO_DATES: StageDates = { startsOn: null, finishesOn: null, startedOn: null, finishedOn: null };

function earliest(days: readonly (PlainDate | null)[]): PlainDate | null {
  return days.filter((it) => it !== null).sort()[0] ?? null;
}

/** The last of them; null where one is not known. */
function latest(days: readonly (PlainDate | null)[]): PlainDate | null {
  return days.includes(null) ? null : ([...days].sort().at(-1) ?? null);
}
