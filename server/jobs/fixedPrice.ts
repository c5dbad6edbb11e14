import { refuse } from '../../core/refusals/refusal';
import { assertAllowed } from '../acts/refused';
import type { Reader } from '../db/sql';
import { JobTable } from './models';

/** Throws bad input at `field` where a job is charged for what it costs, and so has none of `what`. */
export async function assertFixedPrice(sql: Reader, jobId: number, what: string, field: string): Promise<void> {
  const job = await sql.findOne(JobTable, { id: jobId });
  if (job?.pricing === 'charged') assertAllowed([refuse('charged-has-none', field, { job: job.number, what })]);
}
