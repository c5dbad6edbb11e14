import { LedrinError } from '../../core/errors/ledrinError';
import { siteCalls, type SiteJob, type SiteJobRow } from '../../wire/site';
import type { RowOf } from '../db/fields';
import type { Reader } from '../db/sql';
import { usualAsOf } from '../company/company';
import { todayOf } from '../http/context';
import { handle } from '../http/handlers';
import { labourTasks } from '../labour/labourTasks';
import { attachmentFile } from '../jobFile/attachmentFile';
import { SITE_FILES } from '../jobFile/queries';
import { JobCheckTable, JobPersonTable } from '../jobFile/models';
import { statusesTaking } from '../../core/jobs/takes';
import { jobByNumber } from '../jobs/jobByNumber';
import { JobTable } from '../jobs/models';
import { JobSectionTable } from '../plan/models';

/** The jobs one works on: what is won and not finished. */
async function siteJobs(sql: Reader): Promise<SiteJobRow[]> {
  const jobs = await sql.find(JobTable, { status: [...statusesTaking('daySheets')] }, ['number']);
  return jobs.map(rowOf);
}

const rowOf = ({ number, name, site, status }: RowOf<typeof JobTable>): SiteJobRow => ({ number, name, site, status });

async function siteJob(sql: Reader, number: string, today: string): Promise<SiteJob> {
  const found = await jobByNumber(sql, number, 'job');
  const { id } = found;
  const tasks = await labourTasks(sql, found, today);
  const [jobs, sections, people, checklist, documents] = await Promise.all([
    sql.find(JobTable, { id }),
    sql.find(JobSectionTable, { job_id: id }, ['id']),
    sql.find(JobPersonTable, { job_id: id }, ['id']),
    sql.find(JobCheckTable, { job_id: id }, ['id']),
    sql.all(SITE_FILES, [id, null]),
  ]);
  return jobs.map((job) => ({
    ...rowOf(job),
    manager: job.manager,
    startsOn: job.starts_on,
    finishesOn: job.finishes_on,
    sections: sections.map((it) => ({
      name: it.name,
      startsOn: it.starts_on,
      finishesOn: it.finishes_on,
      startedOn: it.started_on,
      finishedOn: it.finished_on,
    })),
    people: people.map(({ side, name, role, phone }) => ({ side, name, role, phone })),
    hours: tasks.map(({ section, costCode, description, progress: { budgeted, used, toFinish } }) => ({
      section,
      costCode,
      description,
      budgeted,
      used,
      toFinish,
    })),
    documents: documents.map((it) => ({ document: String(it.id), name: it.name })),
    checklist: checklist.map((it) => ({ item: it.item, person: it.person, dueOn: it.due_on, doneOn: it.done_on })),
  }))[0] as SiteJob;
}

export const siteHandlers = handle(siteCalls, {
  siteJobs: (sql) => siteJobs(sql),
  siteJob: async (sql, { job }, context) => siteJob(sql, job, await usualAsOf(sql, todayOf(context))),
  siteDocument: async (database, { job, id }, { files }) => {
    const [file] = await database.read(async (sql) => sql.all(SITE_FILES, [(await jobByNumber(sql, job, 'job')).id, id]));
    if (!file) throw new LedrinError('not-found', 'The office does not show this document to the site');
    return attachmentFile(files, file);
  },
});
