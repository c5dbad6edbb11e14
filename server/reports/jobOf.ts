import { LedrinError } from '../../core/errors/ledrinError';
import type { Reader } from '../db/sql';
import { jobByNumber, type JobIdentity } from '../jobs/jobByNumber';
import type { ReportRequest } from '../reportFiles/report';

/** The job that a report of one job is asked for. Throws bad-input where none is named, and not-found where there is none. */
export async function jobOf(sql: Reader, report: string, { job }: ReportRequest): Promise<JobIdentity> {
  if (job === undefined)
    throw new LedrinError('bad-input', `${report} is of one job: name it with --job`, [
      { field: 'job', message: 'expected a job number' },
    ]);
  return jobByNumber(sql, job, 'job');
}
