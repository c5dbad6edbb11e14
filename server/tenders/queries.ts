import { shape, t } from '../db/fields';
import { query } from '../db/query';

const JobRow = shape({ job: t.text, name: t.text, clientName: t.text, estimator: t.text, status: t.text, reason: t.text });

/** Those still open first. */
const jobs = (which: string) =>
  query(
    JobRow,
    `SELECT job.number AS job, job.name, c.name AS clientName, job.estimator, job.status,
      coalesce((SELECT m.reason FROM job_move m WHERE m.job_id = job.id AND m.became = job.status ORDER BY m.id DESC LIMIT 1), '') AS reason FROM job JOIN client c ON c.id = job.client_id WHERE ${which} ORDER BY job.status <> 'tender', job.number`,
  );

export const TENDERS = jobs(`job.status IN ('tender', 'lost', 'withdrawn')`);

export const JOBS_WITH_QUOTATIONS = jobs('EXISTS (SELECT 1 FROM quotation WHERE job_id = job.id)');
