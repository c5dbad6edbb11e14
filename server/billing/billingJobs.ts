import { known } from '../../core/errors/known';
import { JobTable, SovLineTable } from '../jobs/models';
import { InvoiceTable, RetentionReleaseTable } from './models';
import type { PlainDate } from '../../core/calendar/plainDate';
import { listed, pick, shape, t, type RowOf } from '../db/fields';
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
  locked: boolean;
  /** The job's terms, else the client's; null where neither says. */
  termsDays: number | null;
  sovLineIds: Map<string, number>;
  applicationIds: Map<number, number>;
  /** The day each invoice falls due, by its reference. */
  dueDays: Map<string, PlainDate>;
}

const RetentionRow = pick(
  JobTable,
  ...(['retention_rate', 'retention_materials_rate', 'retention_step_at', 'retention_step_to'] as const),
  ...(['retention_step_applies', 'retention_cap'] as const),
);
const FACTS = pick(JobTable, 'id', 'number', 'name', 'status', 'awarded_on', 'locked', 'tax_rate');
const JobRow = shape({ ...FACTS.fields, ...RetentionRow.fields, client: t.text, terms_days: t.orNull(t.whole) });
type JobRow = RowOf<typeof JobRow>;

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
  const only = `WHERE job.id IN (${jobIds.map(Number).join(', ')})`;
  const jobs = await sql.all(
    JobRow,
    `SELECT ${listed(FACTS, 'job')}, ${listed(RetentionRow, 'job')}, c.code AS client, coalesce(job.terms_days, c.terms_days) AS terms_days FROM job JOIN client c ON c.id = job.client_id ${only} ORDER BY job.number`,
  );
  const byId = new Map(jobs.map((row) => [row.id, emptyJob(row)]));
  await loadSchedule(sql, byId, only);
  await loadPriceChanges(sql, byId, only);
  await loadApplications(sql, byId, only);
  await loadReleases(sql, byId, only);
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
    locked: row.locked === 1,
    termsDays: row.terms_days,
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

async function loadSchedule(sql: Reader, jobs: Map<number, Mutable>, only: string): Promise<void> {
  const rows = await sql.all(
    SovLineTable,
    `SELECT s.* FROM sov_line s JOIN job ON job.id = s.job_id ${only} ORDER BY s.job_id, s.original DESC, s.position`,
  );
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

async function loadPriceChanges(sql: Reader, jobs: Map<number, Mutable>, only: string): Promise<void> {
  const rows = await sql.all(
    shape({ job_id: t.whole, number: t.text, line: t.text, amount: t.cents, decided_on: t.day }),
    `SELECT o.job_id, o.number, s.line, l.amount, o.decided_on FROM change_order_line l JOIN change_order o ON o.id = l.change_order_id
      JOIN sov_line s ON s.id = l.sov_line_id JOIN job ON job.id = o.job_id ${only} AND l.side = 'price' AND o.status = 'approved' ORDER BY l.id`,
  );
  for (const row of rows)
    known(jobs, row.job_id).priceChanges.push({
      changeOrder: row.number,
      line: row.line,
      amount: row.amount,
      approvedOn: row.decided_on,
    });
}

async function loadApplications(sql: Reader, jobs: Map<number, Mutable>, only: string): Promise<void> {
  const rows = await sql.all(
    shape({
      id: t.whole,
      job_id: t.whole,
      number: t.whole,
      dated: t.day,
      status: t.oneOf<Application['status']>(),
      certified_on: t.orNull(t.day),
      reference: t.text,
      lines: t.text,
    }),
    `SELECT a.id, a.job_id, a.number, a.dated, a.status, a.certified_on, a.reference,
      (SELECT json_group_array(json_array(s.line, l.work, l.materials, l.certified_work, l.certified_materials))
        FROM application_line l JOIN sov_line s ON s.id = l.sov_line_id WHERE l.application_id = a.id) AS lines
      FROM application a JOIN job ON job.id = a.job_id ${only} ORDER BY a.job_id, a.number`,
  );
  for (const row of rows) {
    const job = known(jobs, row.job_id);
    job.applicationIds.set(row.number, row.id);
    job.applications.push({
      number: row.number,
      dated: row.dated,
      status: row.status,
      certifiedOn: row.certified_on,
      reference: row.reference,
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

async function loadReleases(sql: Reader, jobs: Map<number, Mutable>, only: string): Promise<void> {
  const rows = await sql.all(
    RetentionReleaseTable,
    `SELECT r.* FROM retention_release r JOIN job ON job.id = r.job_id ${only} ORDER BY r.dated, r.id`,
  );
  for (const row of rows)
    known(jobs, row.job_id).releases.push({ reference: row.reference, dated: row.dated, amount: row.amount });
}
