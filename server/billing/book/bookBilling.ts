import type { Application, BillingJob, RetentionRelease } from '../../../core/billing/application';
import type { PriceChange, SovLine } from '../../../core/contract/contract';
import { shared, type BookCheck } from '../../bookFormat/bookCheck';
import { joinKey } from '../../bookFormat/keys';

export interface BookApplication extends Application {
  /** Why it may pass scheduled values. */
  aboveReason?: string;
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
  /** The job's terms, else the client's; null where neither says. */
  termsDays: number | null;
}

/** The billing of every job the book says something of, by its number; filled in once all rows were checked. */
export const bookBilling = shared(() => new Map<string, BookBilling>());

/** SOV lines of the jobs the book says something of, with their places. */
export function scheduledLines(book: BookCheck): { job: string; line: SovLine; position: number }[] {
  return [...book.own(bookBilling)].flatMap(([job, { sovLines }]) => sovLines.map((line, position) => ({ job, line, position })));
}

/** What is not judged any more, for a fault in what it is worked from. */
class Unreliable {
  private readonly jobs = new Set<string>();
  /** Jobs, or job + SOV line, whose scheduled values are not known. */
  private readonly schedules = new Set<string>();

  /** A fault among a job's contract or billing. */
  job(job: string | null | undefined): void {
    if (job) this.jobs.add(job);
  }

  /** A fault in what a job's lines, or one of them, are worth. */
  schedule(job: string | null | undefined, line?: string | null): void {
    this.job(job);
    if (job) this.schedules.add(line ? joinKey(job, line) : job);
  }

  has(job: string): boolean {
    return this.jobs.has(job);
  }

  hasSchedule(job: string, line?: string): boolean {
    return this.schedules.has(line === undefined ? job : joinKey(job, line));
  }
}

export const unreliable = shared(() => new Unreliable());
