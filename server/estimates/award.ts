import { assertFixedPrice } from '../jobs/fixedPrice';
import { TENDER_IN_USE } from './queries';
import { assertNoFaults } from '../acts/refused';
import { known, present } from '../../core/errors/known';
import { CostLineTable } from '../costs/models';
import { JobTable, SovLineTable } from '../jobs/models';
import { ForecastTable } from '../forecasts/models';
import { CostLinePlanTable } from '../plan/models';
import { AwardLineTable, AwardTable, EstimateTable } from './models';
import { BudgetLineTable } from '../budget/models';
import type { Command } from '../acts/command';
import { planAward, type AwardPlan } from '../../core/estimates/award';
import { priceEstimate } from '../../core/estimates/estimate';
import { LedrinError, type Fault } from '../../core/errors/ledrinError';
import { LARGEST_AMOUNT } from '../../core/money/cents';
import type { AwardInput } from '../../wire/estimates';
import { nextId, type Sql } from '../db/sql';
import { costCodeIds } from '../costs/costCodes';
import { assertOpenDays } from '../ledger/closing';
import { loadDigits } from '../company/company';
import { movable } from './estimateContent';
import type { LoadedEstimate } from './estimateViews';
import { jobByNumber } from '../jobs/jobByNumber';
import { CostLines } from '../costs/costEntries';
import { noteMove } from '../jobs/jobLife';
import { insertSovLines } from '../jobs/sovLines';

/**
 * Turns a tender with an accepted estimate into a job: its schedule of values comes to the agreed price, its budget to the
 * estimate's cost, each line linked to where it comes from. What was typed as schedule or budget of the tender is replaced.
 */
export async function awardJob(command: Command, number: string, estimateNumber: number, input: AwardInput): Promise<void> {
  const { sql, actor } = command;
  const job = await jobByNumber(sql, number, 'job');
  const estimate = await movable(sql, 'award', number, estimateNumber);
  await assertOpenDays(sql, [input.acceptedOn], 'acceptedOn');
  await assertFixedPrice(sql, job.id, 'schedule of values', 'groups');
  const faults = groupFaults(estimate, input);
  assertNoFaults(faults);
  const digits = await loadDigits(sql);
  const plan = planAward(estimate.lines, priceEstimate(estimate, digits), input.groups, input.agreed);
  if (plan.sov.some((it) => Math.abs(it.scheduledValue) > LARGEST_AMOUNT))
    throw new LedrinError('bad-input', 'An SOV line would come to more than Ledrin can hold; check the weights', [
      { field: 'groups', message: 'too large' },
    ]);
  await emptyTender(sql, job.id, number);
  await savePlan(sql, job.id, estimate, plan);
  await sql.update(EstimateTable, { job_id: job.id }, { chosen: 0 });
  await sql.update(
    EstimateTable,
    { id: estimate.row.id },
    {
      status: 'accepted',
      sent_on: estimate.row.sentOn ?? input.acceptedOn,
      accepted_on: input.acceptedOn,
      acceptance: input.acceptance,
      chosen: 1,
    },
  );
  const { contract_reference: reference } = present(await sql.findOne(JobTable, { id: job.id }));
  await sql.update(
    JobTable,
    { id: job.id },
    { status: 'awarded', awarded_on: input.acceptedOn, contract_reference: reference || input.acceptance },
  );
  await noteMove(sql, actor, job.id, 'tender', 'awarded', input.acceptedOn, input.acceptance);
  command.note(number, { estimate: estimateNumber, ...input });
}

function groupFaults({ lines, row }: LoadedEstimate, input: AwardInput): Fault[] {
  const faults: Fault[] = [];
  const left = new Set(lines.map((it) => it.line));
  const seen = new Set<string>();
  if (row.sentOn !== null && input.acceptedOn < row.sentOn)
    faults.push({
      field: 'acceptedOn',
      message: `Accepted on ${input.acceptedOn} is before the estimate was sent, ${row.sentOn}`,
    });
  input.groups.forEach((group, i) => {
    const at = (field: string, message: string) => faults.push({ field: `groups.${i}.${field}`, message });
    if (seen.has(group.line)) at('line', `SOV line ${group.line} appears twice; each has a number of its own`);
    seen.add(group.line);
    group.members.forEach((member, k) => {
      if (!lines.some((it) => it.line === member)) at(`members.${k}`, `The estimate has no line ${member}`);
      else if (!left.delete(member)) at(`members.${k}`, `Estimate line ${member} is in two SOV lines; leave it in one`);
    });
  });
  if (left.size > 0)
    faults.push({
      field: 'groups',
      message: `Estimate line ${[...left].slice(0, 5).join(', ')} is in no SOV line; put every line in one`,
    });
  if (input.groups.some((it) => it.weight !== null) && input.groups.every((it) => (it.weight ?? 0) === 0))
    faults.push({ field: 'groups.0.weight', message: 'Expected at least one weight above 0, or none at all' });
  return faults;
}

/** A tender's schedule and budget have no history, unless changes were raised on them. */
async function emptyTender(sql: Sql, jobId: number, number: string): Promise<void> {
  const used = await sql.get(TENDER_IN_USE, [jobId]);
  if (used)
    throw new LedrinError(
      'refused',
      `Tender ${number} has change orders, commitments or cost on its typed schedule; award it with that schedule, in its status`,
    );
  const lines = (await sql.find(CostLineTable, { job_id: jobId })).map((it) => it.id);
  for (const table of [BudgetLineTable, ForecastTable, CostLinePlanTable]) await sql.remove(table, { cost_line_id: lines });
  await sql.remove(CostLineTable, { job_id: jobId });
  await sql.remove(SovLineTable, { job_id: jobId });
}

async function savePlan(sql: Sql, jobId: number, estimate: LoadedEstimate, { sov, budget }: AwardPlan): Promise<void> {
  const first = await nextId(sql, SovLineTable);
  const sovIds = new Map(sov.map((it, i) => [it.line, first + i]));
  await insertSovLines(
    sql,
    sov.map((it, i) => ({ ...it, id: first + i, jobId, position: i, original: true, retentionRate: null })),
  );
  await sql.insertAll(
    AwardTable,
    sov.map((it) => ({
      sov_line_id: known(sovIds, it.line),
      estimate_id: estimate.row.id,
      net: it.net,
      spread: it.spread,
      difference: it.difference,
    })),
  );
  await sql.insertAll(
    AwardLineTable,
    sov.flatMap((it) =>
      it.members.map((member) => ({ estimate_line_id: known(estimate.lineIds, member), sov_line_id: known(sovIds, it.line) })),
    ),
  );
  const codes = await costCodeIds(sql);
  const costLines = await CostLines.open(sql, [jobId]);
  const rows = budget.map(
    ({ section, costCode, costType, sovLine, description, quantity, unit, hours, amount, estimateLine }) => ({
      cost_line_id: costLines.idOf(jobId, section, known(codes, costCode), costType),
      sov_line_id: known(sovIds, sovLine),
      description,
      quantity,
      unit,
      hours,
      amount,
      estimate_line_id: known(estimate.lineIds, estimateLine),
    }),
  );
  await costLines.flush();
  await sql.insertAll(BudgetLineTable, rows);
}
