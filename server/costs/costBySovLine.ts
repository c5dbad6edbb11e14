import { BUDGET_BY_SOV_LINE } from './queries';
import { known } from '../../core/errors/known';
import { multiplyDivide } from '../../core/money/round';
import type { Reader } from '../db/sql';
import { type JobIdentity } from '../jobs/jobByNumber';
import { estimatedLines, type EstimatedLine } from '../reports/estimateVsActualReport';

/** A cost line that serves an SOV line, and its share of it. */
export interface ServingLine {
  line: EstimatedLine;
  /** The part of an amount of the cost line that falls to the SOV line: by budget, where it serves several. */
  share: (amount: number) => number;
}

/** The cost lines behind each SOV line. */
export async function servingLines(sql: Reader, job: JobIdentity, asOf: string): Promise<Map<string, ServingLine[]>> {
  const [lines, links] = await Promise.all([estimatedLines(sql, job, asOf), sql.all(BUDGET_BY_SOV_LINE, [job.id])]);
  const whole = new Map<number, number>();
  for (const link of links) whole.set(link.id, (whole.get(link.id) ?? 0) + link.amount);
  const byId = new Map(lines.map((line) => [line.id, line]));
  const serving = new Map<string, ServingLine[]>();
  for (const { id, line: sovLine, amount } of links) {
    const line = byId.get(id);
    const total = known(whole, id);
    if (!line || total === 0) continue;
    const share = (value: number) => multiplyDivide(value, Math.abs(amount), Math.abs(total));
    serving.set(sovLine, [...(serving.get(sovLine) ?? []), { line, share }]);
  }
  return serving;
}

/** What is added up of the cost lines that serve an SOV line. */
export const SERVED = {
  revised: (line: EstimatedLine) => line.revised,
  actual: (line: EstimatedLine) => line.state.cost,
  estimate: (line: EstimatedLine) => line.estimate.amount,
};
export type ServedKey = keyof typeof SERVED;

/** Budget, cost and estimate behind each SOV line. */
export async function costBySovLine(
  sql: Reader,
  job: JobIdentity,
  asOf: string,
): Promise<Map<string, Record<ServedKey, number>>> {
  const sumOf = (lines: readonly ServingLine[], key: ServedKey) =>
    lines.reduce((sum, it) => sum + it.share(SERVED[key](it.line)), 0);
  return new Map(
    [...(await servingLines(sql, job, asOf))].map(([sovLine, lines]) => [
      sovLine,
      { revised: sumOf(lines, 'revised'), actual: sumOf(lines, 'actual'), estimate: sumOf(lines, 'estimate') },
    ]),
  );
}

/** What cost says an SOV line has earned: scheduled value × cost ÷ estimate, within the line; null where nothing can be said. */
export function earnedByCost(scheduled: number, served: Record<ServedKey, number> | undefined): number | null {
  if (!served || served.estimate <= 0) return null;
  return multiplyDivide(scheduled, Math.max(0, Math.min(served.actual, served.estimate)), served.estimate);
}
