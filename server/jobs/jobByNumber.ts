import { JOB_BY_NUMBER } from './queries';
import { type RowOf } from '../db/fields';
import { LedrinError } from '../../core/errors/ledrinError';
import { hasContract } from '../../core/jobs/jobStatus';
import { refuse } from '../../core/refusals/refusal';
import type { Reader } from '../db/sql';
import { assertAllowed } from '../http/refused';

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

/** The same, of a job that something is to be posted to. Throws refused where it is locked. */
export async function jobToPostTo(sql: Reader, number: string): Promise<JobIdentity> {
  const job = await jobByNumber(sql, number, 'contract');
  if (job.locked) assertAllowed([refuse('job-locked', 'job', { job: number })], { code: 'refused' });
  return job;
}
