import { JobTable } from '../jobs/models';
import { AttachmentTable, CheckTemplateTable, JobCheckTable, JobEventTable, JobPersonTable } from './models';
import { factColumns } from '../../core/jobs/jobFacts';
import { passesCeiling } from '../../core/charging/ceiling';
import { pricingRefusals } from '../../core/charging/pricing';
import { refuse } from '../../core/refusals/refusal';
import { chargeAll, recharge } from '../charging/marks';
import { closedTo } from '../ledger/closing';
import { loadDigits } from '../company/company';
import { CHARGED_INVOICES, OF_A_CONTRACT } from './queries';
import { termsRefusals, RETENTION_FIELDS } from '../../core/jobs/jobTerms';
import { assertNoFaults, faultsOf } from '../acts/refused';
import type { Command } from '../acts/command';
import { LedrinError, type Fault } from '../../core/errors/ledrinError';
import type { CheckItem, CheckTemplate, EventInput, JobFacts, JobFactsInput, Person } from '../../wire/jobFile';
import type { Sql } from '../db/sql';
import { hashOf, keepContent } from '../attachments/contents';
import { present } from '../../core/errors/known';
import { ClientTable } from '../company/models';
import { factsAreFixed, isBilled, jobFileView } from './jobFileView';
import { closedPeopleFaults, teamNames } from '../masters/closedPeople';
import { assertOfTeam, assertOfTeamOrOwner } from '../jobs/restricted';
import { listColumnsOf } from '../jobs/listFacts';
import { retentionColumns } from '../jobs/retentionTerms';
import { jobByNumber } from '../jobs/jobByNumber';
import { type Actor } from '../acts/audit';
import { assertUnchanged } from '../versions/staleness';

/** Changes the facts of a job. What billing was worked with stays as it is once something was billed or posted. */
export async function saveJobFacts(command: Command, number: string, input: JobFactsInput): Promise<void> {
  const { sql } = command;
  const { id, awarded_on: awardedOn } = await jobByNumber(sql, number, 'job');
  const { facts: now } = await jobFileView(sql, number);
  await assertUnchanged(command, 'The details of this job', { subject: number, now, seen: input.seen });
  const faults: Fault[] = faultsOf(termsRefusals({ ...input, awardedOn }), 0, RETENTION_FIELDS);
  if (await factsAreFixed(sql, id)) faults.push(...fixedFaults(now, input));
  const named = (['manager', 'estimator'] as const).map((field) => ({ field, name: input[field] }));
  faults.push(...(await closedPeopleFaults(sql, named, [now.manager, now.estimator])));
  const lists = await listColumnsOf(sql, input, now);
  faults.push(...lists.faults);
  const client = await sql.findOne(ClientTable, { code: input.client });
  if (!client) faults.push({ field: 'client', message: `There is no client ${input.client}; add the client first` });
  else if (input.client !== now.client && (await isBilled(sql, id)))
    faults.push({ field: 'client', message: `Client ${now.client} was billed for this job; it stays the client` });
  faults.push(...(await pricingFaults(sql, { id, number, awardedOn }, now, input)));
  assertNoFaults(faults);
  await sql.update(
    JobTable,
    { id },
    {
      name: input.name,
      client_id: present(client).id,
      ...factColumns(input),
      ...lists.columns,
      revenue_method: input.revenueMethod,
      pricing: input.pricing,
      charge_ceiling: input.ceiling,
      ...retentionColumns(input.retention),
      no_retention: input.noRetention ? 1 : 0,
      tax_rate: input.taxRate,
      terms_days: input.termsDays,
    },
  );
  // All cost of a charged job is charged unless it says otherwise, and rates go by its client.
  if (input.pricing === 'charged' && now.pricing === 'fixed') await chargeAll(sql, id);
  else if (input.client !== now.client) await recharge(sql, [id]);
  command.note(number, { was: now, now: { ...input, seen: undefined } });
}

