import { receiptRefusals } from '../../../core/billing/invoiceRefusals';
import { refuse } from '../../../core/refusals/refusal';
import { LAST_DAY } from '../../../core/calendar/plainDate';
import { isCertifiedAt, releasedBy, retentionHeld, valueApplication, type BilledLine } from '../../../core/billing/application';
import { overbillings, type OverbilledFigure } from '../../../core/billing/overbilling';
import { scheduleAt } from '../../../core/contract/contract';
import { formatCents } from '../../../core/money/cents';
import { isNumber } from '../../../core/money/decimal';
import { rateOf } from '../../../core/money/rate';
import type { BookApplication, BookBilling } from './billingOfBook';
import type { BookCheck } from './checkBook';
import { before } from './checkContracts';
import { joinKey } from './keys';

/** Checks applications with their lines, retention releases and receipts, row by row: keys and references. */
export function checkBillingRows(check: BookCheck): void {
  const { rows, keys } = check;
  for (const row of rows.applications) {
    check.refersToJob('applications', row);
    check.declare('applications', row.row, 'application', keys.applications, row.job, row.application);
  }
  const lines = new Set<string>();
  for (const row of rows.application_lines) checkApplicationLine(check, row, lines);
  for (const row of rows.retention_releases) {
    check.refersToJob('retention_releases', row);
    if (row.reference && isNumber(row.reference))
      check.refuse(
        'retention_releases',
        row.row,
        refuse('release-named-as-number', 'reference', { reference: row.reference }),
        0,
      );
    check.declare('retention_releases', row.row, 'reference', keys.releases, row.job, row.reference);
  }
  for (const row of rows.receipts) {
    if (!check.refersToJob('receipts', row) || !row.application) continue;
    if (isApplicationNumber(row.application))
      check.refers('receipts', row.row, 'application', keys.applications, 'application', row.job, row.application);
    else check.refers('receipts', row.row, 'application', keys.releases, 'retention release', row.job, row.application);
  }
}

/** A receipt names an application by its number, and a release by a reference that is never a number. */
export function isApplicationNumber(text: string): boolean {
  return /^\d+$/.test(text);
}

function checkApplicationLine(check: BookCheck, row: BookCheck['rows']['application_lines'][number], lines: Set<string>): void {
  const file = 'application_lines';
  if (!check.refersToJob(file, row)) return;
  if (
    check.refers(file, row.row, 'application', check.keys.applications, 'application', row.job, row.application) &&
    check.existing.applications.has(joinKey(row.job!, row.application!))
  ) {
    check.faults.add(
      file,
      row.row,
      'application',
      `application ${row.application} of job ${row.job} is already in the database; its lines are there`,
    );
  }
  check.refers(file, row.row, 'sov_line', check.keys.sovLines, 'SOV line', row.job, row.sov_line);
  if (!row.application || !row.sov_line) return;
  const key = joinKey(row.job!, row.application, row.sov_line);
  if (lines.has(key))
    check.faults.add(
      file,
      row.row,
      'sov_line',
      `duplicate key: ${row.job}, ${row.application}, ${row.sov_line} is already there`,
    );
  lines.add(key);
}

/** Checks what must hold across the invoices of each job: order, scheduled values, retention, receipts. */
export function checkBilling(check: BookCheck, jobs: Map<string, BookBilling>, digits: number): void {
  for (const [number, job] of jobs) {
    job.applications.forEach((application, i) => {
      checkOrder(check, number, job, application, job.applications[i - 1]);
      checkScheduledValues(check, number, job, application, digits);
    });
    checkStatedAgain(check, number, job);
    if (!check.unreliable.has(number)) checkRetention(check, job, digits);
  }
  checkReceipts(check, jobs, digits);
}

function checkOrder(
  check: BookCheck,
  number: string,
  job: BookBilling,
  application: BookApplication,
  previous: BookApplication | undefined,
): void {
  const { row, dated, certifiedOn, status } = application;
  if (row === null) return;
  const found = check.faults.faults.length;
  const add = (column: string, message: string) => check.faults.add('applications', row, column, message);
  if (job.status === 'tender') add('job', `job ${number} is a tender; a tender is not billed`);
  if (application.number !== (previous?.number ?? 0) + 1)
    add('application', `gap: application ${application.number} follows ${previous?.number ?? 'none'}; they run 1, 2, 3`);
  if (before(dated, job.awardedOn)) add('dated', `${dated} is before the job was awarded, ${job.awardedOn}`);
  if (before(certifiedOn, dated)) add('certified_on', `${certifiedOn} is before dated, ${dated}`);
  if (previous && before(dated, previous.dated))
    add('dated', `${dated} is before application ${previous.number}, ${previous.dated}; the dates of applications do not fall`);
  if (previous && status === 'certified' && previous.status !== 'certified')
    add('status', `certified before application ${previous.number}; applications are certified in order`);
  else if (previous && status === 'certified' && before(certifiedOn, previous.certifiedOn))
    add(
      'certified_on',
      `${certifiedOn} is before application ${previous.number} was certified, ${previous.certifiedOn}; applications are certified in order`,
    );
  if (check.faults.faults.length > found) check.markUnreliable(number);
}

