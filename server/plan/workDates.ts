import { JOB_DATES, SECTION_DATES } from './queries';
import { present } from '../../core/errors/known';
import type { WorkDates } from '../../core/instalments/instalment';
import type { Reader } from '../db/sql';

/** The days of a job and of its sections. A job has started by its starting day once it is on site. */
export async function loadWorkDates(sql: Reader, jobId: number): Promise<WorkDates> {
  const job = await sql.get(JOB_DATES, [jobId]);
  const sections = await sql.all(SECTION_DATES, [jobId]);
  return { job: present(job), stages: new Map(sections.map(({ name, ...dates }) => [name, dates])) };
}
