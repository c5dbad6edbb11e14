import type { Workings } from '../../core/workings/workings';
import type { JobIdentity } from '../jobs/jobByNumber';

/** What a figure says of itself. */
export type Explained = Pick<Workings, 'rule' | 'operands'>;

/** Address of a part of a job. */
export const jobPath = (job: Pick<JobIdentity, 'number'>, part: string) => `/jobs/${encodeURIComponent(job.number)}/${part}`;

/** Address of a change order. */
export const changePath = (job: Pick<JobIdentity, 'number'>, number: string) =>
  jobPath(job, `changes/${encodeURIComponent(number)}`);
