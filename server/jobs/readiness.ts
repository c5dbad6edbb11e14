import { WHAT_IS_THERE } from './queries';
import { inJob, type JobPlace } from '../../core/places/place';
import { present } from '../../core/errors/known';
import type { Missing } from '../../wire/jobFile';
import type { Reader } from '../db/sql';

/**
 * What is missing of a job that goes on site, or is there: a schedule of values that comes to a contract sum, a budget, retention that
 * was set or agreed to be none, and terms; a charged job needs its terms alone. Each with the place where it is mended. It is warned of, and holds nothing up.
 */
export async function missingForSite(sql: Reader, jobId: number): Promise<Missing[]> {
  const row = present(await sql.get(WHAT_IS_THERE, [jobId]));
  const add = (text: string, place: JobPlace) => missing.push({ text, to: inJob(row, place) });
  const missing: Missing[] = [];
  const isFixed = row.pricing === 'fixed';
  if (isFixed && (row.lines === 0 || row.sum === 0))
    add('The schedule of values is empty: it must come to the contract sum', 'contract');
  if (isFixed && row.budget === 0) add('The budget is empty', 'budget');
  if (isFixed && !row.retention && !row.none) add('Retention is not set: give a rate, or say that none was agreed', 'job-file');
  if (row.terms === null) add('Neither the job nor its client has terms of payment', 'job-file');
  return missing;
}
