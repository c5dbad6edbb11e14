import { costJournals } from '../../core/costs/costBatch';
import { replaced, reversed } from '../../core/costs/reversal';
import { entryRefusals } from '../../core/costs/entryRefusals';
import { known } from '../../core/errors/known';
import type { Fault } from '../../core/errors/ledrinError';
import type { Journal } from '../../core/ledger/journal';
import { closedDayRefusal, correctionDay } from '../../core/ledger/openDay';
import { closedTo } from '../ledger/closing';
import { takesRefusal } from '../../core/jobs/takes';
import { refuse, type Refusal } from '../../core/refusals/refusal';
import type { CorrectionInput, MoveTarget } from '../../wire/corrections';
import { CostLines } from '../costs/costEntries';
import { openCostCodeIds } from '../costs/costCodes';
import { JOBS_TO_POST_TO } from '../costs/queries';
import type { RowOf } from '../db/fields';
import type { Sql } from '../db/sql';
import { assertAllowed, assertNoFaults, faultsOf } from '../acts/refused';
import { nameOf, pickedEntries, type Correcting, type PostedEntry } from './entries';

type JobToPostTo = RowOf<typeof JOBS_TO_POST_TO>;

/** A checked correction, with the entries it saves. */
export interface PlannedCorrection {
  picked: PostedEntry[];
  corrections: Correcting[];
  journals: Journal[];
  jobIds: number[];
  /** What the picked entries come to. */
  total: number;
}

/** Checks what is to be reversed or moved and works out what it posts. Throws with all faults, by entry and field. */
export async function planCorrection(sql: Sql, input: CorrectionInput): Promise<PlannedCorrection> {
  const picked = await pickedEntries(sql, input.entries);
  const jobs = new Map((await sql.all(JOBS_TO_POST_TO)).map((row) => [row.number, row]));
  const codes = await openCostCodeIds(sql);
  const closed = await closedTo(sql);
  const notOpen = input.on === null ? null : closedDayRefusal(input.on, closed, 'on');
  assertAllowed([notOpen]);
  /** Each entry on its own day, where that is open. */
  const dayOf = (it: PostedEntry) => correctionDay(it, input.on, closed);
  assertNoFaults([
    ...missing(input, picked),
    ...picked.flatMap((it, i) => faultsOf(entryFaults(it, input, jobs), 0, { entry: `entries.${i}`, job: `entries.${i}` })),
    ...(input.to ? targetFaults(input.to, picked, jobs, codes) : []),
  ]);
  const to = input.to;
  const moved = to ? picked.map((it) => movedTo(it, to, jobs, codes)) : [];
  const jobIds = [...new Set([...picked, ...moved].map((it) => it.job_id))];
  const lines = await CostLines.open(sql, jobIds);
  const corrections = [
    ...picked.map((it) => ({ entry: reversed(it, dayOf(it)), reverses: it.id, replaces: null })),
    ...moved.map((it) => ({
      entry: { ...replaced(it, dayOf(it)), cost_line_id: lines.idOf(it.job_id, it.section, it.cost_code_id, it.cost_type) },
      reverses: null,
      replaces: it.id,
    })),
  ];
  await lines.flush();
  const costs = corrections.map(({ entry: { postedOn, cost_type, amount } }) => ({ postedOn, costType: cost_type, amount }));
  return { picked, corrections, jobIds, journals: costJournals(costs), total: picked.reduce((sum, it) => sum + it.amount, 0) };
}

function missing({ entries }: CorrectionInput, picked: readonly PostedEntry[]): Fault[] {
  const there = new Set(picked.map((it) => it.id));
  return entries.flatMap((id, i) => (there.has(id) ? [] : [{ field: `entries.${i}`, message: `There is no cost entry ${id}` }]));
}

/** Why an entry cannot be taken back, on the day asked for. */
function entryFaults(it: PostedEntry, { on, to }: CorrectionInput, jobs: ReadonlyMap<string, JobToPostTo>): Refusal[] {
  const entry = nameOf(it);
  return [
    ...jobFaults(known(jobs, it.job)),
    ...(it.time_line_id === null ? [] : [refuse('entry-of-time', 'entry', { entry })]),
    ...(it.reversed_by === null ? [] : [refuse('entry-reversed', 'entry', { entry, document: it.reversed_by })]),
    ...(it.reverses === null ? [] : [refuse('entry-reverses', 'entry', { entry, document: it.reverses })]),
    ...(on !== null && on < it.postedOn ? [refuse('reversed-before-posted', 'on', { on, posted: it.postedOn })] : []),
    ...(to && isThere(it, to) ? [refuse('entry-unmoved', 'entry', { entry })] : []),
  ];
}

function jobFaults(job: JobToPostTo): Refusal[] {
  return [takesRefusal(job, 'cost')].filter((it) => it !== null);
}

function isThere(it: PostedEntry, to: MoveTarget): boolean {
  return (
    (to.job ?? it.job) === it.job &&
    (to.section ?? it.section) === it.section &&
    (to.costCode ?? it.cost_code) === it.cost_code &&
    (to.costType ?? it.cost_type) === it.cost_type
  );
}

function targetFaults(
  to: MoveTarget,
  picked: readonly PostedEntry[],
  jobs: ReadonlyMap<string, JobToPostTo>,
  codes: ReadonlyMap<string, number>,
): Fault[] {
  const job = to.job === null ? null : jobs.get(to.job);
  const uninstalledLabour = picked.some((it) =>
    entryRefusals({ ...it, costType: to.costType ?? it.cost_type }).some(({ rule }) => rule === 'labour-uninstalled'),
  );
  return [
    ...(job === undefined ? [{ field: 'to.job', message: `There is no job ${to.job}` }] : []),
    ...(job ? faultsOf(jobFaults(job), 0, { job: 'to.job' }) : []),
    ...(to.costCode !== null && !codes.has(to.costCode)
      ? [
          {
            field: 'to.costCode',
            message: `There is no cost code ${to.costCode} open to new use; add it in Set-up, or choose another`,
          },
        ]
      : []),
    ...(uninstalledLabour ? faultsOf([refuse('labour-uninstalled', 'to.costType', {})], 0) : []),
  ];
}

/** The entry on the line it is moved to. What it was ordered by stays with the order's job. */
function movedTo(
  it: PostedEntry,
  to: MoveTarget,
  jobs: ReadonlyMap<string, JobToPostTo>,
  codes: ReadonlyMap<string, number>,
): PostedEntry {
  const job = to.job ?? it.job;
  const sameJob = job === it.job;
  return {
    ...it,
    job,
    job_id: known(jobs, job).id,
    section: to.section ?? (sameJob ? it.section : ''),
    cost_code: to.costCode ?? it.cost_code,
    cost_code_id: to.costCode === null ? it.cost_code_id : known(codes, to.costCode),
    cost_type: to.costType ?? it.cost_type,
    commitment_line_id: sameJob ? it.commitment_line_id : null,
    commitment: sameJob ? it.commitment : null,
  };
}