/** Why a job cannot be priced so: what it has of a contract, or what is invoiced of it already. */
async function pricingFaults(
  sql: Sql,
  job: { id: number; number: string; awardedOn: string | null },
  was: JobFacts,
  input: JobFactsInput,
): Promise<Fault[]> {
  if (was.pricing === input.pricing && was.ceiling === input.ceiling) return [];
  const closed = await closedTo(sql);
  if (closed !== null && job.awardedOn !== null && job.awardedOn <= closed)
    return faultsOf([refuse('pricing-in-closed', was.pricing === input.pricing ? 'ceiling' : 'pricing', { closed })], 0);
  const has = (await sql.get(OF_A_CONTRACT, [job.id]))?.has ?? null;
  const refusals = pricingRefusals(job.number, input, has);
  const passed = passesCeiling(await sql.all(CHARGED_INVOICES, [job.id]), input.ceiling, '');
  if (passed && input.ceiling !== null) refusals.push(refuse('ceiling-passed', 'ceiling', { ceiling: input.ceiling, ...passed }));
  return faultsOf(refusals, await loadDigits(sql));
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
  await replaceList(command, number, { what: 'people' as const, seen }, async (sql, id) => {
    const there = (await sql.find(JobPersonTable, { job_id: id })).map((it) => it.name);
    assertNoFaults(await closedPeopleFaults(sql, teamNames(people), there));
    await sql.remove(JobPersonTable, { job_id: id });
    await sql.insertAll(
      JobPersonTable,
      people.map((it) => ({ ...it, job_id: id })),
    );
  });
}

/** Saves the checklist of a job. */
export async function saveChecklist(command: Command, number: string, items: readonly CheckItem[], seen: string): Promise<void> {
  await replaceList(command, number, { what: 'checklist' as const, seen }, async (sql, id) => {
    await sql.remove(JobCheckTable, { job_id: id });
    await sql.insertAll(
      JobCheckTable,
      items.map(({ item, person, dueOn, doneOn }) => ({ job_id: id, item, person, due_on: dueOn, done_on: doneOn })),
    );
  });
}

async function replaceList(
  command: Command,
  number: string,
  { what, seen }: { what: 'people' | 'checklist'; seen: string },
  save: (sql: Sql, jobId: number) => Promise<void>,
): Promise<void> {
  const { sql } = command;
  const { id } = await jobByNumber(sql, number, 'job');
  const { [what]: now } = await jobFileView(sql, number);
  await assertOfTeamOrOwner(sql, command.actor, id);
  await assertUnchanged(command, `The ${what} of this job`, { subject: number, now, seen });
  await save(sql, id);
  command.note(number, { was: now });
}

/** Saves a checklist under a name, for other jobs. */
export async function saveCheckTemplate(command: Command, input: CheckTemplate): Promise<void> {
  const { sql } = command;
  await sql.save(CheckTemplateTable, [{ name: input.name, items: JSON.stringify(input.items) }], ['name']);
  command.note(input.name, input);
}

/** Notes something that happened on a job, for good. */
export async function addEvent(command: Command, number: string, input: EventInput): Promise<void> {
  const { sql, actor } = command;
  const { id } = await jobByNumber(sql, number, 'job');
  await assertOfTeam(sql, actor, [id]);
  await sql.insert(JobEventTable, {
    job_id: id,
    kind: input.kind,
    dated: input.dated,
    text: input.text,
    actor: actor.name,
    recorded_at: actor.at,
  });
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
  { about, forSite }: { about: string; forSite: boolean },
): Promise<void> {
  const { sql, actor } = command;
  if (file.content.length === 0)
    throw new LedrinError('bad-input', 'file: it is empty', [{ field: 'file', message: 'it is empty' }]);
  const hash = hashOf(file.content);
  const { id } = await jobByNumber(sql, number, 'job');
  await assertOfTeam(sql, actor, [id]);
  keepContent(folder, hash, file.content);
  await insertFile(sql, actor, id, file, { hash, about, forSite });
  command.note(number, { name: file.name, hash, forSite });
}

/** Shows an attachment to those who work on site, who see no money; or to the office alone again. */
export async function showOnSite({ sql, note }: Command, number: string, id: number, forSite: boolean): Promise<void> {
  const job = await jobByNumber(sql, number, 'job');
  const file = await sql.findOne(AttachmentTable, { id, job_id: job.id });
  if (!file) throw new LedrinError('not-found', `Job ${number} has no attachment ${id}; reload the page`);
  await sql.update(AttachmentTable, { id }, { for_site: forSite ? 1 : 0 });
  note(number, { name: file.name, forSite });
}

async function insertFile(
  sql: Sql,
  actor: Actor,
  jobId: number,
  file: UploadedFile,
  { hash, about, forSite }: { hash: string; about: string; forSite: boolean },
): Promise<void> {
  await sql.insert(AttachmentTable, {
    job_id: jobId,
    name: file.name,
    media_type: file.mediaType,
    size: file.content.length,
    hash,
    about,
    for_site: forSite ? 1 : 0,
    actor: actor.name,
    added_at: actor.at,
  });
}
