import { messageOf, showIn } from '../../../core/refusals/messages';
import type { Refusal } from '../../../core/refusals/refusal';
import { isJobNumberPattern } from '../../../core/jobs/jobNumber';
import type { BookFileName, BookRow } from '../format/bookFiles';
import { type FaultList } from './bookFaults';
import { currencyDigits, isCurrency } from '../format/currency';
import type { Existing } from './existing';
import { joinKey, Keys } from './keys';
import { whyNotAdded } from './whyNotAdded';
import type { FileShape } from '../csv/readRows';

/** The rows of every file but costs.csv, which streams. */
export type BookRows = { [F in Exclude<BookFileName, 'costs'>]: BookRow<F>[] };

/** Keys a book brings whole: the database's own are never added to. */
const NOTHING = new Set<string>();

/**
 * What the checks of one book share: its rows, the keys that may be referred to, and the faults found.
 * A check that would only repeat what an earlier fault already said stays silent.
 */
export class BookCheck {
  readonly faults: FaultList;
  readonly keys: Record<
    | 'customers'
    | 'vendors'
    | 'costCodes'
    | 'priceItems'
    | 'buildUps'
    | 'estimates'
    | 'estimateLines'
    | 'quotations'
    | 'offers'
    | 'jobTemplates'
    | 'terms'
    | 'awards'
    | 'awardLines'
    | 'jobs'
    | 'sections'
    | 'plannedLines'
    | 'instalments'
    | 'instalmentStages'
    | 'sovLines'
    | 'changeOrders'
    | 'commitments'
    | 'commitmentLines'
    | 'applications'
    | 'releases'
    | 'forecasts',
    Keys
  >;
  /** Jobs with a fault among their contract or billing: figures worked from them would only be faulty too. */
  readonly unreliable = new Set<string>();
  /** Jobs, or job + SOV line, whose scheduled values are not known for a fault in them. */
  readonly unreliableSchedules = new Set<string>();
  /** Job of every commitment line the book declares. */
  readonly commitmentLineJobs = new Map<string, string>();
  /** Values of forecasts by row, scaled by their method: money, a rate, or hours. */
  readonly forecastValues = new Map<number, number>();
  /** What the database already received on each invoice, by job + posting. */
  receivedBefore = new Map<string, number>();

  constructor(
    readonly rows: BookRows,
    readonly existing: Existing,
    readonly shapes: Partial<Record<BookFileName, FileShape>>,
    faults: FaultList,
    /** Decimals of the currency; null where it is at fault. */
    readonly digits: number | null,
  ) {
    this.faults = faults;
    const keys = (map: { has(key: string): boolean }, file: BookFileName, ...columns: string[]) => {
      const made = new Keys(map);
      const shape = shapes[file];
      made.incomplete = shape !== undefined && (!shape.readable || columns.some((it) => shape.missingColumns.includes(it)));
      return made;
    };
    this.keys = {
      customers: keys(existing.customers, 'customers', 'customer'),
      vendors: keys(existing.vendors, 'vendors', 'vendor'),
      costCodes: keys(existing.costCodes, 'cost_codes', 'cost_code'),
      priceItems: keys(existing.priceItems, 'price_items', 'price_item'),
      buildUps: keys(existing.buildUps, 'build_ups', 'build_up'),
      estimates: keys(existing.estimates, 'estimates', 'job', 'estimate'),
      estimateLines: keys(NOTHING, 'estimate_lines', 'job', 'estimate', 'estimate_line'),
      quotations: keys(existing.quotations, 'quotations', 'job', 'quotation'),
      offers: keys(existing.offers, 'offers', 'link'),
      jobTemplates: keys(existing.jobTemplates, 'job_templates', 'template'),
      terms: keys(existing.terms, 'terms', 'name'),
      awards: keys(NOTHING, 'awards', 'job', 'sov_line'),
      awardLines: keys(NOTHING, 'award_lines', 'job', 'estimate_line'),
      jobs: keys(existing.jobs, 'jobs', 'job'),
      sections: keys(existing.sections, 'job_sections', 'job', 'section'),
      plannedLines: keys(existing.plannedLines, 'cost_plan'),
      instalments: keys(NOTHING, 'billing_instalments', 'job', 'instalment'),
      instalmentStages: keys(NOTHING, 'instalment_stages'),
      sovLines: keys(existing.sovLines, 'schedule_of_values', 'job', 'sov_line'),
      changeOrders: keys(existing.changeOrders, 'change_orders', 'job', 'change_order'),
      commitments: keys(existing.commitments, 'commitments', 'commitment'),
      commitmentLines: keys(existing.commitmentLines, 'commitments', 'commitment', 'line'),
      applications: keys(existing.applications, 'applications', 'job', 'application'),
      releases: keys(existing.releases, 'retention_releases', 'job', 'reference'),
      forecasts: keys(existing.forecasts, 'forecasts'),
    };
  }

