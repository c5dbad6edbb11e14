import { present } from '../../core/errors/known';
import { shape, t } from '../db/fields';
import type { WorkDates } from '../../core/instalments/instalment';
import type { Reader } from '../db/sql';

/** The days of a job and of its sections. A job has started by its starting day once it is on site. */
export async function loadWorkDates(sql: Reader, jobId: number): Promise<WorkDates> {
  const job = await sql.get(
    shape({ startsOn: t.orNull(t.day), finishesOn: t.orNull(t.day), startedOn: t.orNull(t.day), finishedOn: t.orNull(t.day) }),
    `SELECT starts_on AS startsOn, finishes_on AS finishesOn, finished_on AS finishedOn,
      CASE WHEN status IN ('tender', 'awarded') THEN NULL ELSE starts_on END AS startedOn FROM job WHERE id = $1`,
    [jobId],
  );
  const sections = await sql.all(
    shape({
      startsOn: t.orNull(t.day),
      finishesOn: t.orNull(t.day),
      startedOn: t.orNull(t.day),
      finishedOn: t.orNull(t.day),
      name: t.text,
    }),
    `SELECT name, starts_on AS startsOn, finishes_on AS finishesOn, started_on AS startedOn, finished_on AS finishedOn
      FROM job_section WHERE job_id = $1 ORDER BY id`,
    [jobId],
  );
  return { job: present(job), stages: new Map(sections.map(({ name, ...dates }) => [name, dates])) };
}
