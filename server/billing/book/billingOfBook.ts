import type { BilledLine } from '../../../core/billing/application';
import type { BookCheck } from '../../bookFormat/bookCheck';
import { isWhole, type ReadRow } from '../../bookFormat/columns';
import { joinKey } from '../../bookFormat/keys';
import { changeOrderLines, changeOrders } from '../../changes/bookFiles';
import { bookTaxRate, customers } from '../../company/book/bookFiles';
import { jobs, scheduleOfValues } from '../../jobs/bookFiles';
import type { LoadedBillingJob } from '../billingJobs';
import { bookBilling, unreliable, type BookApplication, type BookBilling } from './bookBilling';
import type { BillingFiles } from './bookColumns';

type BillingByJob = Map<string, BookBilling>;

/**
 * Puts together the billing of every job the book says something of. Faulty cells have been reported; rows that
 * lack what is needed here are left out, and their jobs are marked unreliable.
 */
export function billingOfBook(book: BookCheck, loaded: ReadonlyMap<string, LoadedBillingJob>, files: BillingFiles): void {
  const billing = book.own(bookBilling);
  for (const [number, job] of loaded) billing.set(number, fromDatabase(job));
  for (const row of book.rowsOf(jobs)) if (row.job && !billing.has(row.job)) billing.set(row.job, fromRow(row, book));
  addSchedule(book, billing);
  addChanges(book, billing);
  addApplications(book, billing, files);
  addReleases(book, billing, files);
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

function fromRow(row: ReadRow<typeof jobs.columns>, book: BookCheck): BookBilling {
  const { retention_step_at_percent: at, retention_step_to_percent: to } = row;
  return {
    status: row.status ?? 'awarded',
    awardedOn: row.awarded_on ?? null,
    termsDays: row.terms_days ?? clientTerms(row.customer, book),
    taxRate: row.tax_percent ?? bookTaxRate(book),
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

function addSchedule(book: BookCheck, billing: BillingByJob): void {
  const seen = new Set<string>();
  for (const row of book.rowsOf(scheduleOfValues)) {
    const job = row.job && billing.get(row.job);
    if (!job || !row.sov_line) continue;
    const key = joinKey(row.job ?? '', row.sov_line);
    if (seen.has(key) || book.keysOf(scheduleOfValues).existing.has(key)) continue;
    seen.add(key);
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

function addChanges(book: BookCheck, billing: BillingByJob): void {
  const orders = new Map(book.rowsOf(changeOrders).map((row) => [joinKey(row.job ?? '', row.change_order ?? ''), row]));
  for (const row of book.rowsOf(changeOrderLines)) {
    const job = row.job && billing.get(row.job);
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
    const order = orders.get(joinKey(row.job ?? '', row.change_order ?? ''));
    if (order?.status === 'approved' && order.decided_on) {
      job.priceChanges.push({
        changeOrder: row.change_order ?? '',
        line: row.sov_line,
        amount: row.amount ?? 0,
        approvedOn: order.decided_on,
      });
    }
  }
}

function addApplications(book: BookCheck, billing: BillingByJob, files: BillingFiles): void {
  const byKey = new Map<string, BookApplication & { lines: BilledLine[] }>();
  for (const row of book.rowsOf(files.applications)) {
    if (!isWhole(row)) book.own(unreliable).job(row.job);
    const job = row.job && billing.get(row.job);
    if (!job || !row.application || !row.dated || !row.status || job.applications.some((it) => it.number === row.application))
      continue;
    const application = {
      number: row.application,
      dated: row.dated,
      status: row.status,
      reference: row.reference ?? '',
      above: row.above_scheduled ?? 0,
      aboveReason: row.above_reason ?? '',
      row: row.row,
      lineRows: new Map<string, number>(),
      faultyLines: new Set<string>(),
      lines: [] as BilledLine[],
      certifiedOn: row.status === 'certified' ? (row.certified_on ?? row.dated) : (row.certified_on ?? null),
    };
    byKey.set(joinKey(row.job ?? '', row.application), application);
    job.applications.push(application);
  }
  for (const row of book.rowsOf(files.applicationLines)) {
    if (!isWhole(row)) book.own(unreliable).job(row.job);
    const application = byKey.get(joinKey(row.job ?? '', row.application ?? ''));
    if (!application || !row.sov_line || application.lineRows.has(row.sov_line)) continue;
    if (!isWhole(row)) application.faultyLines.add(row.sov_line);
    application.lineRows.set(row.sov_line, row.row);
    application.lines.push({
      line: row.sov_line,
      work: row.work_to_date ?? 0,
      materials: row.materials_on_site ?? 0,
      certifiedWork: row.certified_work_to_date ?? null,
      certifiedMaterials: row.certified_materials_on_site ?? null,
    });
  }
  for (const job of billing.values()) job.applications.sort((a, b) => a.number - b.number);
}

function addReleases(book: BookCheck, billing: BillingByJob, files: BillingFiles): void {
  for (const row of book.rowsOf(files.retentionReleases)) {
    if (!isWhole(row)) book.own(unreliable).job(row.job);
    const job = row.job && billing.get(row.job);
    if (!job || !row.dated || !row.reference) continue;
    job.releases.push({ reference: row.reference, dated: row.dated, amount: row.amount ?? 0, row: row.row });
  }
  for (const job of billing.values())
    job.releases.sort((a, b) => (a.dated < b.dated ? -1 : a.dated > b.dated ? 1 : (a.row ?? 0) - (b.row ?? 0)));
}

/** The terms of a customer, the book's or the database's. */
function clientTerms(customer: string | null | undefined, book: BookCheck): number | null {
  const row = book.rowsOf(customers).find((it) => it.customer === customer);
  const there = book.there(customers, customer)?.terms_days;
  return row?.terms_days ?? (typeof there === 'number' ? there : null);
}
