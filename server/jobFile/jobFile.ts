import { termsRefusals } from '../../core/jobs/jobTerms';
import { faultsOf } from '../http/refused';
import { RETENTION_FIELDS } from '../jobs/jobs';
import type { Command } from '../ledger/command';
import { LedrinError, type Fault } from '../../core/errors/ledrinError';
import type { CheckItem, CheckTemplate, EventInput, JobFacts, JobFactsInput, Person } from '../../wire/jobFile';
import { bulkInsert, type Sql } from '../db/sql';
import { hashOf, keepContent } from '../attachments/contents';
import { factsAreFixed, jobFileView } from './jobFileView';
import { jobByNumber } from '../jobs/jobByNumber';
import { type Actor } from '../ledger/audit';
import { assertUnchanged } from '../versions/staleness';

/** Changes the facts of a job. What billing was worked with stays as it is once something was billed or posted. */
export async function saveJobFacts(command: Command, number: string, input: JobFactsInput): Promise<void> {
  const { sql } = command;
  const { id, awarded_on: awardedOn } = await jobByNumber(sql, number, 'job');
  const { facts: now } = await jobFileView(sql, number);
  await assertUnchanged(command, 'The details of this job', { subject: number, now, seen: input.seen });
  const faults: Fault[] = faultsOf(termsRefusals({ ...input, awardedOn }), 0, RETENTION_FIELDS);
  if (await factsAreFixed(sql, id)) faults.push(...fixedFaults(now, input));
  if (faults.length > 0) throw new LedrinError('bad-input', faults[0]!.message, faults);
  const { retention: r } = input;
  await sql.run(
    `UPDATE job SET name = $1, contract_reference = $2, manager = $3, estimator = $4, site = $5, starts_on = $6, finishes_on = $7, defects_end = $8, revenue_method = $9,
      retention_rate = $10, retention_materials_rate = $11, retention_step_at = $12, retention_step_to = $13, retention_step_applies = $14, retention_cap = $15,
      no_retention = $16, tax_rate = $17, terms_days = $18 WHERE id = $19`,
    [
      ...[
        input.name,
        input.contractReference,
        input.manager,
        input.estimator,
        input.site,
        input.startsOn,
        input.finishesOn,
        input.defectsEnd,
      ],
      ...[input.revenueMethod, r.rate, r.materialsRate, r.stepAt, r.stepTo, r.stepApplies, r.cap, input.noRetention ? 1 : 0],
      ...[input.taxRate, input.termsDays, id],
    ],
  );
  command.note(number, input);
}

const FIXED = ['revenueMethod', 'retention', 'taxRate', 'termsDays'] as const;

function fixedFaults(was: JobFacts, input: JobFactsInput): Fault[] {
  return FIXED.filter((key) => JSON.stringify(was[key]) !== JSON.stringify(input[key])).map((field) => ({
    field,
    message: 'Something was billed or posted with this; what is certified never changes, so it stays as it was',
  }));
}

/** Saves the people of a job: the client's contacts and our team, as one list. */
export async function savePeople(command: Command, number: string, people: readonly Person[], seen: string): Promise<void> {
  await replaceList(
    command,
    number,
    { what: 'people' as const, seen },
    'job_person',
    ['side', 'name', 'role', 'email', 'phone'],
    people.map((it) => [it.side, it.name, it.role, it.email, it.phone]),
  );
}

/** Saves the checklist of a job. */
export async function saveChecklist(command: Command, number: string, items: readonly CheckItem[], seen: string): Promise<void> {
  await replaceList(
    command,
    number,
    { what: 'checklist' as const, seen },
    'job_check',
    ['item', 'person', 'due_on', 'done_on'],
    items.map((it) => [it.item, it.person, it.dueOn, it.doneOn]),
  );
}

async function replaceList(
  command: Command,
  number: string,
  { what, seen }: { what: 'people' | 'checklist'; seen: string },
  table: 'job_person' | 'job_check',
  columns: readonly string[],
  rows: readonly (readonly unknown[])[],
): Promise<void> {
  const { sql } = command;
  const { id } = await jobByNumber(sql, number, 'job');
  const { [what]: now } = await jobFileView(sql, number);
  await assertUnchanged(command, `The ${what} of this job`, { subject: number, now, seen });
  await sql.run(`DELETE FROM ${table} WHERE job_id = $1`, [id]);
  await bulkInsert(
    sql,
    table,
    ['job_id', ...columns],
    rows.map((row) => [id, ...row]),
  );
  command.note(number, rows);
}

/** Saves a checklist under a name, for other jobs. */
export async function saveCheckTemplate(command: Command, input: CheckTemplate): Promise<void> {
  const { sql } = command;
  await sql.run(
    'INSERT INTO check_template (name, items) VALUES ($1, $2) ON CONFLICT (name) DO UPDATE SET items = excluded.items',
    [input.name, JSON.stringify(input.items)],
  );
  command.note(input.name, input);
}

/** Notes something that happened on a job, for good. */
export async function addEvent(command: Command, number: string, input: EventInput): Promise<void> {
  const { sql, actor } = command;
  const { id } = await jobByNumber(sql, number, 'job');
  await sql.run('INSERT INTO job_event (job_id, kind, dated, text, actor, recorded_at) VALUES ($1, $2, $3, $4, $5, $6)', [
    id,
    input.kind,
    input.dated,
    input.text,
    actor.name,
    actor.at,
  ]);
  command.note(number, input);
}

/** An attachment to be attached, as it was uploaded. */
export interface UploadedFile {
  name: string;
  mediaType: string;
  content: Buffer;
}

/** Attaches an attachment: its bytes go into `folder` under their hash, so that what is opened later is what came. */
export async function attachFile(
  command: Command,
  folder: string,
  number: string,
  file: UploadedFile,
  about: string,
): Promise<void> {
  const { sql, actor } = command;
  if (file.content.length === 0)
    throw new LedrinError('bad-input', 'file: it is empty', [{ field: 'file', message: 'it is empty' }]);
  const hash = hashOf(file.content);
  const { id } = await jobByNumber(sql, number, 'job');
  keepContent(folder, hash, file.content);
  await insertFile(sql, actor, id, file, hash, about);
  command.note(number, { name: file.name, hash });
}

async function insertFile(sql: Sql, actor: Actor, jobId: number, file: UploadedFile, hash: string, about: string): Promise<void> {
  await sql.run(
    'INSERT INTO attachment (job_id, name, media_type, size, hash, about, actor, added_at) VALUES ($1, $2, $3, $4, $5, $6, $7, $8)',
    [jobId, file.name, file.mediaType, file.content.length, hash, about, actor.name, actor.at],
  );
}
