import { JobDraftTable, SovLineTable, JobTable } from '../jobs/models';
import { JobCheckTable, JobPersonTable } from '../jobFile/models';
import { BudgetLineTable } from '../budget/models';
import { known, present } from '../../core/errors/known';
import { assertOpenDays } from '../ledger/closing';
import { closedPeopleFaults, teamNames } from '../masters/closedPeople';
import { ClientTable } from '../company/models';
import { assertNoFaults, faultsOf } from '../acts/refused';
import { pricingRefusals } from '../../core/charging/pricing';
import { RETENTION_FIELDS, termsRefusals } from '../../core/jobs/jobTerms';
import type { Command } from '../acts/command';
import { LedrinError, type Fault } from '../../core/errors/ledrinError';
import { sum } from '../../core/money/cents';
import { displayExact } from '../../core/money/display';
import type { JobInput } from '../../wire/jobs';
import { nextId, type Sql } from '../db/sql';
import { costCodeIds } from '../costs/costCodes';
import { loadDigits } from '../company/company';
import { CostLines } from '../costs/costEntries';
import { listColumnsOf, type ListColumns } from '../jobs/listFacts';
import { PayCodeTable } from '../labour/models';
import { noteMove } from '../jobs/jobLife';
import { retentionColumns } from '../jobs/retentionTerms';
import { insertSovLines } from '../jobs/sovLines';

/** Deletes a draft; `by`: of whose alone, null for anybody's. */
export async function deleteDraft({ sql, note }: Command, id: number, by: string | null = null): Promise<void> {
  await sql.remove(JobDraftTable, by === null ? { id } : { id, actor: by });
  note(`draft ${id}`);
}

/** Sets up a job with its schedule of values and budget, all or nothing. Gives back its number. */
export async function createJob(command: Command, input: JobInput, draftsOf: string | null = null): Promise<string> {
  const { sql, actor } = command;
  const digits = await loadDigits(sql);
  if (digits === undefined)
    throw new LedrinError('refused', 'Name the company first, in Set-up: its currency is the currency of every job');
  const codes = await costCodeIds(sql);
  const client = await sql.findOne(ClientTable, { code: input.client, closed: 0 });
  const lists = await listColumnsOf(sql, input);
  const faults = [
    ...factFaults(input, client !== undefined),
    ...lists.faults,
    ...scheduleFaults(input, digits),
    ...budgetFaults(input, codes),
  ];
  faults.push(...(await closedPeopleFaults(sql, [{ field: 'manager', name: input.manager }, ...teamNames(input.people ?? [])])));
  if (await sql.findOne(JobTable, { number: input.number }))
    faults.push({ field: 'number', message: `There is a job ${input.number} already; choose another number` });
  assertNoFaults(faults);
  if (input.status !== 'tender' && input.awardedOn !== null) await assertOpenDays(sql, [input.awardedOn], 'awardedOn');
  const jobId = await saveJob(sql, input, { client_id: present(client).id, ...lists.columns }, codes);
  if (input.payCode) await sql.insert(PayCodeTable, { code: input.payCode, pay: 'regular', job_id: jobId });
  await sql.insertAll(
    JobPersonTable,
    (input.people ?? []).map((it) => ({
      job_id: jobId,
      side: it.side,
      name: it.name,
      role: it.role,
      email: it.email,
      phone: it.phone,
    })),
  );
  await sql.insertAll(
    JobCheckTable,
    (input.checklist ?? []).map((it) => ({
      job_id: jobId,
      item: it.item,
      person: it.person,
      due_on: it.dueOn,
      done_on: it.doneOn,
    })),
  );
  await noteMove(sql, actor, jobId, '', input.status, input.awardedOn, '');
  if (input.draftId !== null)
    await sql.remove(JobDraftTable, { id: input.draftId, ...(draftsOf === null ? {} : { actor: draftsOf }) });
  command.note(input.number, input);
  return input.number;
}

