import { APPLICATION_VERSION, RECEIPTS_OF_INVOICE } from './queries';
import { known, present } from '../../core/errors/known';
import { ApplicationLineTable, ApplicationTable } from './models';
import type { ApplicationMove } from '../../core/billing/applicationLife';
import {
  applicationDateRefusals,
  applicationRefusal,
  startRefusals,
  type MovingApplication,
} from '../../core/billing/applicationRefusals';
import type { AfterCertification } from '../../core/billing/certificationStays';
import { assertAllowed, assertNoFaults, fieldError } from '../acts/refused';
import type { Command } from '../acts/command';
import { LAST_DAY } from '../../core/calendar/plainDate';
import { lastCertified, type Application, type BilledLine } from '../../core/billing/application';
import { overbilledBy, overbillings, overbillingText } from '../../core/billing/overbilling';
import { scheduleAt } from '../../core/contract/contract';
import { LedrinError, type Fault } from '../../core/errors/ledrinError';
import type { ApplicationLinesInput, NewApplicationInput } from '../../wire/billing';
import type { Reader, Sql } from '../db/sql';
import { loadBillingJob, type LoadedBillingJob } from './billingJobs';
import { loadDigits } from '../company/company';
import { closedTo } from '../ledger/closing';
import { assertOfTeam } from '../jobs/restricted';
import { jobByNumber } from '../jobs/jobByNumber';
import { billedBySchedule } from './billedBySchedule';
import { assertVersion, type Saved } from '../versions/staleness';

interface BillingContext {
  job: LoadedBillingJob;
  status: string;
  digits: number;
}

async function billingContext(sql: Reader, number: string): Promise<BillingContext> {
  const { id, status } = await jobByNumber(sql, number, 'job');
  return { job: await loadBillingJob(sql, id), status, digits: await loadDigits(sql) };
}

/** What the moves of an application depend on, and why it cannot make one; null where it can. */
export async function movingApplication(
  sql: Reader,
  { job, status }: BillingContext,
  number: number,
): Promise<MovingApplication> {
  const application = applicationOf(job, number);
  const saved = present(await sql.findOne(ApplicationTable, { id: application.id }));
  return {
    number,
    status: application.status,
    job: { number: job.number, status, locked: job.locked },
    hasLines: application.lines.length > 0,
    invoice: saved.invoice_number,
    previous: job.applications.find((it) => it.number === number - 1),
    neverCertifies: job.neverCertifies,
    after: application.status === 'certified' ? await afterCertification(sql, job, number) : null,
  };
}

/** The job of an application that is to make a move of its life, and the application. Throws refused where it cannot. */
export async function movableApplication(sql: Reader, move: ApplicationMove, jobNumber: string, number: number) {
  const context = await billingContext(sql, jobNumber);
  assertAllowed([applicationRefusal(move, await movingApplication(sql, context, number))], { code: 'refused' });
  return { ...context, application: applicationOf(context.job, number) };
}

/** What happened after an application was certified. */
export async function afterCertification(sql: Reader, job: LoadedBillingJob, number: number): Promise<AfterCertification> {
  const { certifiedOn } = applicationOf(job, number);
  const since = present(certifiedOn);
  return {
    number,
    certifiedOn: since,
    closedTo: await closedTo(sql),
    next: job.applications.some((it) => it.number > number),
    receipts: await sql.all(RECEIPTS_OF_INVOICE, [job.id, String(number)]),
    releases: job.releases.filter((it) => it.dated >= since),
  };
}

export function applicationOf(job: LoadedBillingJob, number: number): Application & { id: number } {
  const application = job.applications.find((it) => it.number === number);
  if (!application) throw new LedrinError('not-found', `Job ${job.number} has no application ${number}`);
  return { ...application, id: present(job.applicationIds.get(number)) };
}

/**
 * Starts the next application: with the figures to date of the last one, or, `bySchedule`, with what the job's billing
 * schedule says is billed by its day.
 */
export async function startApplication(
  command: Command,
  jobNumber: string,
  { dated, reference, bySchedule }: NewApplicationInput,
): Promise<number> {
  const { sql } = command;
  const { job, status } = await billingContext(sql, jobNumber);
  await assertOfTeam(sql, command.actor, [job.id]);
  const last = job.applications.at(-1);
  assertAllowed(startRefusals({ ...job, status }, last), { code: 'refused' });
  assertAllowed(applicationDateRefusals(job, dated, last));
  const number = (last?.number ?? 0) + 1;
  const before = last ? present(await sql.findOne(ApplicationTable, { job_id: job.id, number: last.number })) : null;
  // What a line is billed above its scheduled value stays billed: figures are to date.
  const above = { above_scheduled: before?.above_scheduled ?? 0, above_reason: before?.above_reason ?? '' };
  const id = await sql.insert(ApplicationTable, { job_id: job.id, number, dated, status: 'draft', reference, ...above });
  const carried = (last?.lines ?? []).map((line) => ({
    line: line.line,
    work: line.certifiedWork ?? line.work,
    materials: line.certifiedMaterials ?? line.materials,
  }));
  await saveLines(sql, job, id, bySchedule ? await scheduledLines(sql, job, dated, carried) : carried);
  command.note(`${jobNumber}/${number}`, { dated, reference, bySchedule });
  return number;
}

