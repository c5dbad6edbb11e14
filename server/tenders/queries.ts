import { shape, t } from '../db/fields';
import { query } from '../db/query';

const JobRow = shape({ job: t.text, name: t.text, clientName: t.text, estimator: t.text });

const jobs = (which: string) =>
  query(
    JobRow,
    `SELECT job.number AS job, job.name, c.name AS clientName, job.estimator FROM job JOIN client c ON c.id = job.client_id WHERE ${which} ORDER BY job.number`,
  );

export const TENDERS = jobs(`job.status = 'tender'`);

export const JOBS_WITH_QUOTATIONS = jobs('EXISTS (SELECT 1 FROM quotation WHERE job_id = job.id)');