function factFaults(input: JobInput, clientKnown: boolean): Fault[] {
  const faults: Fault[] = [];
  if (!clientKnown)
    faults.push({ field: 'client', message: `There is no client ${input.client} open to new use; add the client first` });
  if (input.status !== 'tender' && input.awardedOn === null)
    faults.push({ field: 'awardedOn', message: `A job that is ${input.status} needs the day it was awarded` });
  const { awardedOn, startsOn, finishesOn, retention } = input;
  const terms = { awardedOn, startsOn, finishesOn, defectsEnd: null, retention, noRetention: false };
  faults.push(...faultsOf(termsRefusals(terms), 0, RETENTION_FIELDS));
  const pricing = { pricing: input.pricing ?? 'fixed', ceiling: input.ceiling ?? null };
  faults.push(...faultsOf(pricingRefusals(input.number, pricing, input.sov.length > 0 ? 'a schedule of values' : null), 0));
  return faults;
}

export function scheduleFaults(input: Pick<JobInput, 'sov' | 'budget' | 'contractSum'>, digits: number): Fault[] {
  const faults: Fault[] = [];
  const seen = new Set<string>();
  input.sov.forEach(({ line }, i) => {
    if (seen.has(line))
      faults.push({ field: `sov.${i}.line`, message: `Line ${line} appears twice; each SOV line has a number of its own` });
    seen.add(line);
  });
  const difference = input.contractSum - sum(input.sov.map((it) => it.scheduledValue));
  if (difference !== 0) {
    const [amount, what] = [displayExact(Math.abs(difference), digits), difference > 0 ? 'short of' : 'over'];
    faults.push({
      field: 'sov',
      message: `The schedule of values is ${amount} ${what} the contract sum; change a line or the sum until the difference is zero`,
    });
  }
  input.budget.forEach(({ sovLine }, i) => {
    if (sovLine !== '' && !seen.has(sovLine))
      faults.push({ field: `budget.${i}.sovLine`, message: `There is no SOV line ${sovLine} on this job` });
  });
  return faults;
}

export function budgetFaults(input: Pick<JobInput, 'budget'>, codes: ReadonlyMap<string, number>): Fault[] {
  return input.budget.flatMap(({ costCode }, i) =>
    codes.has(costCode)
      ? []
      : [{ field: `budget.${i}.costCode`, message: `There is no cost code ${costCode}; add it to the cost codes first` }],
  );
}

async function saveJob(
  sql: Sql,
  input: JobInput,
  refers: ListColumns & { client_id: number },
  codes: ReadonlyMap<string, number>,
): Promise<number> {
  const jobId = await nextId(sql, JobTable);
  await sql.insert(JobTable, {
    id: jobId,
    number: input.number,
    name: input.name,
    ...refers,
    contract_reference: input.contractReference,
    status: input.status,
    awarded_on: input.awardedOn,
    starts_on: input.startsOn,
    finishes_on: input.finishesOn,
    manager: input.manager,
    site: input.site,
    revenue_method: input.revenueMethod,
    pricing: input.pricing ?? 'fixed',
    charge_ceiling: input.ceiling ?? null,
    ...retentionColumns(input.retention),
    tax_rate: input.taxRate,
    terms_days: input.termsDays,
  });
  const firstLine = await nextId(sql, SovLineTable);
  const lineIds = new Map(input.sov.map((it, i) => [it.line, firstLine + i]));
  await insertSovLines(
    sql,
    input.sov.map((it, i) => ({ ...it, id: firstLine + i, jobId, position: i, original: true })),
  );
  await saveBudget(sql, jobId, input.budget, codes, lineIds);
  return jobId;
}

/** Saves the lines of an original budget, each on its cost line. */
export async function saveBudget(
  sql: Sql,
  jobId: number,
  lines: JobInput['budget'],
  codes: ReadonlyMap<string, number>,
  lineIds: ReadonlyMap<string, number>,
): Promise<void> {
  const costLines = await CostLines.open(sql, [jobId]);
  const budget = lines.map(({ section, costCode, costType, sovLine, description, quantity, unit, hours, amount }) => ({
    cost_line_id: costLines.idOf(jobId, section, known(codes, costCode), costType),
    sov_line_id: lineIds.get(sovLine) ?? null,
    description,
    quantity,
    unit,
    hours,
    amount,
  }));
  await costLines.flush();
  await sql.insertAll(BudgetLineTable, budget);
}
