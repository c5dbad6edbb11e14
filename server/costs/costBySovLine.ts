import { SERVED_SOV_LINES } from './queries';
import { partsBySovLine, type Served } from '../../core/contract/servedLines';
import { grouped } from '../../core/lists/grouped';
import { multiplyDivide } from '../../core/money/round';
import { eachInTurns } from '../db/inTurns';
import type { Reader } from '../db/sql';
import { type JobIdentity } from '../jobs/jobByNumber';
import { estimatedLines, type EstimatedLine } from './estimatedLines';

/** What is added up of the cost lines that serve an SOV line. */
export type ServedKey = 'revised' | 'actual' | 'estimate';

/** A cost line that serves an SOV line, and what of its figures falls to it. */
export interface ServingLine extends Record<ServedKey, number> {
  line: EstimatedLine;
}

/** The cost lines behind each SOV line; those whose budget names none under `''`. `there`: the lines, where they were read already. */
export async function servingLines(
  sql: Reader,
  job: JobIdentity,
  asOf: string,
  there: readonly EstimatedLine[] | null = null,
): Promise<Map<string, ServingLine[]>> {
  const [lines, links] = await Promise.all([there ?? estimatedLines(sql, job, asOf), sql.all(SERVED_SOV_LINES, [job.id, asOf])]);
  const served = grouped(links, (it) => it.id);
  const serving = new Map<string, ServingLine[]>();
  await eachInTurns(lines, (line) => {
    const own = (served.get(line.id) ?? []).map((it): Served => ({ sovLine: it.line, amount: it.amount }));
    const revised = partsBySovLine(line.revised, own);
    const actual = partsBySovLine(line.state.cost, own);
    const estimate = partsBySovLine(line.estimate.amount, own);
    for (const sovLine of revised.keys()) {
      const part = (of: ReadonlyMap<string, number>) => of.get(sovLine) ?? 0;
      const serves = serving.get(sovLine) ?? [];
      if (serves.length === 0) serving.set(sovLine, serves);
      serves.push({ line, revised: part(revised), actual: part(actual), estimate: part(estimate) });
    }
  });
  return serving;
}

/** Budget, cost and estimate behind each SOV line; what names none under `''`. */
export async function costBySovLine(
  sql: Reader,
  job: JobIdentity,
  asOf: string,
  there: readonly EstimatedLine[] | null = null,
): Promise<Map<string, Record<ServedKey, number>>> {
  const sumOf = (lines: readonly ServingLine[], key: ServedKey) => lines.reduce((sum, it) => sum + it[key], 0);
  return new Map(
    [...(await servingLines(sql, job, asOf, there))].map(([sovLine, lines]) => [
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
