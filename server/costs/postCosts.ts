import { JOBS_TO_POST_TO, COMMITMENT_LINES } from './queries';
import { at, known, present } from '../../core/errors/known';
import { entryRefusals } from '../../core/costs/entryRefusals';
import { closedDayRefusal } from '../../core/ledger/openDay';
import { closedTo } from '../ledger/closing';
import { takesRefusal } from '../../core/jobs/takes';
import { assertNoFaults, faultsOf } from '../acts/refused';
import type { Command } from '../acts/command';
import type { Fault } from '../../core/errors/ledrinError';
import { LARGEST_AMOUNT } from '../../core/money/cents';
import { costJournals } from '../../core/costs/costBatch';
import type { Journal } from '../../core/ledger/journal';
import type { CostBatchInput, CostLineInput } from '../../wire/costs';
import type { Posted } from '../../wire/ledger';
import type { Reader, Sql } from '../db/sql';
import { assertOfTeam } from '../jobs/restricted';
import { loadDigits } from '../company/company';
import { accountingDate, latestOf, assertAsShown } from './asShown';
import { CostLines, insertCostEntries, type NewCostEntry } from './costEntries';
import { openCostCodeIds } from './costCodes';
import { savePosting } from '../ledger/savePosting';
import { type Actor } from '../acts/audit';

/** A checked batch, with the ids its entries are saved under. */
export interface PlannedBatch {
  jobIds: number[];
  journals: Journal[];
  total: number;
  entries: Omit<NewCostEntry, 'posting_id'>[];
}

/** Posts a batch of costs: one posting, its entries and its journals, in one transaction. */
export async function postCosts(command: Command, input: CostBatchInput): Promise<Posted> {
  const { sql, actor } = command;
  const plan = await planCosts(sql, input.lines);
  await assertAsShown(sql, input, plan.jobIds, await loadDigits(sql));
  const postingId = await savePlannedCosts(sql, actor, input.lines, plan);
  command.note(`posting ${postingId}`, { lines: input.lines.length, total: plan.total });
  return { postingId, entries: input.lines.length, total: plan.total };
}

/** Writes a planned batch inside the caller's transaction; also how a preview sees what posting would do. */
export async function savePlannedCosts(
  sql: Sql,
  actor: Actor,
  lines: readonly CostLineInput[],
  plan: PlannedBatch,
): Promise<number> {
  await assertOfTeam(sql, actor, plan.jobIds);
  const [dated, postedOn] = [latestOf(lines.map((it) => it.dated)), latestOf(lines.map(accountingDate))];
  const oneJob = plan.jobIds.length === 1 ? at(plan.jobIds, 0) : null;
  const postingId = await savePosting(
    sql,
    actor,
    { kind: 'cost-batch', jobId: oneJob, reference: batchReference(lines), dated, postedOn },
    plan.journals,
    plan.jobIds,
  );
  await insertCostEntries(
    sql,
    plan.entries.map((entry) => ({ posting_id: postingId, ...entry })),
  );
  return postingId;
}

function batchReference(lines: readonly CostLineInput[]): string {
  const references = [...new Set(lines.map((line) => line.reference))];
  return references.length === 1 ? at(references, 0) : `${references[0]} and ${references.length - 1} more`;
}

/** Checks every line of a batch and works out what it posts. Throws with all faults, by line and field. */
export async function planCosts(sql: Sql, lines: readonly CostLineInput[]): Promise<PlannedBatch> {
  const jobs = new Map((await sql.all(JOBS_TO_POST_TO)).map((row) => [row.number, row]));
  const codes = await openCostCodeIds(sql);
  const commitments = lines.some((line) => line.commitment !== '') ? await commitmentLines(sql) : new Map();
  const closed = await closedTo(sql);
  const faults: Fault[] = [];
  lines.forEach((line, i) => {
    const add = (field: string, message: string) => faults.push({ field: `lines.${i}.${field}`, message });
    const refusals = entryRefusals({ ...line, postedOn: line.postedOn ?? null });
    const job = jobs.get(line.job);
    if (!job) add('job', `There is no job ${line.job}`);
    const jobRefusal = job && takesRefusal(job, 'cost');
    if (jobRefusal) refusals.unshift(jobRefusal);
    const notOpen = closedDayRefusal(line.postedOn ?? line.dated, closed, line.postedOn ? 'postedOn' : 'dated');
    if (notOpen) refusals.push(notOpen);
    if (!codes.has(line.costCode))
      add('costCode', `There is no cost code ${line.costCode} open to new use; add it in Set-up, or choose another`);
    for (const { field, message } of faultsOf(refusals, 0)) add(field, message);
    if (line.commitment === '') return;
    const commitment = commitments.get(line.commitment);
    if (!commitment) add('commitment', `There is no commitment line ${line.commitment}; write it as number/line`);
    else if (commitment.job !== line.job)
      add('commitment', `${line.commitment} belongs to job ${commitment.job}, not ${line.job}`);
  });
  if (Math.abs(lines.reduce((total, line) => total + line.amount, 0)) > LARGEST_AMOUNT)
    faults.push({ field: 'lines', message: 'The total is more than one batch may hold; post it in smaller batches' });
  assertNoFaults(faults);
  const jobIds = [...new Set(lines.map((line) => present(jobs.get(line.job)).id))];
  const costLines = await CostLines.open(sql, jobIds);
  const entries = lines.map((line) => {
    const jobId = known(jobs, line.job).id;
    const {
      section,
      costCode,
      costType,
      dated,
      amount,
      hours,
      quantity = null,
      reference,
      party,
      description,
      commitment,
    } = line;
    return {
      job_id: jobId,
      cost_line_id: costLines.idOf(jobId, section, known(codes, costCode), costType),
      amount,
      hours,
      quantity,
      dated,
      posted_on: accountingDate(line),
      reference,
      party,
      description,
      commitment_line_id: commitment === '' ? null : known(commitments, commitment).id,
      uninstalled: line.uninstalled ? 1 : 0,
      unit: line.unit ?? '',
      charging: { mark: line.charge ?? '', from: line.chargeFrom ?? null, markup: line.markup ?? null, wording: '' },
    };
  });
  await costLines.flush();
  return {
    jobIds,
    journals: costJournals(lines.map((it) => ({ postedOn: accountingDate(it), costType: it.costType, amount: it.amount }))),
    total: lines.reduce((total, line) => total + line.amount, 0),
    entries,
  };
}

async function commitmentLines(sql: Reader): Promise<Map<string, { id: number; job: string }>> {
  const rows = await sql.all(COMMITMENT_LINES);
  return new Map(rows.map((row) => [row.name, row]));
}
