import { COST_BY, FROZEN_BY, ORIGINAL_BUDGET, ORIGINAL_SOV_LINES, SOV_LINES_IN_CHANGES, UNUSED_COST_LINES } from './queries';
import { assertNoFaults, assertAllowed } from '../acts/refused';
import { countsInClosedRefusal } from '../../core/ledger/openDay';
import { closedTo } from '../ledger/closing';
import { refuse, type Refusal } from '../../core/refusals/refusal';
import { BudgetLineTable } from '../budget/models';
import { CostLineTable } from '../costs/models';
import { costCodeIds } from '../costs/costCodes';
import { loadDigits } from '../company/company';
import type { Fault } from '../../core/errors/ledrinError';
import type { SetupCorrection } from '../../wire/jobs';
import { nextId, type Reader } from '../db/sql';
import type { Command } from '../acts/command';
import { assertUnchanged } from '../versions/staleness';
import { jobByNumber, type JobIdentity } from '../jobs/jobByNumber';
import { budgetFaults, saveBudget, scheduleFaults } from './createJob';
import { assertFixedPrice } from '../jobs/fixedPrice';
import { SovLineTable } from '../jobs/models';
import { insertSovLines } from '../jobs/sovLines';

/** The original schedule and budget of a job. */
export async function originalSetup(sql: Reader, jobId: number) {
  return { sov: await sql.all(ORIGINAL_SOV_LINES, [jobId]), budget: await sql.all(ORIGINAL_BUDGET, [jobId]) };
}

/** Cost alone freezes nothing, and neither does going on site. */
const OPEN_TO_SETUP: readonly string[] = ['tender', 'awarded', 'on-site'];

/** Why the original schedule and budget of a job are frozen (docs/rules.md §4); null where they can still be corrected. */
export async function setupFrozen(sql: Reader, job: JobIdentity): Promise<Refusal | null> {
  if (job.locked) return refuse('job-locked', 'job', { job: job.number });
  const frozen = (because: string) => refuse('setup-frozen', 'job', { job: job.number, because });
  if (!OPEN_TO_SETUP.includes(job.status)) return frozen(`it is ${job.status.replaceAll('-', ' ')}`);
  const closed = await closedTo(sql);
  if (countsInClosedRefusal({ number: job.number, awardedOn: job.awarded_on }, '', closed) !== null)
    return frozen('it was awarded on a day in books that are closed');
  if (closed !== null && (await sql.get(COST_BY, [job.id, closed])))
    return frozen('there is cost on it in books that are closed');
  for (const [because, used] of FROZEN_BY) if (await sql.get(used, [job.id])) return frozen(because);
  return null;
}

/** Corrects the original schedule of values and budget of a job nothing rests on yet; what was before stands in the audit trail. */
export async function correctSetup(command: Command, number: string, input: SetupCorrection): Promise<void> {
  const { sql } = command;
  const job = await jobByNumber(sql, number, 'job');
  const was = await originalSetup(sql, job.id);
  await assertUnchanged(command, 'The schedule and budget of this job', { subject: number, now: was, seen: input.seen });
  assertAllowed([await setupFrozen(sql, job)], { code: 'refused' });
  if (input.sov.length > 0) await assertFixedPrice(sql, job.id, 'schedule of values', 'sov');
  const codes = await costCodeIds(sql);
  assertNoFaults([
    ...scheduleFaults(input, await loadDigits(sql)),
    ...budgetFaults(input, codes),
    ...(await lineFaults(sql, job.id, input)),
  ]);
  await sql.remove(BudgetLineTable, { cost_line_id: (await sql.find(CostLineTable, { job_id: job.id })).map((it) => it.id) });
  const lineIds = await saveSchedule(command, job.id, input);
  await saveBudget(sql, job.id, input.budget, codes, lineIds);
  await sql.run(UNUSED_COST_LINES, [job.id]);
  command.note(number, { reason: input.reason, was, now: { sov: input.sov, budget: input.budget } });
}

/** Lines that drafts of change orders name have to stay, and theirs are not taken. */
async function lineFaults(sql: Reader, jobId: number, { sov }: SetupCorrection): Promise<Fault[]> {
  const named = await sql.all(SOV_LINES_IN_CHANGES, [jobId]);
  const lines = new Map(sov.map((it, i) => [it.line, i]));
  return named.flatMap(({ line, original, changes }): Fault[] => {
    const at = lines.get(line);
    if (original && at === undefined)
      return [{ field: 'sov', message: `Line ${line} is in change order ${changes}; keep it, or take it out there first` }];
    if (!original && at !== undefined)
      return [
        { field: `sov.${at}.line`, message: `Line ${line} is a new line of change order ${changes}; choose another number` },
      ];
    return [];
  });
}

/** Writes the lines over those of the same number; gives back their ids. */
async function saveSchedule({ sql }: Command, jobId: number, { sov }: SetupCorrection): Promise<Map<string, number>> {
  const there = new Map((await sql.find(SovLineTable, { job_id: jobId, original: 1 })).map((it) => [it.line, it.id]));
  const remaining = new Set(sov.map((it) => it.line));
  await sql.remove(SovLineTable, { id: [...there].filter(([line]) => !remaining.has(line)).map(([, id]) => id) });
  const first = await nextId(sql, SovLineTable);
  const lines = sov.map((it, i) => ({ ...it, id: there.get(it.line) ?? first + i, jobId, position: i, original: true }));
  await insertSovLines(
    sql,
    lines.filter((it) => !there.has(it.line)),
  );
  for (const it of lines.filter(({ line }) => there.has(line)))
    await sql.update(
      SovLineTable,
      { id: it.id },
      {
        position: it.position,
        section: it.section,
        description: it.description,
        scheduled_value: it.scheduledValue,
        quantity: it.quantity,
        unit: it.unit,
        retention_rate: it.retentionRate,
      },
    );
  return new Map(lines.map((it) => [it.line, it.id]));
}
