import { BILLING_JOBS, SCHEDULES, PRICE_CHANGES, APPLICATIONS, RELEASES, type RetentionRow } from './queries';
import { known } from '../../core/errors/known';
import { InvoiceTable } from './models';
import type { PlainDate } from '../../core/calendar/plainDate';
import { type RowOf } from '../db/fields';
import type { Application, BilledLine, BillingJob, RetentionRelease } from '../../core/billing/application';
import type { PriceChange, SovLine } from '../../core/contract/contract';
import type { RetentionRule } from '../../core/billing/retention';
import type { Reader } from '../db/sql';

/** A job with all that its billing is worked from, and the ids its postings are saved under. */
export interface LoadedBillingJob extends BillingJob {
  id: number;
  number: string;
  name: string;
  client: string;
  status: string;
  awardedOn: string | null;
  /** It is charged for what it costs: it has no contract sum. */
  isCharged: boolean;
  locked: boolean;
  /** The job's terms, else the client's; null where neither says. */
  termsDays: number | null;
  /** What is applied for stands: the client never certifies. */
  neverCertifies: boolean;
  sovLineIds: Map<string, number>;
  applicationIds: Map<number, number>;
  /** The day each invoice falls due, by its reference. */
  dueDays: Map<string, PlainDate>;
}

type JobRow = RowOf<typeof BILLING_JOBS>;

/** The retention rule as the job's columns hold it; a step needs both its rates. */
export function retentionRule(row: RowOf<typeof RetentionRow>): RetentionRule {
  const { retention_step_at: at, retention_step_to: to } = row;
  return {
    rate: row.retention_rate,
    materialsRate: row.retention_materials_rate,
    step: at === null || to === null ? null : { at, to, applies: row.retention_step_applies },
    cap: row.retention_cap,
  };
}

/** Billing of the jobs with these ids, by job number. */
export async function loadBillingJobs(sql: Reader, ...jobIds: readonly number[]): Promise<Map<string, LoadedBillingJob>> {
  const ids = JSON.stringify(jobIds);
  const jobs = await sql.all(BILLING_JOBS, [ids]);
  const byId = new Map(jobs.map((row) => [row.id, emptyJob(row)]));
  await loadSchedule(sql, byId, ids);
  await loadPriceChanges(sql, byId, ids);
  await loadApplications(sql, byId, ids);
  await loadReleases(sql, byId, ids);
  for (const row of await sql.find(InvoiceTable, { job_id: jobIds }))
    byId.get(row.job_id)?.dueDays.set(row.reference, row.due_on);
  return new Map([...byId.values()].map((job) => [job.number, job]));
}

/** Billing of the one job with this id. */
export async function loadBillingJob(sql: Reader, jobId: number): Promise<LoadedBillingJob> {
  const [job] = [...(await loadBillingJobs(sql, jobId)).values()];
  if (!job) throw new Error(`There is no job with id ${jobId}`);
  return job;
}

type Mutable = LoadedBillingJob & {
  sovLines: SovLine[];
  priceChanges: PriceChange[];
  applications: Application[];
  releases: RetentionRelease[];
};

function emptyJob(row: JobRow): Mutable {
  return {
    id: row.id,
    number: row.number,
    name: row.name,
    client: row.client,
    status: row.status,
    awardedOn: row.awarded_on,
    isCharged: row.pricing === 'charged',
    locked: row.locked === 1,
    termsDays: row.terms_days,
    neverCertifies: row.never_certifies === 1,
    taxRate: row.tax_rate,
    retention: retentionRule(row),
    sovLines: [],
    priceChanges: [],
    applications: [],
    releases: [],
    sovLineIds: new Map(),
    applicationIds: new Map(),
    dueDays: new Map(),
  };
}

async function loadSchedule(sql: Reader, jobs: Map<number, Mutable>, ids: string): Promise<void> {
  const rows = await sql.all(SCHEDULES, [ids]);
  for (const row of rows) {
    const job = known(jobs, row.job_id);
    job.sovLineIds.set(row.line, row.id);
    job.sovLines.push({
      line: row.line,
      section: row.section,
      description: row.description,
      scheduledValue: row.scheduled_value,
      quantity: row.quantity,
      unit: row.unit,
      retentionRate: row.retention_rate,
      original: row.original === 1,
    });
  }
}

async function loadPriceChanges(sql: Reader, jobs: Map<number, Mutable>, ids: string): Promise<void> {
  const rows = await sql.all(PRICE_CHANGES, [ids]);
  for (const row of rows)
    known(jobs, row.job_id).priceChanges.push({
      changeOrder: row.number,
      line: row.line,
      amount: row.amount,
      approvedOn: row.decided_on,
    });
}

async function loadApplications(sql: Reader, jobs: Map<number, Mutable>, ids: string): Promise<void> {
  const rows = await sql.all(APPLICATIONS, [ids]);
  for (const row of rows) {
    const job = known(jobs, row.job_id);
    job.applicationIds.set(row.number, row.id);
    job.applications.push({
      number: row.number,
      dated: row.dated,
      status: row.status,
      certifiedOn: row.certified_on,
      reference: row.reference,
      above: row.above,
      lines: billedLines(row.lines),
    });
  }
}

function billedLines(json: string): BilledLine[] {
  return (JSON.parse(json) as [string, number, number, number | null, number | null][]).map(
    ([line, work, materials, certifiedWork, certifiedMaterials]) => ({
      line,
      work,
      materials,
      certifiedWork,
      certifiedMaterials,
    }),
  );
}

async function loadReleases(sql: Reader, jobs: Map<number, Mutable>, ids: string): Promise<void> {
  const rows = await sql.all(RELEASES, [ids]);
  for (const row of rows)
    known(jobs, row.job_id).releases.push({ reference: row.reference, dated: row.dated, amount: row.amount });
}
