import { loadWorkDates } from './workDates';
import { type estimatedLines } from '../costs/estimatedLines';
import { digestOf } from '../versions/digest';
import type { Reader } from '../db/sql';
import type { PlanInput } from '../../wire/plan';
import { firstWhole, type Span } from '../../core/plan/planned';
import type { WorkDates } from '../../core/instalments/instalment';
import { revisedBudget } from '../../core/forecast/estimateAtCompletion';
import { PLANNED_LINES } from './queries';

/** An amount with the days it lies over; null where no dates are known. */
export interface Spread {
  amount: number;
  span: Span | null;
}

/** Digest of the sections and the dates of a job, as a change of its plan must have seen them. */
export async function planSeen(sql: Reader, jobId: number): Promise<string> {
  return digestOf(await plannedDates(sql, jobId));
}

/** Sections and lines of a plan, with their days. */
export async function plannedDates(sql: Reader, jobId: number): Promise<unknown> {
  const [{ stages }, lines] = [await loadWorkDates(sql, jobId), await plannedLines(sql, jobId)];
  return { sections: [...stages], lines };
}

export function plannedLines(sql: Reader, jobId: number): Promise<(PlanInput['lines'][number] & { id: number })[]> {
  return sql.all(PLANNED_LINES, [jobId]);
}

/** The planned days of a section, else the job's. */
export function spanOf(section: string, { job, stages }: WorkDates): Span | null {
  const of = stages.get(section);
  return firstWhole(...(of ? [{ from: of.startsOn, to: of.finishesOn }] : []), { from: job.startsOn, to: job.finishesOn });
}

/** The revised budget of cost lines over their own planned days, else their section's, else the job's. */
export async function costSpans(
  sql: Reader,
  jobId: number,
  lines: Awaited<ReturnType<typeof estimatedLines>>,
  dates: WorkDates,
): Promise<Spread[]> {
  const own = new Map((await plannedLines(sql, jobId)).map((it) => [it.id, { from: it.startsOn, to: it.finishesOn }]));
  return lines.map((it) => ({ amount: revisedBudget(it.state), span: own.get(it.id) ?? spanOf(it.section, dates) }));
}
