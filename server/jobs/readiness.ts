import { WHAT_IS_THERE } from './queries';
import { inJob, type JobPlace } from '../../core/places/place';
import { present } from '../../core/errors/known';
import { LedrinError } from '../../core/errors/ledrinError';
import type { JobStatus } from '../../core/jobs/jobStatus';
import type { Missing } from '../../wire/jobFile';
import type { Reader } from '../db/sql';
import type { JobIdentity } from './jobByNumber';

interface Condition {
  /** What may not be done yet, after “may not”. */
  step: string;
  missing: (sql: Reader, jobId: number) => Promise<Missing[]>;
}

/** What a job must have before it reaches a status, one line each. A status that is not here asks for nothing. */
const CONDITIONS: Partial<Record<JobStatus, Condition>> = {
  'on-site': { step: 'go on site', missing: missingForSite },
};

/** Throws refused where something is missing that a job of this status must have; every fault names what, and where it is mended. */
export async function refuseUnready(
  sql: Reader,
  { id, number }: Pick<JobIdentity, 'id' | 'number'>,
  status: JobStatus,
): Promise<void> {
  const condition = CONDITIONS[status];
  const missing = (await condition?.missing(sql, id)) ?? [];
  if (condition && missing.length > 0)
    throw new LedrinError(
      'refused',
      `Job ${number} may not ${condition.step} yet. ${missing.map((it) => it.text).join('. ')}.`,
      missing.map((it) => ({ field: it.to.place, message: it.text })),
    );
}

/**
 * What is missing before a job may go on site: a schedule of values that comes to a contract sum, a budget, retention that
 * was set or agreed to be none, and terms. Each with the place where it is mended.
 */
export async function missingForSite(sql: Reader, jobId: number): Promise<Missing[]> {
  const row = present(await sql.get(WHAT_IS_THERE, [jobId]));
  const add = (text: string, place: JobPlace) => missing.push({ text, to: inJob(row, place) });
  const missing: Missing[] = [];
  if (row.lines === 0 || row.sum === 0) add('The schedule of values is empty: it must come to the contract sum', 'contract');
  if (row.budget === 0) add('The budget is empty', 'budget');
  if (!row.retention && !row.none) add('Retention is not set: give a rate, or say that none was agreed', 'job-file');
  if (row.terms === null) add('Neither the job nor its client has terms of payment', 'job-file');
  return missing;
}
