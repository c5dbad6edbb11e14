import { whyNotTaken } from '../../../core/jobs/takes';
import { isCertifiedAt, valueApplication, type BilledLine } from '../../../core/billing/application';
import {
  certificationRefusal,
  leastHeld,
  receiptRefusals,
  type MoneyReceived,
  type PayableInvoice,
} from '../../../core/billing/invoiceRefusals';
import { applicationDateRefusals, certifiedOnRefusals } from '../../../core/billing/applicationRefusals';
import { refuse } from '../../../core/refusals/refusal';
import { overbilledBy, overbillings, type OverbilledFigure } from '../../../core/billing/overbilling';
import { LAST_DAY } from '../../../core/calendar/plainDate';
import { scheduleAt } from '../../../core/contract/contract';
import { known, present } from '../../../core/errors/known';
import { formatCents } from '../../../core/money/cents';
import { rateOf } from '../../../core/money/rate';
import { shared, type BookCheck } from '../../bookFormat/bookCheck';
import { MOST_DIGITS } from '../../bookFormat/cells';
import { joinKey } from '../../bookFormat/keys';
import { isChargedJob } from '../../jobs/bookFiles';
import { bookBilling, unreliable, type BookApplication, type BookBilling } from './bookBilling';
import type { BookFileOf } from '../../bookFormat/bookFile';
import type { ReadRow } from '../../bookFormat/columns';
import type { BillingFiles, RECEIPT } from './bookColumns';

/** What the database already received on each invoice, by job + reference. */
export const receivedBefore = shared(() => new Map<string, MoneyReceived[]>());

/** Checks what must hold across the invoices of each job: order, scheduled values, retention, receipts. */
export function checkBilling(book: BookCheck, files: BillingFiles): void {
  const digits = book.digits ?? MOST_DIGITS;
  for (const [number, job] of book.own(bookBilling)) {
    job.applications.forEach((application, i) => {
      checkOrder(book, files, number, job, application, job.applications[i - 1]);
      checkScheduledValues(book, files, number, job, application, digits);
    });
    if (isChargedJob(book, number)) refuseOfCharged(book, files, number, job);
    checkStatedAgain(book, files, number, job);
    if (!book.own(unreliable).has(number)) checkRetention(book, files, job, digits);
  }
}

/** A charged job has no contract sum to apply for. */
function refuseOfCharged(book: BookCheck, files: BillingFiles, number: string, job: BookBilling): void {
  for (const { row } of job.applications)
    if (row !== null)
      book.refuse(
        files.applications,
        { row },
        refuse('charged-has-none', 'job', { job: number, what: 'application for payment' }),
      );
}

function checkOrder(
  book: BookCheck,
  files: BillingFiles,
  number: string,
  job: BookBilling,
  application: BookApplication,
  previous: BookApplication | undefined,
): void {
  const { row } = application;
  if (row === null) return;
  const found = book.faults.faults.length;
  const add = (column: string, message: string) => book.fault(files.applications, { row }, column, message);
  if ((application.above ?? 0) < 0) add('above_scheduled', 'expected 0 or more');
  if (application.above && !application.aboveReason) add('above_reason', 'say why it may pass the scheduled values');
  // Closed, it has been billed before.
  const why = job.status && job.status !== 'closed' ? whyNotTaken({ status: job.status, locked: false }, 'bills') : null;
  if (why !== null) add('job', `job ${number} ${why}`);
  if (application.number !== (previous?.number ?? 0) + 1)
    add('application', `gap: application ${application.number} follows ${previous?.number ?? 'none'}; they run 1, 2, 3`);
  const refusals = [
    ...applicationDateRefusals({ number, awardedOn: job.awardedOn }, application.dated, previous),
    ...certifiedOnRefusals(application, previous),
  ];
  for (const it of refusals) book.refuse(files.applications, { row }, it, { certifiedOn: 'certified_on' });
  if (book.faults.faults.length > found) book.own(unreliable).job(number);
}

const FIGURE_COLUMNS: Record<OverbilledFigure, string> = {
  work: 'work_to_date',
  materials: 'materials_on_site',
  certifiedWork: 'certified_work_to_date',
  certifiedMaterials: 'certified_materials_on_site',
};

function checkScheduledValues(
  book: BookCheck,
  files: BillingFiles,
  number: string,
  job: BookBilling,
  application: BookApplication,
  digits: number,
): void {
  if (application.row === null || book.own(unreliable).hasSchedule(number)) return;
  const scheduled = new Map(
    scheduleAt(job.sovLines, job.priceChanges, application.dated).map((line) => [line.line, line.scheduledToDate]),
  );
  if (overbilledBy(application.lines, scheduled) <= (application.above ?? 0)) return;
  const scheduledLines = new Set(job.sovLines.map((line) => line.line));
  for (const line of application.lines) {
    if (
      !scheduledLines.has(line.line) ||
      application.faultyLines.has(line.line) ||
      book.own(unreliable).hasSchedule(number, line.line)
    )
      continue;
    for (const { figure, by, limit } of overbillings(line, scheduled.get(line.line) ?? 0)) {
      book.fault(
        files.applicationLines,
        { row: known(application.lineRows, line.line) },
        FIGURE_COLUMNS[figure],
        `line ${line.line} would pass its scheduled value on ${application.dated}, ${formatCents(limit, digits)}, by ${formatCents(by, digits)}`,
      );
    }
  }
}

function isBilled(line: BilledLine): boolean {
  return [line.work, line.materials, line.certifiedWork, line.certifiedMaterials].some(
    (amount) => amount !== null && amount !== 0,
  );
}

