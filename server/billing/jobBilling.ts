import { shape, t } from '../db/fields';
import { isCertifiedAt, retentionHeld, screenDate, valueApplication } from '../../core/billing/application';
import { daysBetween } from '../../core/calendar/plainDate';
import { sum } from '../../core/money/cents';
import type { ApplicationRow, JobBilling } from '../../wire/billing';
import type { Reader } from '../db/sql';
import { loadBillingJob, type LoadedBillingJob } from './billingJobs';
import { jobByNumber } from '../jobs/jobByNumber';
import { appliedFor, billedBySchedule } from '../instalments/billedBySchedule';

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
  const rows = await sql.all(
    shape({ key: t.text, amount: t.cents }),
    `SELECT i.job_id || '/' || i.reference AS key, sum(r.amount) AS amount FROM receipt r JOIN invoice i ON i.id = r.invoice_id WHERE r.dated <= $1 GROUP BY i.id`,
    [asOf],
  );
  return new Map(rows.map((row) => [row.key, row.amount]));
}

/** Applications and releases of one job as of a date. */
export async function jobBilling(sql: Reader, jobNumber: string, asOf: string): Promise<JobBilling> {
  const identity = await jobByNumber(sql, jobNumber, 'job');
  const job = await loadBillingJob(sql, identity.id);
  const [received, releases] = await Promise.all([
    receivedByApplication(sql, asOf),
    sql.all(
      shape({
        ...{
          reference: t.text,
          amount: t.cents,
          dated: t.day,
          tax: t.cents,
          received: t.cents,
          postingId: t.whole,
          dueOn: t.day,
        },
      }),
      `SELECT r.reference, r.dated, r.amount, r.tax, r.posting_id AS postingId, i.due_on AS dueOn,
        coalesce((SELECT sum(amount) FROM receipt WHERE invoice_id = i.id AND dated <= $2), 0) AS received
        FROM retention_release r JOIN invoice i ON i.posting_id = r.posting_id WHERE r.job_id = $1 AND r.dated <= $2 ORDER BY r.dated, r.id`,
      [identity.id, asOf],
    ),
  ]);
  const last = job.applications.at(-1);
  const canStart =
    identity.status === 'tender'
      ? 'A tender is not billed'
      : job.locked
        ? 'The job is locked'
        : identity.status === 'closed'
          ? 'The job is closed'
          : last && last.status !== 'certified'
            ? `Application ${last.number} is ${last.status}; certify it first`
            : job.sovLines.length === 0
              ? 'The job has no schedule of values'
              : null;
  const applications = applicationRows(job, received, asOf);
  const scheduled = await billedBySchedule(sql, job, asOf);
  return {
    applications,
    schedule: scheduled && { due: sum([...scheduled.values()]), billed: appliedFor(job, asOf) },
    retentionHeld: retentionHeld(job, asOf),
    canStart,
    releases,
  };
}
