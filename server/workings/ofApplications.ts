import { screenDate, valueApplication } from '../../core/billing/application';
import { SUMMARY_FIGURE_NAMES, type SummaryFigure } from '../../core/billing/summaryFigures';
import { LedrinError } from '../../core/errors/ledrinError';
import { explainApplication, explainLineRetention } from '../../core/workings/applicationWorkings';
import type { FigureRef, Workings } from '../../core/workings/workings';
import { loadBillingJob } from '../billing/billingJobs';
import type { Reader } from '../db/sql';
import { jobByNumber } from '../jobs/jobByNumber';
import type { FigureFamily } from './figureFamily';
import { explainOpen } from './ofInvoice';

/** Figures of an application: its summary, the retention of a line of it, and what is open on its invoice. */
export const ofApplications: FigureFamily = {
  of: 'application',
  figures: [...SUMMARY_FIGURE_NAMES, 'applicationOpen', 'sovLineRetention'],
  explain: explainOfApplication,
};

async function explainOfApplication(sql: Reader, ref: FigureRef, asOf: string): Promise<Workings> {
  const { id } = await jobByNumber(sql, ref.job ?? '', 'contract');
  const job = await loadBillingJob(sql, id);
  const application = job.applications.find((it) => it.number === ref.application);
  if (!application) throw new LedrinError('not-found', `Job ${ref.job} has no application ${ref.application}`);
  const valued = valueApplication(job, application, screenDate(application, asOf));
  const subject = `Job ${job.number} ${job.name}, application ${application.number}`;
  if (ref.figure === 'applicationOpen')
    return explainOpen(sql, { id, number: job.number, name: job.name }, String(application.number), asOf);
  if (ref.figure === 'sovLineRetention') {
    const workings = explainLineRetention(ref.sovLine ?? '', subject, job, valued);
    if (!workings) throw new LedrinError('not-found', `Application ${application.number} has no line ${ref.sovLine}`);
    return workings;
  }
  return explainApplication(ref.figure as SummaryFigure, subject, job.number, job, valued);
}
