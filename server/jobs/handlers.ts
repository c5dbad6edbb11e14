import { seesAllJobs } from '../../core/rights/rights';
import type { SignedIn } from '../acts/signedIn';
import { jobCalls } from '../../wire/jobs';
import { handle } from '../http/handlers';
import { oneFile } from '../http/upload';
import { correctSetup } from '../jobSetUp/correctSetup';
import { deleteJob, endTender, lockJob, moveJob } from './jobLife';
import { jobList } from '../screens/jobList';
import { createJob, deleteDraft } from '../jobSetUp/createJob';
import { jobBeginning } from '../jobSetUp/jobBeginning';
import { jobSetup, jobTemplateList } from '../jobSetUp/jobSetup';
import { removeJobTemplate, saveJobTemplate } from '../jobSetUp/jobTemplates';
import { restrictJob } from './restricted';
import { estimateView, jobView } from '../screens/jobView';
import { quantitiesView } from '../screens/quantitiesView';
import { statusByMonth } from '../screens/statusByMonth';

/** The largest sheet that is read to be matched, in bytes. */
const LARGEST_SHEET = 10_000_000;

/** Whose drafts of jobs somebody sees: who sees the jobs of a team alone, the own ones alone; null for all. */
function draftsOf(person: SignedIn | null): string | null {
  return person === null || seesAllJobs(person) ? null : person.name;
}

export const jobHandlers = handle(jobCalls, {
  jobList: (sql, { asOf }, { person }) => jobList(sql, asOf, draftsOf(person)),
  job: (sql, { job, asOf }) => jobView(sql, job, asOf),
  lineQuantities: (sql, { job, asOf }) => quantitiesView(sql, job, asOf),
  contractStatus: (sql, { job, asOf }) => statusByMonth(sql, job, asOf),
  estimateVersusActual: (sql, { job, asOf }) => estimateView(sql, job, asOf),
  createJob: async (command, { body }, { person }) => ({ number: await createJob(command, body, draftsOf(person)) }),
  moveJob: (command, { job, body }) => moveJob(command, job, body),
  lockJob: (command, { job, body }) => lockJob(command, job, body.locked, body.reason),
  restrictJob: (command, { job, body }) => restrictJob(command, job, body.restricted, body.reason),
  endTender: (command, { job, body }) => endTender(command, job, body),
  deleteJob: (command, { job }) => deleteJob(command, job),
  jobSetup: (sql, { job }) => jobSetup(sql, job),
  correctSetup: (command, { job, body }) => correctSetup(command, job, body),
  jobBeginning: (sql, of) => jobBeginning(sql, of),
  jobTemplates: (sql) => jobTemplateList(sql),
  saveJobTemplate: (command, { body }) => saveJobTemplate(command, body),
  removeJobTemplate: (command, { name }) => removeJobTemplate(command, name),
  deleteDraft: (command, { id }, { person }) => deleteDraft(command, id, draftsOf(person)),
  readSheet: {
    limits: { files: 1, fileSize: LARGEST_SHEET, total: LARGEST_SHEET + 10_000 },
    // Nothing is saved, so nobody who posts waits for it.
    alone: (_asked, _args, received, { workers }) => workers.run('readSheet', oneFile(received, 'a CSV or XLSX file').path),
  },
});
