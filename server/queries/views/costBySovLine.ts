import { multiplyDivide } from '../../../core/money/round';
import type { Sql } from '../../db/sql';
import { type JobIdentity } from '../jobs';
import { estimatedLines } from '../reports/estimateVsActualReport';

/** Budget, cost and estimate of the cost lines behind each SOV line, shared out by budget where one serves several. */
export async function costBySovLine(
  sql: Sql,
  job: JobIdentity,
  asOf: string,
): Promise<Map<string, { revised: number; actual: number; estimate: number }>> {
  const [lines, links] = await Promise.all([
    estimatedLines(sql, job, asOf),
    sql.all<{ id: number; line: string; amount: number }>(
      'SELECT b.cost_line_id AS id, s.line, sum(b.amount) AS amount FROM budget_line b JOIN sov_line s ON s.id = b.sov_line_id WHERE s.job_id = $1 GROUP BY 1, 2',
      [job.id],
    ),
  ]);
  const whole = new Map<number, number>();
  for (const link of links) whole.set(link.id, (whole.get(link.id) ?? 0) + link.amount);
  const byId = new Map(lines.map((line) => [line.id, line]));
  const result = new Map<string, { revised: number; actual: number; estimate: number }>();
  for (const { id, line, amount } of links) {
    const cost = byId.get(id);
    const total = whole.get(id)!;
    if (!cost || total === 0) continue;
    const share = (value: number) => multiplyDivide(value, Math.abs(amount), Math.abs(total));
    const sum = result.get(line) ?? { revised: 0, actual: 0, estimate: 0 };
    result.set(line, {
      revised: sum.revised + share(cost.revised),
      actual: sum.actual + share(cost.state.cost),
      estimate: sum.estimate + share(cost.estimate.amount),
    });
  }
  return result;
}