/** A line billed before must be stated again by every later application. */
function checkStatedAgain(book: BookCheck, files: BillingFiles, number: string, job: BookBilling): void {
  const billed = new Map<string, number>();
  for (const application of job.applications) {
    const stated = new Set(application.lines.map((line) => line.line));
    for (const [line, by] of billed) {
      if (stated.has(line) || application.row === null) continue;
      book.fault(
        files.applications,
        { row: application.row },
        'application',
        `line ${line}, billed by application ${by}, is left out; state it again, with its figures to date`,
      );
      book.own(unreliable).job(number);
    }
    for (const line of application.lines) if (isBilled(line)) billed.set(line.line, application.number);
  }
}

/** No more is released than is held, on any day; and no certification brings retention below what was released. */
function checkRetention(book: BookCheck, files: BillingFiles, job: BookBilling, digits: number): void {
  for (const release of job.releases) {
    if (release.row === null) continue;
    // What goes back later, by a reversal, is held from then on; what is released later is judged by itself.
    const own = job.releases.indexOf(release);
    const others = job.releases.filter((it, i) => i < own || (i > own && it.amount < 0));
    const { held, on } = leastHeld({ ...job, releases: others }, release.dated);
    if (release.amount > held)
      book.fault(
        files.retentionReleases,
        { row: release.row },
        'amount',
        `${formatCents(release.amount, digits)} is more than the ${formatCents(held, digits)} held on ${on}`,
      );
  }
  for (const application of job.applications) {
    if (application.row === null || !isCertifiedAt(application, LAST_DAY)) continue;
    const on = present(application.certifiedOn);
    // What is released on that day or later is judged by the release.
    const releases = job.releases.filter((it) => it.dated < on);
    const refusal = certificationRefusal({ ...job, releases }, application);
    if (refusal) book.refuse(files.applications, { row: application.row }, refusal);
  }
}

/**
 * A receipt comes on or after the day its invoice was certified or released, and what is received lies on every day between zero and
 * what the invoice asks for. Where it does not, the first row in the order of the file is at fault that goes beyond with those before it.
 */
export function checkReceipts(
  rows: readonly ReadRow<typeof RECEIPT>[],
  book: BookCheck,
  receipts: BookFileOf<typeof RECEIPT>,
): void {
  const onInvoice = new Map<string, { invoice: PayableInvoice; rows: MoneyRow[] }>();
  for (const row of rows) {
    const job = row.job && book.own(bookBilling).get(row.job);
    if (!row.job || !job || !row.application) continue;
    const invoice = invoiceOf(job, row.application);
    if (!invoice) continue;
    const { from } = invoice;
    if (from === null) {
      const message = `application ${row.application} of job ${row.job} is not certified; only what is certified is paid`;
      if (row.dated) book.fault(receipts, row, 'dated', message);
      continue;
    }
    // Of a job with a fault, or an amount that cannot be read, only the date can be judged.
    const judged = !book.own(unreliable).has(row.job) && typeof row.amount === 'number';
    const payable = judged ? invoice.payable : 0;
    if (!judged) {
      if (row.dated && row.dated < from)
        book.refuse(receipts, row, refuse('receipt-too-early', 'dated', { on: row.dated, since: from }));
      continue;
    }
    const key = joinKey(row.job, row.application);
    const before = book.own(receivedBefore).get(key) ?? [];
    const state: { invoice: PayableInvoice; rows: MoneyRow[] } = onInvoice.get(key) ?? {
      invoice: { since: from, payable, receipts: before },
      rows: [],
    };
    state.rows.push({ row, dated: row.dated ?? from, amount: row.amount ?? 0 });
    onInvoice.set(key, state);
  }
  for (const { invoice, rows: money } of onInvoice.values()) checkReceived(book, receipts, invoice, money);
}

export type MoneyRow = MoneyReceived & { row: ReadRow<typeof RECEIPT> };

export function checkReceived(
  book: BookCheck,
  receipts: BookFileOf<typeof RECEIPT>,
  invoice: PayableInvoice,
  money: readonly MoneyRow[],
): void {
  const first = money.reduce((earliest, it) => (it.dated < earliest.dated ? it : earliest));
  const rest = [...invoice.receipts, ...money.filter((it) => it !== first)];
  const whole = receiptRefusals({ ...invoice, receipts: rest }, first);
  if (whole.length === 0) return;
  let before: readonly MoneyReceived[] = invoice.receipts;
  let blamed = false;
  for (const it of money) {
    const refusals = receiptRefusals({ ...invoice, receipts: before }, it);
    for (const refusal of refusals) book.refuse(receipts, it.row, refusal);
    blamed ||= refusals.length > 0;
    before = [...before, it];
  }
  const last = money.at(-1);
  if (!blamed && last) for (const refusal of whole) book.refuse(receipts, last.row, refusal);
}

/** A receipt names an application by its number, and a release by a reference that is never a number. */
export function isApplicationNumber(text: string): boolean {
  return /^\d+$/.test(text);
}

/** The day from which an invoice may be paid (null: not yet) and what it asks for. */
function invoiceOf(job: BookBilling, invoice: string): { from: string | null; payable: number } | null {
  if (isApplicationNumber(invoice)) {
    const application = job.applications.find((it) => it.number === Number(invoice));
    if (!application) return null;
    if (application.status !== 'certified' || application.certifiedOn === null) return { from: null, payable: 0 };
    return { from: application.certifiedOn, payable: valueApplication(job, application, application.certifiedOn).payable };
  }
  const release = job.releases.find((it) => it.reference === invoice);
  return release ? { from: release.dated, payable: release.amount + rateOf(job.taxRate, release.amount) } : null;
}
