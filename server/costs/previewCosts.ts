import { present } from '../../core/errors/known';
import { LAST_COST_LINE } from './queries';
import { unusualCosts } from './unusualCosts';
import type { CostBatchInput, CostLineInput, CostPreview } from '../../wire/costs';
import { displayExact } from '../../core/money/display';
import type { Database } from '../db/database';
import type { Reader } from '../db/sql';
import { loadDigits } from '../company/company';
import type { LoadedPosition } from '../jobs/jobPositions';
import { jobByNumber } from '../jobs/jobByNumber';
import { estimatedLines, type EstimatedLine } from '../reports/estimateVsActualReport';
import { journalView } from '../ledger/postingViews';
import { positionsBefore, previewDate, shownOf } from './asShown';
import { planCosts, savePlannedCosts, type PlannedBatch } from './postCosts';
import type { Actor } from '../ledger/audit';

/**
 * Shows what posting a batch would do: it is posted on copies of the tables and looked at. So the preview cannot differ from
 * the posting, and holds up nobody.
 */
export async function previewCosts(database: Database, actor: Actor, input: CostBatchInput): Promise<CostPreview> {
  return database.preview(async (sql, copy) => {
    await copy([{ table: 'cost_line', where: null, indexes: ['id', 'job_id'] }]);
    const lastLine = present(await sql.get(LAST_COST_LINE)).id;
    const plan = await planCosts(sql, input.lines);
    const digits = await loadDigits(sql);
    const unusual = await unusualCosts(sql, input, plan, { lastLine, digits });
    const jobs = plan.jobIds.join(', ');
    const before = await snapshotOf(sql, input, plan);
    await copy([
      ...['posting', 'journal', 'journal_line'].map((table) => ({ table, where: '0' })),
      { table: 'cost_entry', where: `job_id IN (${jobs})`, indexes: ['job_id, posted_on', 'commitment_line_id, posted_on'] },
      {
        table: 'cost_total',
        where: `cost_line_id IN (SELECT id FROM main.cost_line WHERE job_id IN (${jobs}))`,
        indexes: ['cost_line_id, month'],
      },
    ]);
    await savePlannedCosts(sql, actor, input.lines, plan);
    return { ...compare(input, plan, before, await snapshotOf(sql, input, plan), digits), unusual };
  });
}

interface Snapshot {
  positions: LoadedPosition[];
  lines: Map<string, EstimatedLine>;
}

const keyOf = (line: { job: string; section: string; costCode: string; costType: string }) =>
  [line.job, line.section, line.costCode, line.costType].join('\u001f');

async function snapshotOf(sql: Reader, input: CostBatchInput, { jobIds }: PlannedBatch): Promise<Snapshot> {
  const asOf = previewDate(input);
  const lines = new Map<string, EstimatedLine>();
  for (const job of new Set(input.lines.map((line) => line.job)))
    for (const line of await estimatedLines(sql, await jobByNumber(sql, job, 'job'), asOf))
      lines.set(keyOf({ job, ...line }), line);
  return { positions: await positionsBefore(sql, jobIds, asOf), lines };
}

function compare(
  input: CostBatchInput,
  plan: PlannedBatch,
  before: Snapshot,
  after: Snapshot,
  digits: number,
): Omit<CostPreview, 'unusual'> {
  const touched = new Map(input.lines.map((line) => [keyOf(line), line]));
  return {
    total: plan.total,
    journals: plan.journals.map(journalView),
    lines: [...touched].flatMap(([key, line]) => {
      const now = after.lines.get(key);
      return now ? [lineEffect(line, before.lines.get(key)?.state.cost ?? 0, now, digits)] : [];
    }),
    jobs: after.positions.flatMap((now) => {
      const was = before.positions.find((it) => it.id === now.id);
      return was ? [jobEffect(was, now)] : [];
    }),
  };
}

function lineEffect(line: CostLineInput, before: number, now: EstimatedLine, digits: number): CostPreview['lines'][number] {
  const { job, section, costCode, costType } = line;
  const { cost, openCommitment, budgeted } = now.state;
  const remaining = now.revised - cost - openCommitment;
  const over = remaining < 0 ? `Over budget by ${displayExact(-remaining, digits)}, open commitments included` : null;
  const warning = budgeted ? over : 'No budget for this line';
  return { job, section, costCode, costType, revised: now.revised, before, after: cost, remaining, budgeted, warning };
}

function jobEffect(was: LoadedPosition, now: LoadedPosition): CostPreview['jobs'][number] {
  const [then, next] = [shownOf(was), shownOf(now)];
  return {
    job: now.number,
    name: now.name,
    margin: [was.progress.margin, now.progress.margin],
    profit: [then.profit, next.profit],
    overUnder: [then.overUnder, next.overUnder],
    estimate: [then.estimate, next.estimate],
    warning: warningOf(now),
  };
}

function warningOf(job: LoadedPosition): string | null {
  if (job.status === 'tender') return 'This job is still a tender; the cost counts once it is awarded';
  return job.progress.estimatedProfit < 0 ? 'The job is expected to make a loss' : null;
}
