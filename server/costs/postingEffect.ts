import type { PlainDate } from '../../core/calendar/plainDate';
import { displayExact } from '../../core/money/display';
import type { Journal } from '../../core/ledger/journal';
import type { CostPreview } from '../../wire/costs';
import type { CopyTables } from '../db/database';
import type { Reader, Sql } from '../db/sql';
import { loadDigits } from '../company/company';
import { jobByNumber } from '../jobs/jobByNumber';
import type { LoadedPosition } from './jobPositions';
import { journalView } from '../../core/ledger/journalView';
import { estimatedLines, type EstimatedLine } from './estimatedLines';
import { byQuantity } from './lineQuantities';
import { positionsBefore, shownOf } from './asShown';

/** A line of a job whose cost a posting changes. */
export interface TouchedLine {
  job: string;
  section: string;
  costCode: string;
  costType: string;
}

/** A posting that is looked at before it is made. */
export interface Planned {
  jobIds: readonly number[];
  touched: readonly TouchedLine[];
  journals: readonly Journal[];
  asOf: PlainDate;
}

/** Before a plan is made on a preview: it may make cost lines. */
export const COST_LINE_COPY = [{ table: 'cost_line', where: null, indexes: ['id', 'job_id'] }];

/** What a posting does to budget lines, jobs and ledger: it is made on copies of the tables and looked at, so it cannot differ. */
export async function postingEffect(
  sql: Sql,
  copy: CopyTables,
  plan: Planned,
  post: () => Promise<unknown>,
): Promise<Omit<CostPreview, 'unusual' | 'total'>> {
  const digits = await loadDigits(sql);
  const before = await snapshotOf(sql, plan);
  await copyPosted(copy, plan.jobIds);
  await post();
  const after = await snapshotOf(sql, plan);
  const left = await quantitiesLeft(sql, plan, after);
  return {
    journals: plan.journals.map(journalView),
    lines: [...new Map(plan.touched.map((line) => [keyOf(line), line]))].flatMap(([key, line]) => {
      const now = after.lines.get(key);
      if (!now) return [];
      const effect = lineEffect(line, before.lines.get(key)?.state.cost ?? 0, now, digits);
      return [{ ...effect, quantityLeft: left.get(now.id) ?? null }];
    }),
    jobs: after.positions.flatMap((now) => {
      const was = before.positions.find((it) => it.id === now.id);
      return was ? [jobEffect(was, now)] : [];
    }),
  };
}

async function copyPosted(copy: CopyTables, jobIds: readonly number[]): Promise<void> {
  const jobs = jobIds.map(Number).join(', ');
  await copy([
    ...['posting', 'journal', 'journal_line'].map((table) => ({ table, where: '0' })),
    {
      table: 'cost_entry',
      where: `job_id IN (${jobs})`,
      indexes: ['job_id, posted_on', 'commitment_line_id, posted_on', 'reverses_entry_id', 'replaces_entry_id'],
    },
    { table: 'charge_mark', where: `job_id IN (${jobs})`, indexes: ['cost_entry_id', 'job_id, counts_from'] },
    { table: 'installation', where: `job_id IN (${jobs})`, indexes: ['job_id, installed_on', 'cost_entry_id'] },
    {
      table: 'cost_total',
      where: `cost_line_id IN (SELECT id FROM main.cost_line WHERE job_id IN (${jobs}))`,
      indexes: ['cost_line_id, month'],
    },
  ]);
}

interface Snapshot {
  positions: LoadedPosition[];
  lines: Map<string, EstimatedLine>;
}

const keyOf = (line: TouchedLine) => [line.job, line.section, line.costCode, line.costType].join('\u001f');

async function snapshotOf(sql: Reader, { touched, jobIds, asOf }: Planned): Promise<Snapshot> {
  const lines = new Map<string, EstimatedLine>();
  for (const job of new Set(touched.map((line) => line.job)))
    for (const line of await estimatedLines(sql, await jobByNumber(sql, job, 'job'), asOf))
      lines.set(keyOf({ job, ...line }), line);
  return { positions: await positionsBefore(sql, jobIds, asOf), lines };
}

/** What is left by quantity of the lines that have one, by their ids. */
async function quantitiesLeft(sql: Reader, { touched, asOf }: Planned, { lines }: Snapshot) {
  const left = new Map<number, { left: number; unit: string }>();
  for (const job of new Set(touched.map((line) => line.job))) {
    const own = touched.flatMap((line) => (line.job === job ? (lines.get(keyOf(line)) ?? []) : []));
    for (const { id, quantities } of await byQuantity(sql, await jobByNumber(sql, job, 'job'), asOf, own))
      left.set(id, { left: quantities.left, unit: quantities.unit });
  }
  return left;
}

type LineEffect = Omit<CostPreview['lines'][number], 'quantityLeft'>;

function lineEffect(line: TouchedLine, before: number, now: EstimatedLine, digits: number): LineEffect {
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
