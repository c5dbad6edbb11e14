import { LOCKED_AMONG } from './queries';
import { refuse, type Refusal } from '../../core/refusals/refusal';
import type { Reader } from '../db/sql';

/** Refuses to post to jobs of which one is locked; null where none is. */
export async function lockedJob(sql: Reader, jobIds: readonly number[]): Promise<Refusal | null> {
  const locked = await sql.get(LOCKED_AMONG, [JSON.stringify(jobIds)]);
  return locked ? refuse('job-locked', 'job', { job: locked.number }) : null;
}
