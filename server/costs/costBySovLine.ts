import { SERVED_SOV_LINES } from './queries';
import { partsBySovLine, type Served } from '../../core/contract/servedLines';
import { multiplyDivide } from '../../core/money/round';
import type { Reader } from '../db/sql';
import { type JobIdentity } from '../jobs/jobByNumber';
import { estimatedLines, type EstimatedLine } from './estimatedLines';

/** What is added up of the cost lines that serve an SOV line. */
export const SERVED = {
  revised: (line: EstimatedLine) => line.revised,
  actual: (line: EstimatedLine) => line.state.cost,
  estimate: (line: EstimatedLine) => line.estimate.amount,
};
export type ServedKey = keyof typeof SERVED;
const KEYS = Object.keys(SERVED) as ServedKey[];

/** A cost line that serves an SOV line, and what of its figures falls to it. */
export interface ServingLine extends Record<ServedKey, number> {
  line: EstimatedLine;
}

/** The cost lines behind each SOV line; those whose budget names none under `''`. */
export async function servingLines(sql: Reader, job: JobIdentity, asOf: string): Promise<Map<string, ServingLine[]>> {
  const [lines, links] = await Promise.all([estimatedLines(sql, job, asOf), sql.all(SERVED_SOV_LINES, [job.id, asOf])]);
  const served = new Map<number, Served[]>();
  for (const { id, line: sovLine, amount } of links) served.set(id, [...(served.get(id) ?? []), { sovLine, amount }]);
  const serving = new Map<string, ServingLine[]>();
  for (const line of lines) {
    const [revised, actual, estimate] = KEYS.map((key) => partsBySovLine(SERVED[key](line), served.get(line.id) ?? []));
    for (const sovLine of revised?.keys() ?? []) {
      const part = (of: Map<string, number> | undefined) => of?.get(sovLine) ?? 0;
      const own = { line, revised: part(revised), actual: part(actual), estimate: part(estimate) };
      serving.set(sovLine, [...(serving.get(sovLine) ?? []), own]);
    }
  }
  return serving;
}

/** Budget, cost and estimate behind each SOV line; what names none under `''`. */
export async function costBySovLine(
  sql: Reader,
  job: JobIdentity,
  asOf: string,
): Promise<Map<string, Record<ServedKey, number>>> {
  const sumOf = (lines: readonly ServingLine[], key: ServedKey) => lines.reduce((sum, it) => sum + it[key], 0);
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
