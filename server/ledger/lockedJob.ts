import { shape, t } from '../db/fields';
import { refuse, type Refusal } from '../../core/refusals/refusal';
import type { Reader } from '../db/sql';

/** Refuses to post to jobs of which one is locked; null where none is. */
export async function lockedJob(sql: Reader, jobIds: readonly number[]): Promise<Refusal | null> {
  const locked = await sql.get(
    shape({ number: t.text }),
    'SELECT number FROM job WHERE locked = 1 AND id IN (SELECT value FROM json_each($1)) ORDER BY number',
    [JSON.stringify(jobIds)],
  );
  return locked ? refuse('job-locked', 'job', { job: locked.number }) : null;
}
