import type { Application, BilledLine, BillingJob, RetentionRelease } from '../../../core/billing/application';
import type { PriceChange, SovLine } from '../../../core/contract/contract';
import type { LoadedBillingJob } from '../../billing/billingJobs';
import type { BookCheck, BookRows } from './checkBook';
import type { BookRow } from '../format/bookFiles';
import { joinKey } from './keys';

export interface BookApplication extends Application {
  /** Its row in applications.csv; null for one the database has. */
  row: number | null;
  /** Rows of its lines, by SOV line. */
  lineRows: Map<string, number>;
  /** SOV lines with a cell that could not be read. */
  faultyLines: Set<string>;
}

/** Billing of one job as it will stand once the book is in: what the database has and what the book adds. */
export interface BookBilling extends BillingJob {
  sovLines: SovLine[];
  priceChanges: PriceChange[];
  applications: BookApplication[];
  releases: (RetentionRelease & { row: number | null })[];
  awardedOn: string | null;
  status: string;
}

/** The default where a job's tax cell is empty: the company's, else 0. */
export function bookTaxRate(rows: BookRows, existingRate: number): number {
  return rows.company[0]?.tax_percent ?? existingRate;
}

/**
 * Puts together the billing of every job the book says something of. Faulty cells have been reported; rows
 * that lack what is needed here are left out, and their jobs are marked doubtful.
 */
export function billingOfBook(check: BookCheck, loaded: Map<string, LoadedBillingJob>): Map<string, BookBilling> {
  const jobs = new Map<string, BookBilling>();
  const taxRate = bookTaxRate(check.rows, check.existing.companyTaxRate);
  for (const [number, job] of loaded) jobs.set(number, fromDatabase(job));
  for (const row of check.rows.jobs) if (row.job && !jobs.has(row.job)) jobs.set(row.job, fromRow(row, taxRate));
  addSchedule(check, jobs);
  addChanges(check, jobs);
  addApplications(check, jobs);
  addReleases(check, jobs);
  return jobs;
}

function fromDatabase(job: LoadedBillingJob): BookBilling {
  return {
    ...job,
    sovLines: [...job.sovLines],
    priceChanges: [...job.priceChanges],
    applications: job.applications.map((it) => ({ ...it, row: null, lineRows: new Map(), faultyLines: new Set() })),
    releases: job.releases.map((it) => ({ ...it, row: null })),
  };
}

function fromRow(row: BookRow<'jobs'>, companyTaxRate: number): BookBilling {
  const { retention_step_at_percent: at, retention_step_to_percent: to } = row;
  return {
    status: row.status ?? 'awarded',
    awardedOn: row.awarded_on ?? null,
    taxRate: row.tax_percent ?? companyTaxRate,
    retention: {
      rate: row.retention_percent ?? 0,
      materialsRate: row.retention_on_materials_percent ?? null,
      step: typeof at === 'number' && typeof to === 'number' ? { at, to, applies: row.retention_step_applies ?? 'all' } : null,
      cap: row.retention_cap_percent ?? null,
    },
    sovLines: [],
    priceChanges: [],
    applications: [],
    releases: [],
  };
}

function addSchedule(check: BookCheck, jobs: Map<string, BookBilling>): void {
  const seen = new Set<string>();
  for (const row of check.rows.schedule_of_values) {
    const job = row.job && jobs.get(row.job);
    if (
      !job ||
      !row.sov_line ||
      seen.has(joinKey(row.job!, row.sov_line)) ||
      check.existing.sovLines.has(joinKey(row.job!, row.sov_line))
    )
      continue;
    seen.add(joinKey(row.job!, row.sov_line));
    job.sovLines.push({
      line: row.sov_line,
      section: row.section ?? '',
      description: row.description ?? '',
      scheduledValue: row.scheduled_value ?? 0,
      quantity: row.quantity ?? null,
      unit: row.unit ?? '',
      retentionRate: row.retention_percent ?? null,
      original: true,
    });
  }
}

function addChanges(check: BookCheck, jobs: Map<string, BookBilling>): void {
  const orders = new Map(check.rows.change_orders.map((row) => [joinKey(row.job ?? '', row.change_order ?? ''), row]));
  for (const row of check.rows.change_order_lines) {
    const job = row.job && jobs.get(row.job);
    if (!job || row.side !== 'price' || !row.sov_line) continue;
    if (!job.sovLines.some((line) => line.line === row.sov_line)) {
      job.sovLines.push({
        line: row.sov_line,
        section: row.section ?? '',
        description: row.description ?? '',
        scheduledValue: 0,
        quantity: row.quantity ?? null,
        unit: row.unit ?? '',
        retentionRate: null,
        original: false,
      });
    }
    const order = orders.get(joinKey(row.job!, row.change_order ?? ''));
    if (order?.status === 'approved' && order.decided_on) {
      job.priceChanges.push({
        changeOrder: row.change_order!,
        line: row.sov_line,
        amount: row.amount ?? 0,
        approvedOn: order.decided_on,
      });
    }
  }
}

function addApplications(check: BookCheck, jobs: Map<string, BookBilling>): void {
  const byKey = new Map<string, BookApplication & { lines: BilledLine[] }>();
  for (const row of check.rows.applications) {
    if (Object.values(row).includes(undefined)) check.markUnreliable(row.job);
    const job = row.job && jobs.get(row.job);
    if (!job || !row.application || !row.dated || !row.status || job.applications.some((it) => it.number === row.application))
      continue;
    const application = {
      number: row.application,
      dated: row.dated,
      status: row.status,
      reference: row.reference ?? '',
      row: row.row,
      lineRows: new Map<string, number>(),
      faultyLines: new Set<string>(),
      lines: [] as BilledLine[],
      certifiedOn: row.status === 'certified' ? (row.certified_on ?? row.dated) : (row.certified_on ?? null),
    };
    byKey.set(joinKey(row.job!, row.application), application);
    job.applications.push(application);
  }
  for (const row of check.rows.application_lines) {
    if (Object.values(row).includes(undefined)) check.markUnreliable(row.job);
    const application = byKey.get(joinKey(row.job ?? '', row.application ?? ''));
    if (!application || !row.sov_line || application.lineRows.has(row.sov_line)) continue;
    if (Object.values(row).includes(undefined)) application.faultyLines.add(row.sov_line);
    application.lineRows.set(row.sov_line, row.row);
    application.lines.push({
      line: row.sov_line,
      work: row.work_to_date ?? 0,
      materials: row.materials_on_site ?? 0,
      certifiedWork: row.certified_work_to_date ?? null,
      certifiedMaterials: row.certified_materials_on_site ?? null,
    });
  }
  for (const job of jobs.values()) job.applications.sort((a, b) => a.number - b.number);
}

function addReleases(check: BookCheck, jobs: Map<string, BookBilling>): void {
  for (const row of check.rows.retention_releases) {
    if (Object.values(row).includes(undefined)) check.markUnreliable(row.job);
    const job = row.job && jobs.get(row.job);
    if (!job || !row.dated || !row.reference) continue;
    job.releases.push({ reference: row.reference, dated: row.dated, amount: row.amount ?? 0, row: row.row });
  }
  for (const job of jobs.values())
    job.releases.sort((a, b) => (a.dated < b.dated ? -1 : a.dated > b.dated ? 1 : (a.row ?? 0) - (b.row ?? 0)));
}