  /** Places a refusal of core at a row; `columns` name the fields that are called otherwise in the file. */
  refuse(
    file: BookFileName,
    row: number,
    refusal: Refusal,
    digits: number,
    columns: Readonly<Record<string, string>> = {},
  ): void {
    const message = messageOf(refusal, showIn(digits));
    const [first = '', ...rest] = message;
    this.faults.add(file, row, columns[refusal.at] ?? refusal.at, first.toLowerCase() + rest.join(''));
  }

  /** Declares the key of a row; a key that is there already is a fault in the key's last column. */
  declare(
    file: BookFileName,
    row: number,
    column: string,
    keys: Keys,
    ...parts: readonly (string | number | null | undefined)[]
  ): void {
    if (parts.some((part) => part === undefined)) return;
    const known = parts.map((part) => part ?? '');
    if (!keys.declare(joinKey(...known)))
      this.faults.add(file, row, column, `duplicate key: ${known.filter((it) => it !== '').join(', ')} is already there`);
  }

  /** Reports a reference to something neither the book nor the database has; true where it resolves. */
  refers(
    file: BookFileName,
    row: number,
    column: string,
    keys: Keys,
    what: string,
    ...parts: readonly (string | number | null | undefined)[]
  ): boolean {
    if (parts.some((part) => part === null || part === undefined)) return false;
    if (keys.has(joinKey(...(parts as string[])))) return true;
    this.faults.add(
      file,
      row,
      column,
      `unknown reference: there is no ${what} ${parts.at(-1)}${parts.length > 1 ? ` on ${parts[0]}` : ''}`,
    );
    return false;
  }

  /** The reference to a job, in column `job`; true where it resolves. */
  refersToJob(file: BookFileName, row: { row: number; job: string | null | undefined }): boolean {
    const known = this.refers(file, row.row, 'job', this.keys.jobs, 'job', row.job);
    const there = known ? this.existing.jobs.get(row.job!) : undefined;
    const why = there && whyNotAdded(file, row.job!, there);
    if (why) this.faults.add(file, row.row, 'job', why);
    return known;
  }

  /** A fault among a job's contract or billing: what is worked from it is not judged any more. */
  markUnreliable(job: string | null | undefined): void {
    if (job) this.unreliable.add(job);
  }

  /** A fault in what a job's lines (or one of them) are worth. */
  markScheduleUnreliable(job: string | null | undefined, line?: string | null): void {
    this.markUnreliable(job);
    if (job) this.unreliableSchedules.add(line ? joinKey(job, line) : job);
  }
}

/** Checks company, customers, vendors and cost codes. */
export function checkParties(check: BookCheck): void {
  const { rows, faults, existing, keys } = check;
  for (const row of rows.company) {
    if (typeof row.currency === 'string' && !isCurrency(row.currency))
      faults.add('company', row.row, 'currency', `"${row.currency}" is not an ISO 4217 currency code such as GBP`);
    if (row.job_number_pattern && !isJobNumberPattern(row.job_number_pattern))
      faults.add(
        'company',
        row.row,
        'job_number_pattern',
        `"${row.job_number_pattern}" is no pattern such as YY-###: it has one run of #`,
      );
    if (row !== rows.company[0]) faults.add('company', row.row, 'name', 'duplicate key: a book has one company');
    else if (existing.company && !sameCompany(row, existing))
      faults.add('company', row.row, 'name', 'duplicate key: the database has another company already');
  }
  const shape = check.shapes.company;
  if (rows.company.length === 0 && !existing.company && (!shape || (shape.readable && shape.missingColumns.length === 0))) {
    faults.add('company', 1, '', 'there is no company in company.csv, and the database has none yet');
  }
  for (const row of rows.customers) check.declare('customers', row.row, 'customer', keys.customers, row.customer);
  for (const row of rows.vendors) check.declare('vendors', row.row, 'vendor', keys.vendors, row.vendor);
  for (const row of rows.cost_codes) check.declare('cost_codes', row.row, 'cost_code', keys.costCodes, row.cost_code);
}

function sameCompany(row: BookRow<'company'>, { company }: Existing): boolean {
  return company !== null && row.name === company.name && row.currency === company.currency;
}

/** Decimals of the book's currency; null where the currency is itself at fault. */
export function bookDigits(company: BookRow<'company'> | undefined, existing: Existing): number | null {
  const code = existing.currency ?? company?.currency;
  return typeof code === 'string' && isCurrency(code) ? currencyDigits(code) : null;
}