const FIGURE_COLUMNS: Record<OverbilledFigure, string> = {
  work: 'work_to_date',
  materials: 'materials_on_site',
  certifiedWork: 'certified_work_to_date',
  certifiedMaterials: 'certified_materials_on_site',
};

function checkScheduledValues(
  check: BookCheck,
  number: string,
  job: BookBilling,
  application: BookApplication,
  digits: number,
): void {
  if (application.row === null || check.unreliableSchedules.has(number)) return;
  const scheduled = new Map(
    scheduleAt(job.sovLines, job.priceChanges, application.dated).map((line) => [line.line, line.scheduledToDate]),
  );
  const known = new Set(job.sovLines.map((line) => line.line));
  for (const line of application.lines) {
    if (
      !known.has(line.line) ||
      application.faultyLines.has(line.line) ||
      check.unreliableSchedules.has(joinKey(number, line.line))
    )
      continue;
    for (const { figure, by, limit } of overbillings(line, scheduled.get(line.line) ?? 0)) {
      check.faults.add(
        'application_lines',
        application.lineRows.get(line.line)!,
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
function checkStatedAgain(check: BookCheck, number: string, job: BookBilling): void {
  const billed = new Map<string, number>();
  for (const application of job.applications) {
    const stated = new Set(application.lines.map((line) => line.line));
    for (const [line, by] of billed) {
      if (stated.has(line) || application.row === null) continue;
      check.faults.add(
        'applications',
        application.row,
        'application',
        `line ${line}, billed by application ${by}, is left out; state it again, with its figures to date`,
      );
      check.markUnreliable(number);
    }
    for (const line of application.lines) if (isBilled(line)) billed.set(line.line, application.number);
  }
}

/** No more is released than is held, on any day; and no certification brings retention below what was released. */
function checkRetention(check: BookCheck, job: BookBilling, digits: number): void {
  for (const release of job.releases) {
    if (release.row === null) continue;
    const others = job.releases.slice(0, job.releases.indexOf(release));
    const held = retentionHeld({ ...job, releases: others }, release.dated);
    if (release.amount > held)
      check.faults.add(
        'retention_releases',
        release.row,
        'amount',
        `${formatCents(release.amount, digits)} is more than the ${formatCents(held, digits)} held on ${release.dated}`,
      );
  }
  for (const application of job.applications) {
    if (application.row === null || !isCertifiedAt(application, LAST_DAY)) continue;
    const on = application.certifiedOn!;
    const retained = valueApplication(job, application, on).retention.total;
    const released = releasedBy(
      job.releases.filter((it) => it.dated < on),
      on,
    );
    if (retained < released)
      check.faults.add(
        'applications',
        application.row,
        'status',
        `certifying it would bring retention to date to ${formatCents(retained, digits)}, below the ${formatCents(released, digits)} released by ${on}`,
      );
  }
}

/** A receipt comes on or after the day its invoice was certified or released, and all together no more than it asks for. */
function checkReceipts(check: BookCheck, jobs: Map<string, BookBilling>, digits: number): void {
  const received = new Map<string, number>();
  for (const row of check.rows.receipts) {
    const job = row.job && jobs.get(row.job);
    if (!job || !row.application) continue;
    const invoice = invoiceOf(job, row.application);
    if (!invoice) continue;
    if (invoice.from === null) {
      if (row.dated) {
        const message = `application ${row.application} of job ${row.job} is not certified; only what is certified is paid`;
        check.faults.add('receipts', row.row, 'dated', message);
      }
      continue;
    }
    const key = joinKey(row.job ?? '', row.application);
    const known = received.get(key) ?? check.receivedBefore.get(key) ?? 0;
    const payable = check.unreliable.has(row.job ?? '') ? null : invoice.payable;
    // Of a job with a fault, or an amount that cannot be read, only the date can be judged.
    const judged = payable !== null && typeof row.amount === 'number';
    const amount = judged ? (row.amount ?? 0) : 0;
    const state = { since: invoice.from, payable: judged ? payable : 0, received: judged ? known : 0 };
    received.set(key, known + amount);
    const dated = row.dated ?? invoice.from;
    for (const refusal of receiptRefusals(state, { dated, amount })) check.refuse('receipts', row.row, refusal, digits);
  }
}

/** The day from which an invoice may be paid (null: not yet) and what it asks for. */
function invoiceOf(job: BookBilling, invoice: string): { from: string | null; payable: number } | null {
  if (isApplicationNumber(invoice)) {
    const application = job.applications.find((it) => it.number === Number(invoice));
    if (!application) return null;
    if (application.status !== 'certified') return { from: null, payable: 0 };
    return { from: application.certifiedOn, payable: valueApplication(job, application, application.certifiedOn!).payable };
  }
  const release = job.releases.find((it) => it.reference === invoice);
  return release ? { from: release.dated, payable: release.amount + rateOf(job.taxRate, release.amount) } : null;
}
