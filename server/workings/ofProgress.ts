import { present } from '../../core/errors/known';
import { PROGRESS_FIGURES, type ProgressFigure } from '../../core/progress/figures';
import { totalProgress } from '../../core/progress/workInProgress';
import { DERIVED_FIGURES, explainProgress, explainTotal, type DerivedFigure } from '../../core/workings/progressWorkings';
import { inSchedule, loadPositions } from '../costs/jobPositions';
import { nameOf, ofJob, type FigureFamily } from './figureFamily';

/** Work in progress over all jobs. */
export const totalsOfJobs: FigureFamily = {
  of: 'all jobs',
  figures: Object.keys(PROGRESS_FIGURES),
  explain: async (sql, { figure }, asOf) => {
    const jobs = (await loadPositions(sql, asOf, null)).filter((job) => inSchedule(job, asOf));
    return explainTotal(figure as ProgressFigure, totalProgress(jobs.map((job) => job.progress)), jobs);
  },
};

/** Work in progress of a job, as far as it follows from its other figures. */
export const jobProgress = ofJob(DERIVED_FIGURES, async (sql, job, { figure }, asOf) => {
  const [it] = await loadPositions(sql, asOf, job.id);
  return explainProgress(figure as DerivedFigure, nameOf(job), job.number, present(it).position, present(it).progress);
});
