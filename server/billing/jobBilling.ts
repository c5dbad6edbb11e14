import { shape, t } from '../db/fields';
import { isCertifiedAt, retentionHeld, screenDate, valueApplication, type Application } from '../../core/billing/application';
import { USUAL_TERMS_DAYS } from '../../core/billing/ageing';
import { addDays, daysBetween } from '../../core/calendar/plainDate';
import { sum } from '../../core/money/cents';
import type { ApplicationRow, JobBilling } from '../../wire/billing';
import type { Reader } from '../db/sql';
import { loadBillingJobs, type LoadedBillingJob } from './billingJobs';
import { jobByNumber } from '../jobs/jobByNumber';
import { appliedFor, billedBySchedule } from '../instalments/billedBySchedule';

export function dueOn(job: LoadedBillingJob, application: Application): string | null {
  return application.status === 'certified' ? addDays(application.certifiedOn!, job.termsDays ?? USUAL_TERMS_DAYS) : null;
}

export function applicationRows(job: LoadedBillingJob, receivedOn: ReadonlyMap<string, number>, asOf: string): ApplicationRow[] {
  return job.applications
    .filter((it) => it.dated <= asOf)
    .map((application) => {
      const valued = valueApplication(job, application, screenDate(application, asOf));
      const certified = isCertifiedAt(application, asOf);
      const received = receivedOn.get(`${job.id}/${application.number}`) ?? 0;
      const due = certified ? dueOn(job, application) : null;
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
    `SELECT a.job_id || '/' || a.number AS key, sum(r.amount) AS amount FROM receipt r JOIN application a ON a.id = r.application_id WHERE r.dated <= $1 GROUP BY a.id`,
    [asOf],
  );
  return new Map(rows.map((row) => [row.key, row.amount]));
}

/** Applications and releases of one job as of a date. */
export async function jobBilling(sql: Reader, jobNumber: string, asOf: string): Promise<JobBilling> {
  const identity = await jobByNumber(sql, jobNumber, 'job');
  const job = (await loadBillingJobs(sql, identity.id)).get(jobNumber)!;
  const [received, releases] = await Promise.all([
    receivedByApplication(sql, asOf),
    sql.all(
      shape({ reference: t.text, amount: t.cents, dated: t.day, tax: t.cents, received: t.cents, postingId: t.whole }),
      `SELECT reference, dated, amount, tax, posting_id AS postingId, coalesce((SELECT sum(amount) FROM receipt WHERE release_id = r.id AND dated <= $2), 0) AS received
        FROM retention_release r WHERE job_id = $1 AND dated <= $2 ORDER BY dated, id`,
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
    releases: releases.map((it) => ({ ...it, dueOn: addDays(it.dated, job.termsDays ?? USUAL_TERMS_DAYS) })),
  };
}
