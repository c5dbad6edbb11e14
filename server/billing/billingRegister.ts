import { LAST_APPLICATION_BY_JOB, OTHER_INVOICES, REGISTER } from './queries';
import { type RowOf } from '../db/fields';
import { known, present } from '../../core/errors/known';
import { takes } from '../../core/jobs/takes';
import { daysBetween, periodOf } from '../../core/calendar/plainDate';
import type { ApplicationRow, BillingRegister } from '../../wire/billing';
import type { Reader } from '../db/sql';
import { loadBillingJobs } from './billingJobs';
import { inSchedule, loadPositions } from '../costs/jobPositions';
import { leftBySchedule, scheduledJobs } from './billedBySchedule';
import { applicationRows } from './jobBilling';

type RegisterRow = RowOf<typeof REGISTER>;

/** Every application that is open, or of the month; and the jobs that wait for one. */
export async function billingRegister(sql: Reader, asOf: string): Promise<BillingRegister> {
  const month = periodOf(asOf);
  const [rows, positions, billed] = await Promise.all([
    sql.all(REGISTER, [asOf, `${month}-01`]),
    loadPositions(sql, asOf, null),
    sql.all(LAST_APPLICATION_BY_JOB, [asOf]),
  ]);
  const open = (row: RegisterRow) => row.certified_on === null || row.certified_on > asOf;
  const toValue = await loadBillingJobs(sql, ...new Set(rows.filter(open).map((row) => row.job_id)));
  const applications = rows.map((row) =>
    open(row)
      ? present(applicationRows(known(toValue, row.job), new Map(), asOf).find((it) => it.number === row.number))
      : certifiedRow(row, asOf),
  );
  const last = new Map(billed.map((row) => [row.job_id, row]));
  const waiting = positions.filter(
    (it) =>
      inSchedule(it, asOf) &&
      takes({ status: it.status, locked: it.locked }, 'bills') &&
      !it.position.finished &&
      !it.position.charged &&
      periodOf(last.get(it.id)?.dated ?? '') !== month,
  );
  const scheduled = await scheduledJobs(sql);
  const toBill = new Map<number, number | null>();
  for (const job of (await loadBillingJobs(sql, ...waiting.map((it) => it.id).filter((id) => scheduled.has(id)))).values())
    toBill.set(job.id, await leftBySchedule(sql, job, asOf));
  const unbilled = waiting.map((it) => ({
    job: it.number,
    name: it.name,
    client: it.client,
    lastNumber: last.get(it.id)?.number ?? null,
    underbilled: it.progress.underbilled,
    overbilled: it.progress.overbilled,
    bySchedule: toBill.get(it.id) ?? null,
  }));
  const releases = (await sql.all(OTHER_INVOICES, [asOf, `${month}-01`])).map((it) => ({
    ...it,
    daysLate: it.payable === it.received ? 0 : Math.max(0, daysBetween(it.dueOn, asOf)),
  }));
  return { applications, releases, unbilled };
}

function certifiedRow(row: RegisterRow, asOf: string): ApplicationRow {
  const [gross, retention, due, tax] = [present(row.gross), present(row.retention), present(row.due), present(row.tax)];
  const payable = due + tax;
  const dueOn = present(row.due_on);
  return {
    job: row.job,
    jobName: row.name,
    client: row.client,
    number: row.number,
    dated: row.dated,
    status: 'certified',
    certifiedOn: row.certified_on,
    gross,
    retention,
    due,
    payable,
    received: row.received,
    dueOn,
    daysLate: payable === row.received ? 0 : Math.max(0, daysBetween(dueOn, asOf)),
  };
}
