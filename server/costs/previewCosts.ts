import type { CostBatchInput, CostPreview } from '../../wire/costs';
import { displayExact } from '../../core/money/display';
import type { Database } from '../db/database';
import type { Sql } from '../db/sql';
import { loadCompany } from '../company/company';
import { loadPositions, type LoadedPosition } from '../jobs/jobPositions';
import { jobByNumber } from '../jobs/jobByNumber';
import { estimatedLines, type EstimatedLine } from '../reports/estimateVsActualReport';
import { journalView } from '../ledger/postingViews';
import { planCosts, savePlannedCosts, type PlannedBatch } from './postCosts';
import type { Actor } from '../ledger/post';

/** Ends the transaction of a preview with nothing kept. */
class NothingKept extends Error {
  constructor(readonly preview: CostPreview) {
    super('preview');
  }
}

/**
 * Shows what posting a batch would do: it is posted, looked at, and taken back, all inside one transaction. So the
 * preview cannot differ from the posting.
 */
export async function previewCosts(database: Database, actor: Actor, input: CostBatchInput): Promise<CostPreview> {
  const asOf = input.lines.reduce((latest, line) => (line.dated > latest ? line.dated : latest), input.asOf);
  try {
    return await database.write(async (sql) => {
      const plan = await planCosts(sql, input.lines);
      const numbers = [...new Set(input.lines.map((line) => line.job))];
      const before = await standing(sql, numbers, plan, asOf);
      await savePlannedCosts(sql, actor, input.lines, plan);
      const after = await standing(sql, numbers, plan, asOf);
      throw new NothingKept(compare(input, plan, before, after, (await loadCompany(sql))!.digits));
    });
  } catch (error) {
    if (error instanceof NothingKept) return error.preview;
    throw error;
  }
}

interface Standing {
  positions: LoadedPosition[];
  lines: Map<string, EstimatedLine>;
}

const keyOf = (line: { job: string; section: string; costCode: string; costType: string }) =>
  [line.job, line.section, line.costCode, line.costType].join('\u001f');

async function standing(sql: Sql, numbers: readonly string[], plan: PlannedBatch, asOf: string): Promise<Standing> {
  const positions: LoadedPosition[] = [];
  const lines = new Map<string, EstimatedLine>();
  for (const id of plan.jobIds) positions.push(...(await loadPositions(sql, asOf, id)));
  for (const job of numbers)
    for (const line of await estimatedLines(sql, await jobByNumber(sql, job, 'job'), asOf))
      lines.set(keyOf({ job, ...line }), line);
  return { positions, lines };
}

function compare(input: CostBatchInput, plan: PlannedBatch, before: Standing, after: Standing, digits: number): CostPreview {
  const touched = new Map(input.lines.map((line) => [keyOf(line), line]));
  return {
    total: plan.total,
    journals: plan.journals.map(journalView),
    lines: [...touched].map(([key, { job, section, costCode, costType }]) => {
      const now = after.lines.get(key)!;
      const spent = now.state.cost + now.state.openCommitment;
      const remaining = now.revised - spent;
      const warning = !now.state.budgeted
        ? 'No budget for this line'
        : remaining < 0
          ? `Over budget by ${displayExact(-remaining, digits)}, open commitments included`
          : null;
      return {
        job,
        section,
        costCode,
        costType,
        revised: now.revised,
        before: before.lines.get(key)?.state.cost ?? 0,
        after: now.state.cost,
        remaining,
        budgeted: now.state.budgeted,
        warning,
      };
    }),
    jobs: after.positions.map((now) => {
      const was = before.positions.find((it) => it.id === now.id)!;
      const overUnder = (it: LoadedPosition) => it.progress.overbilled - it.progress.underbilled;
      return {
        job: now.number,
        name: now.name,
        margin: [was.progress.margin, now.progress.margin],
        profit: [was.progress.estimatedProfit, now.progress.estimatedProfit],
        overUnder: [overUnder(was), overUnder(now)],
        estimate: [was.progress.estimate, now.progress.estimate],
        warning:
          now.status === 'tender'
            ? 'This job is still a tender; the cost counts once it is awarded'
            : now.progress.estimatedProfit < 0
              ? 'The job is expected to make a loss'
              : null,
      };
    }),
  };
}
