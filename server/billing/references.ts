import { refuse } from '../../core/refusals/refusal';
import { assertAllowed } from '../acts/refused';
import type { Reader } from '../db/sql';
import { REFERENCE_OF_JOB } from './queries';

/** Throws bad input where a job has a document under the reference already: over its releases, invoices and credit notes. */
export async function assertFreeReference(sql: Reader, jobId: number, reference: string, field = 'reference'): Promise<void> {
  if (await sql.get(REFERENCE_OF_JOB, [jobId, reference])) assertAllowed([refuse('reference-taken', field, { reference })]);
}
