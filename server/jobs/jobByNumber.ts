import { JOB_BY_NUMBER } from './queries';
import { type RowOf } from '../db/fields';
import { LedrinError } from '../../core/errors/ledrinError';
import { hasContract } from '../../core/jobs/jobStatus';
import { takesRefusal, type Given } from '../../core/jobs/takes';
import type { Reader } from '../db/sql';
import { assertAllowed } from '../acts/refused';

export type JobIdentity = RowOf<typeof JOB_BY_NUMBER>;

/** The job of a number. Throws not-found where there is none, and where a contract is needed and it is a tender. */
export async function jobByNumber(sql: Reader, number: string, needs: 'job' | 'contract'): Promise<JobIdentity> {
  const job = await sql.get(JOB_BY_NUMBER, [number]);
  if (!job) throw new LedrinError('not-found', `There is no job ${number}`);
  if (needs === 'contract' && !hasContract(job.status))
    throw new LedrinError(
      'not-found',
      job.status === 'tender'
        ? `Job ${number} is a tender; it has no contract yet`
        : `Job ${number} is ${job.status}; it has no contract`,
    );
  return job;
}

/** The same, of a job that is to be given something. Throws refused where it takes none of it, by its status or its lock. */
export async function jobThatTakes(sql: Reader, number: string, what: Given): Promise<JobIdentity> {
  const job = await jobByNumber(sql, number, 'job');
  assertAllowed([takesRefusal(job, what)], { code: 'refused' });
  return job;
}
