import { faultsOf } from '../http/refused';
import { termsRefusals } from '../../core/jobs/jobTerms';
import type { Command } from '../ledger/command';
import { LedrinError, type Fault } from '../../core/errors/ledrinError';
import { sum } from '../../core/money/cents';
import { displayExact } from '../../core/money/display';
import type { JobInput } from '../../wire/jobs';
import { bulkInsert, nextId, type Sql } from '../db/sql';
import { costCodeIds } from '../costs/costCodes';
import { loadDigits } from '../company/company';
import { JOB_COLUMNS } from '../book/save/saveContracts';
import { CostLines } from '../costs/costEntries';
import { noteMove } from './jobLife';
import { refuseUnready } from './readiness';
import { insertSovLines } from './sovLines';

/** Saves a job draft as typed. Gives back its id; `id` null makes a new draft. */
export async function saveDraft(command: Command, id: number | null, content: unknown): Promise<number> {
  const { sql, actor } = command;
  const text = JSON.stringify(content);
  if (id === null)
    return sql.insert('INSERT INTO job_draft (content, actor, saved_at) VALUES ($1, $2, $3)', [text, actor.name, actor.at]);
  if (!(await sql.get('SELECT id FROM job_draft WHERE id = $1', [id])))
    throw new LedrinError('not-found', 'This draft is no longer there; it was finished or thrown away in another window');
  await sql.run('UPDATE job_draft SET content = $1, actor = $2, saved_at = $3 WHERE id = $4', [text, actor.name, actor.at, id]);
  return id;
}

export async function deleteDraft({ sql, note }: Command, id: number): Promise<void> {
  await sql.run('DELETE FROM job_draft WHERE id = $1', [id]);
  note(`draft ${id}`);
}

/** Sets up a job with its schedule of values and budget, all or nothing. Gives back its number. */
export async function createJob(command: Command, input: JobInput): Promise<string> {
  const { sql, actor } = command;
  const digits = await loadDigits(sql);
  if (digits === undefined)
    throw new LedrinError('refused', 'Name the company first, in Set-up: its currency is the currency of every job');
  const codes = await costCodeIds(sql);
  const client = await sql.get<{ id: number }>('SELECT id FROM client WHERE code = $1', [input.client]);
  const faults = [...factFaults(input, client !== undefined), ...scheduleFaults(input, digits), ...budgetFaults(input, codes)];
  if (await sql.get('SELECT id FROM job WHERE number = $1', [input.number]))
    faults.push({ field: 'number', message: `There is a job ${input.number} already; choose another number` });
  if (faults.length > 0) throw new LedrinError('bad-input', faults[0]!.message, faults);
  const jobId = await saveJob(sql, input, client!.id, codes);
  await refuseUnready(sql, { id: jobId, number: input.number }, input.status);
  await bulkInsert(
    sql,
    'job_person',
    ['job_id', 'side', 'name', 'role', 'email', 'phone'],
    (input.people ?? []).map((it) => [jobId, it.side, it.name, it.role, it.email, it.phone]),
  );
  await bulkInsert(
    sql,
    'job_check',
    ['job_id', 'item', 'person', 'due_on', 'done_on'],
    (input.checklist ?? []).map((it) => [jobId, it.item, it.person, it.dueOn, it.doneOn]),
  );
  await noteMove(sql, actor, jobId, '', input.status, input.awardedOn, '');
  if (input.draftId !== null) await sql.run('DELETE FROM job_draft WHERE id = $1', [input.draftId]);
  command.note(input.number, input);
  return input.number;
}

/** Where the parts of the retention rule stand in an input. */
export const RETENTION_FIELDS = { stepAt: 'retention.stepAt', stepTo: 'retention.stepTo' };

function factFaults(input: JobInput, clientKnown: boolean): Fault[] {
  const faults: Fault[] = [];
  if (!clientKnown) faults.push({ field: 'client', message: `There is no client ${input.client}; add the client first` });
  if (input.status !== 'tender' && input.awardedOn === null)
    faults.push({ field: 'awardedOn', message: `A job that is ${input.status} needs the day it was awarded` });
  const { awardedOn, startsOn, finishesOn, retention } = input;
  const terms = { awardedOn, startsOn, finishesOn, defectsEnd: null, retention, noRetention: false };
  faults.push(...faultsOf(termsRefusals(terms), 0, RETENTION_FIELDS));
  return faults;
}

function scheduleFaults(input: JobInput, digits: number): Fault[] {
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

function budgetFaults(input: JobInput, codes: ReadonlyMap<string, number>): Fault[] {
  return input.budget.flatMap(({ costCode }, i) =>
    codes.has(costCode)
      ? []
      : [{ field: `budget.${i}.costCode`, message: `There is no cost code ${costCode}; add it to the cost codes first` }],
  );
}

async function saveJob(sql: Sql, input: JobInput, clientId: number, codes: ReadonlyMap<string, number>): Promise<number> {
  const { retention: r } = input;
  const jobId = await nextId(sql, 'job');
  await bulkInsert(
    sql,
    'job',
    ['id', ...JOB_COLUMNS],
    [
      [
        jobId,
        input.number,
        input.name,
        clientId,
        input.contractReference,
        input.status,
        input.awardedOn,
        input.startsOn,
        input.finishesOn,
        null,
        input.manager,
        input.site,
        input.revenueMethod,
        r.rate,
        r.materialsRate,
        r.stepAt,
        r.stepTo,
        r.stepApplies,
        r.cap,
        input.taxRate,
        input.termsDays,
        '',
        null,
        0,
      ],
    ],
  );
  const firstLine = await nextId(sql, 'sov_line');
  const lineIds = new Map(input.sov.map((it, i) => [it.line, firstLine + i]));
  await insertSovLines(
    sql,
    input.sov.map((it, i) => ({ ...it, id: firstLine + i, jobId, position: i, original: true })),
  );
  const costLines = await CostLines.open(sql, [jobId]);
  const budget = input.budget.map((it) => [
    costLines.idOf(jobId, it.section, codes.get(it.costCode)!, it.costType),
    lineIds.get(it.sovLine) ?? null,
    it.description,
    it.quantity,
    it.unit,
    it.hours,
    it.amount,
  ]);
  await costLines.flush();
  await bulkInsert(
    sql,
    'budget_line',
    ['cost_line_id', 'sov_line_id', 'description', 'quantity', 'unit', 'hours', 'amount'],
    budget,
  );
  return jobId;
}
