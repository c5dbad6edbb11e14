import { RECEIVED_BY_INVOICE, RELEASES_OF_JOB } from './queries';
import { isCertifiedAt, retentionHeld, screenDate, valueApplication } from '../../core/billing/application';
import { startRefusals } from '../../core/billing/applicationRefusals';
import { messageOf, showIn } from '../../core/refusals/messages';
import { daysBetween } from '../../core/calendar/plainDate';
import { sum } from '../../core/money/cents';
import type { ApplicationRow, JobBilling } from '../../wire/billing';
import { loadCompany } from '../company/company';
import type { Reader } from '../db/sql';
import { loadBillingJob, type LoadedBillingJob } from './billingJobs';
import { jobByNumber } from '../jobs/jobByNumber';
import { appliedFor, billedBySchedule } from './billedBySchedule';

export function applicationRows(job: LoadedBillingJob, receivedOn: ReadonlyMap<string, number>, asOf: string): ApplicationRow[] {
  return job.applications
    .filter((it) => it.dated <= asOf)
    .map((application) => {
      const valued = valueApplication(job, application, screenDate(application, asOf));
      const certified = isCertifiedAt(application, asOf);
      const received = receivedOn.get(`${job.id}/${application.number}`) ?? 0;
      const due = (certified && job.dueDays.get(String(application.number))) || null;
      return {
        job: job.number,
        jobName: job.name,
        client: job.client,
        number: application.number,
        dated: application.dated,
        status: certified ? 'certified' : application.status === 'draft' ? 'draft' : 'submitted',
        certifiedOn: certified ? application.certifiedOn : null,
        gross: valued.gross,
        retention: valued.retention.total,
        due: valued.due,
        payable: valued.payable,
        received,
        dueOn: due,
        daysLate: due && valued.payable !== received ? Math.max(0, daysBetween(due, asOf)) : 0,
      };
    });
}

export async function receivedByApplication(sql: Reader, asOf: string): Promise<Map<string, number>> {
  const rows = await sql.all(RECEIVED_BY_INVOICE, [asOf]);
  return new Map(rows.map((row) => [row.key, row.amount]));
}

/** Applications and releases of one job as of a date. */
export async function jobBilling(sql: Reader, jobNumber: string, asOf: string): Promise<JobBilling> {
  const identity = await jobByNumber(sql, jobNumber, 'job');
  const job = await loadBillingJob(sql, identity.id);
  const [received, releases] = await Promise.all([
    receivedByApplication(sql, asOf),
    sql.all(RELEASES_OF_JOB, [identity.id, asOf]),
  ]);
  const last = job.applications.at(-1);
  const [notStarted] = startRefusals({ ...job, status: identity.status }, last);
  const applications = applicationRows(job, received, asOf);
  const scheduled = await billedBySchedule(sql, job, asOf);
  return {
    applications,
    schedule: scheduled && { due: sum([...scheduled.values()]), billed: appliedFor(job, asOf) },
    retentionHeld: retentionHeld(job, asOf),
    taxName: (await loadCompany(sql)).taxName || 'Tax',
    taxRate: job.taxRate,
    canStart: notStarted ? messageOf(notStarted, showIn(0)) : null,
    releases,
  };
}
