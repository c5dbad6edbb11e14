import { CHANGE_LIFE } from '../../core/changes/changeLife';
import { assertMove } from '../http/refused';
import type { Command } from '../ledger/command';
import { LedrinError, type Fault } from '../../core/errors/ledrinError';
import type { ChangeInput } from '../../wire/changes';
import { bulkInsert, nextId, type Reader, type Sql } from '../db/sql';
import { costCodeIds } from '../costs/costCodes';
import { loadChange } from './changeViews';
import { jobToPostTo, type JobIdentity } from '../jobs/jobByNumber';
import { CostLines } from '../costs/costEntries';
import { type Actor } from '../ledger/audit';
import { assertVersion } from '../versions/staleness';
import { insertSovLines } from '../jobs/sovLines';

/** Saves a draft change as typed, new or changed. Gives back its version. Throws conflict where somebody saved it since. */
export async function saveChange(command: Command, job: string, input: ChangeInput, was: string | null): Promise<number> {
  const { sql, actor } = command;
  const identity = await jobToChange(sql, job);
  const change = was === null ? null : await movableChange(sql, 'edit', job, was);
  assertVersion(command, input.number, change, input.version);
  const codes = await costCodeIds(sql);
  const sov = new Map(
    (await sql.all<{ id: number; line: string }>('SELECT id, line FROM sov_line WHERE job_id = $1', [identity.id])).map((row) => [
      row.line,
      row.id,
    ]),
  );
  const faults = changeFaults(input, codes, sov);
  if (
    input.number !== was &&
    (await sql.get('SELECT 1 FROM change_order WHERE job_id = $1 AND number = $2', [identity.id, input.number]))
  )
    faults.push({ field: 'number', message: `There is a change ${input.number} on job ${job} already; choose another number` });
  if (faults.length > 0) throw new LedrinError('bad-input', faults[0]!.message, faults);
  const version = (change?.version ?? 0) + 1;
  const id = change?.id ?? (await nextId(sql, 'change_order'));
  await saveFacts(sql, actor, id, identity.id, input, version);
  await sql.run('DELETE FROM change_order_line WHERE change_order_id = $1', [id]);
  await saveLines(sql, id, identity.id, input, codes, sov);
  await dropUnnamedLines(sql, identity.id);
  command.note(`${job}/${input.number}`, { version, was });
  return version;
}

/** The job whose contract is to change. Throws refused where it is locked, closed or still a tender. */
export async function jobToChange(sql: Reader, number: string): Promise<JobIdentity> {
  const job = await jobToPostTo(sql, number);
  if (job.status === 'closing-out')
    throw new LedrinError('refused', `Job ${number} is closing out: it takes final cost and bills, and no more changes`);
  if (job.status === 'closed') throw new LedrinError('refused', `Job ${number} is closed; its contract does not change any more`);
  return job;
}

/** A change order that is to make a move of its life. */
export async function movableChange(sql: Reader, move: keyof typeof CHANGE_LIFE, job: string, number: string) {
  const change = await loadChange(sql, job, number);
  assertMove(CHANGE_LIFE, move, number, change.status);
  return change;
}

function changeFaults(input: ChangeInput, codes: ReadonlyMap<string, number>, sov: ReadonlyMap<string, number>): Fault[] {
  const faults: Fault[] = [];
  const named = new Set<string>();
  input.price.forEach((it, i) => {
    if (named.has(it.line))
      faults.push({ field: `price.${i}.line`, message: `Line ${it.line} appears twice; put its amounts into one row` });
    named.add(it.line);
    if (!sov.has(it.line) && it.description === '')
      faults.push({ field: `price.${i}.description`, message: `${it.line} is a new SOV line; say what it is for` });
  });
  input.cost.forEach((it, i) => {
    if (!codes.has(it.costCode))
      faults.push({
        field: `cost.${i}.costCode`,
        message: `There is no cost code ${it.costCode}; add it in Set-up, or choose another`,
      });
    if (it.sovLine !== '' && !sov.has(it.sovLine) && !named.has(it.sovLine))
      faults.push({ field: `cost.${i}.sovLine`, message: `There is no SOV line ${it.sovLine} on this job, nor on this change` });
  });
  return faults;
}