/** Lines as the billing schedule states them, and what was billed before at nothing where it states nothing. */
async function scheduledLines(sql: Reader, job: LoadedBillingJob, dated: string, before: readonly { line: string }[]) {
  const billed = await billedBySchedule(sql, job, dated);
  if (!billed) throw fieldError('bySchedule', `Job ${job.number} has no billing schedule; expected no`);
  const named = new Set(before.map((it) => it.line));
  return [...billed]
    .filter(([line, work]) => work !== 0 || named.has(line))
    .map(([line, work]) => ({ line, work, materials: 0 }));
}

async function saveLines(
  sql: Sql,
  job: LoadedBillingJob,
  applicationId: number,
  lines: readonly { line: string; work: number; materials: number }[],
): Promise<void> {
  await sql.remove(ApplicationLineTable, { application_id: applicationId });
  await sql.insertAll(
    ApplicationLineTable,
    lines.map((it) => ({
      application_id: applicationId,
      sov_line_id: known(job.sovLineIds, it.line),
      work: it.work,
      materials: it.materials,
    })),
  );
}

/** Saves the figures of a draft. Lines not named stay as they are: whoever saves was not shown them. None may pass its scheduled value. */
export async function saveApplication(
  command: Command,
  jobNumber: string,
  number: number,
  input: ApplicationLinesInput,
): Promise<number> {
  const { sql, actor } = command;
  const { job, digits, application } = await movableApplication(sql, 'edit', jobNumber, number);
  await assertOfTeam(sql, actor, [job.id]);
  assertAllowed(
    applicationDateRefusals(
      job,
      input.dated,
      job.applications.find((it) => it.number === number - 1),
    ),
  );
  const saved = await savedApplication(sql, application.id);
  assertVersion(command, `application ${number}`, input.version === null ? null : saved, input.version ?? 0);
  const named = new Set(input.lines.map((it) => it.line));
  const others = application.lines
    .filter((it) => !named.has(it.line))
    .map(({ line, work, materials }) => ({ line, work, materials }));
  const lines = [...input.lines, ...others].map((it) => ({ ...it, certifiedWork: null, certifiedMaterials: null }));
  assertNoFaults(lineFaults(job, input.dated, lines, digits, 'lines', application.above));
  const version = saved.version + 1;
  await sql.update(
    ApplicationTable,
    { id: application.id },
    { dated: input.dated, reference: input.reference, version, saved_by: actor.name, saved_at: actor.at },
  );
  const billedBefore = new Set(lastCertified(job.applications, LAST_DAY, number)?.lines.map((it) => it.line));
  await saveLines(sql, job, application.id, withStatedAgain([...input.lines, ...others], billedBefore));
  command.note(`${jobNumber}/${number}`, input);
  return version;
}

export async function savedApplication(sql: Reader, id: number): Promise<Saved> {
  const [saved] = await sql.all(APPLICATION_VERSION, [id]);
  if (!saved) throw new Error(`application ${id} is not saved`);
  return saved;
}

/** Lines with figures, and those billed before, which must be stated again even at nothing. */
function withStatedAgain(lines: ApplicationLinesInput['lines'], before: ReadonlySet<string>): ApplicationLinesInput['lines'] {
  const named = new Set(lines.map((it) => it.line));
  const left = [...before].filter((line) => !named.has(line)).map((line) => ({ line, work: 0, materials: 0 }));
  return [...lines.filter((it) => it.work !== 0 || it.materials !== 0 || before.has(it.line)), ...left];
}

/** Lines that are not of the job, stand twice, or pass their scheduled value on `dated`; together they may do so by `above`. */
export function lineFaults(
  job: LoadedBillingJob,
  dated: string,
  lines: readonly BilledLine[],
  digits: number,
  field: string,
  above = 0,
): Fault[] {
  const scheduled = new Map(scheduleAt(job.sovLines, job.priceChanges, dated).map((line) => [line.line, line.scheduledToDate]));
  const allowed = overbilledBy(lines, scheduled) <= above;
  const seen = new Set<string>();
  return lines.flatMap((line, i) => {
    const twice = seen.has(line.line);
    seen.add(line.line);
    if (twice) return [{ field: `${field}.${i}.line`, message: `Line ${line.line} appears twice` }];
    const value = scheduled.get(line.line);
    if (value === undefined)
      return [{ field: `${field}.${i}.line`, message: `Line ${line.line} is not in the schedule of values on ${dated}` }];
    if (allowed) return [];
    return overbillings(line, value)
      .slice(0, 1)
      .map((over) => ({
        field: `${field}.${i}.${over.figure.endsWith('aterials') ? 'materials' : 'work'}`,
        message: overbillingText(over, (line.certifiedWork ?? line.work) + (line.certifiedMaterials ?? line.materials), digits),
      }));
  });
}

/** Sends a draft out, or takes a submitted application back to be changed. */
export async function setSubmitted(command: Command, jobNumber: string, number: number, submitted: boolean): Promise<void> {
  const { sql } = command;
  const { job, digits, application } = await movableApplication(sql, submitted ? 'submit' : 'return', jobNumber, number);
  if (submitted) assertNoFaults(lineFaults(job, application.dated, application.lines, digits, 'lines', application.above));
  await sql.update(ApplicationTable, { id: application.id }, { status: submitted ? 'submitted' : 'draft' });
  command.note(`${jobNumber}/${number}`, {});
}

/** Deletes a draft. */
export async function deleteApplication(command: Command, jobNumber: string, number: number): Promise<void> {
  const { sql } = command;
  const { application } = await movableApplication(sql, 'delete', jobNumber, number);
  await sql.remove(ApplicationLineTable, { application_id: application.id });
  await sql.remove(ApplicationTable, { id: application.id });
  command.note(`${jobNumber}/${number}`, {});
}