async function saveFacts(sql: Sql, actor: Actor, id: number, jobId: number, it: ChangeInput, version: number): Promise<void> {
  await sql.run(
    `INSERT INTO change_order (id, job_id, number, title, status, raised_on, reference, reason, asked_by, days_asked, version, saved_by, saved_at)
      VALUES ($1, $2, $3, $4, 'draft', $5, $6, $7, $8, $9, $10, $11, $12) ON CONFLICT (id) DO UPDATE SET number = excluded.number, title = excluded.title,
      raised_on = excluded.raised_on, reference = excluded.reference, reason = excluded.reason, asked_by = excluded.asked_by, days_asked = excluded.days_asked,
      version = excluded.version, saved_by = excluded.saved_by, saved_at = excluded.saved_at`,
    [
      id,
      jobId,
      it.number,
      it.title,
      it.raisedOn,
      it.reference,
      it.reason,
      it.askedBy,
      it.daysAsked,
      version,
      actor.name,
      actor.at,
    ],
  );
}

async function saveLines(
  sql: Sql,
  id: number,
  jobId: number,
  input: ChangeInput,
  codes: ReadonlyMap<string, number>,
  sov: Map<string, number>,
): Promise<void> {
  const last = await sql.get<{ position: number }>(
    'SELECT coalesce(max(position), -1) AS position FROM sov_line WHERE job_id = $1',
    [jobId],
  );
  let position = last!.position;
  let next = await nextId(sql, 'sov_line');
  const fresh = input.price
    .filter((it) => !sov.has(it.line))
    .map((it) => {
      sov.set(it.line, next);
      const { line, section, description, quantity, unit } = it;
      return {
        ...{ id: next++, jobId, line, position: ++position, original: false, section, description },
        scheduledValue: 0,
        quantity,
        unit,
        retentionRate: null,
      };
    });
  await insertSovLines(sql, fresh);
  const costLines = await CostLines.open(sql, [jobId]);
  const rows = [
    ...input.price.map((it) => [
      id,
      'price',
      sov.get(it.line),
      null,
      it.description,
      it.section,
      it.quantity,
      it.unit,
      null,
      it.amount,
    ]),
    ...input.cost.map((it) => [
      id,
      'cost',
      sov.get(it.sovLine) ?? null,
      costLines.idOf(jobId, it.section, codes.get(it.costCode)!, it.costType),
      it.description,
      it.section,
      it.quantity,
      it.unit,
      it.hours,
      it.amount,
    ]),
  ];
  await costLines.flush();
  await bulkInsert(
    sql,
    'change_order_line',
    ['change_order_id', 'side', 'sov_line_id', 'cost_line_id', 'description', 'section', 'quantity', 'unit', 'hours', 'amount'],
    rows,
  );
}

/** SOV lines that only a draft brought, and no change names any more, go with it. */
async function dropUnnamedLines(sql: Sql, jobId: number): Promise<void> {
  await sql.run(
    `DELETE FROM sov_line WHERE job_id = $1 AND original = 0 AND id NOT IN (SELECT sov_line_id FROM change_order_line WHERE sov_line_id IS NOT NULL)
      AND id NOT IN (SELECT sov_line_id FROM application_line) AND id NOT IN (SELECT sov_line_id FROM budget_line WHERE sov_line_id IS NOT NULL)`,
    [jobId],
  );
}

/** Deletes a draft. What was issued is withdrawn instead. */
export async function deleteChange(command: Command, job: string, number: string): Promise<void> {
  const { sql } = command;
  const identity = await jobToChange(sql, job);
  const { id } = await movableChange(sql, 'delete', job, number);
  await sql.run('DELETE FROM change_order_line WHERE change_order_id = $1', [id]);
  await sql.run('DELETE FROM change_order WHERE id = $1', [id]);
  await dropUnnamedLines(sql, identity.id);
  command.note(`${job}/${number}`, {});
}
