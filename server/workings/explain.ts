import { present } from '../../core/errors/known';
import { screenDate, valueApplication } from '../../core/billing/application';
import { displayDate } from '../../core/calendar/displayDate';
import { LedrinError } from '../../core/errors/ledrinError';
import { totalProgress } from '../../core/progress/workInProgress';
import { SUMMARY_FIGURES, type SummaryFigure } from '../../core/billing/summaryFigures';
import { explainApplication, explainLineRetention } from '../../core/workings/applicationWorkings';
import { LINE_FIGURES, type LineFigure } from '../../core/forecast/lineFigures';
import { explainLine } from '../../core/workings/estimateWorkings';
import { PROGRESS_FIGURES, type ProgressFigure } from '../../core/progress/figures';
import { explainProgress, explainTotal } from '../../core/workings/progressWorkings';
import { money, type FigureRef, type Workings } from '../../core/workings/workings';
import type { Reader } from '../db/sql';
import { loadBillingJob } from '../billing/billingJobs';
import { inSchedule, loadPositions } from '../costs/jobPositions';
import { jobByNumber, type JobIdentity } from '../jobs/jobByNumber';
import { estimatedLines } from '../costs/estimatedLines';
import { LABOUR_FIGURES, type LabourFigure } from '../../core/forecast/labourFigures';
import { labourTotal } from '../../core/forecast/labourProgress';
import { explainLabour } from '../../core/workings/labourWorkings';
import { labourTasks } from '../labour/labourTasks';
import { lineName } from './lineName';
import { lineSources } from './lineSources';
import { explainOpen, fromPostings, jobSources } from './sources';
import { explainSovLine, SOV_FIGURES } from './sovLines';

/** Explains any figure of the screens. Throws not-found where there is no such figure, or nothing it could be of. */
export async function explain(sql: Reader, { on, ...ref }: FigureRef, asOf: string): Promise<Workings> {
  if (on === undefined) return explainAsOf(sql, ref, asOf);
  const workings = await explainAsOf(sql, ref, on);
  // What it is worked from is of the same day.
  const operands = workings.operands.map((it) => (it.figure ? { ...it, figure: { ...it.figure, on } } : it));
  return { ...workings, subject: `${workings.subject}, as of ${displayDate(on)}`, operands };
}

async function explainAsOf(sql: Reader, ref: FigureRef, asOf: string): Promise<Workings> {
  const { figure } = ref;
  if (ref.application !== undefined) return explainOfApplication(sql, ref, asOf);
  if (ref.job === undefined && Object.hasOwn(PROGRESS_FIGURES, figure)) return explainOfAll(sql, figure as ProgressFigure, asOf);
  if (ref.job === undefined) throw unknown(figure);
  const job = await jobByNumber(sql, ref.job, 'job');
  if (Object.hasOwn(LINE_FIGURES, figure))
    return ref.line === undefined
      ? explainLineTotal(sql, figure as LineFigure, job, asOf)
      : explainOfLine(sql, figure as LineFigure, job, ref.line, asOf);
  if (Object.hasOwn(LABOUR_FIGURES, figure)) return explainHours(sql, figure as LabourFigure, job, ref.line, asOf);
  if (Object.hasOwn(SOV_FIGURES, figure)) return explainSovLine(sql, job, ref, asOf);
  if (figure === 'releaseOpen') return explainOpen(sql, job, ref.release ?? '', asOf);
  if (Object.hasOwn(jobSources, figure)) return fromPostings(sql, job, figure as keyof typeof jobSources, asOf, ref);
  if (Object.hasOwn(PROGRESS_FIGURES, figure)) return explainOfJob(sql, figure as ProgressFigure, job, asOf);
  throw unknown(figure);
}

function unknown(figure: string): LedrinError {
  return new LedrinError('not-found', `There is no figure "${figure}" to explain`);
}

async function explainOfAll(sql: Reader, figure: ProgressFigure, asOf: string): Promise<Workings> {
  const jobs = (await loadPositions(sql, asOf, null)).filter((job) => inSchedule(job, asOf));
  return explainTotal(figure, totalProgress(jobs.map((job) => job.progress)), jobs);
}

async function explainOfJob(sql: Reader, figure: ProgressFigure, job: JobIdentity, asOf: string): Promise<Workings> {
  if (figure === 'contractSum' || figure === 'billed' || figure === 'cost') return fromPostings(sql, job, figure, asOf, {});
  if (figure === 'estimate') return explainLineTotal(sql, 'lineEstimate', job, asOf);
  const [it] = await loadPositions(sql, asOf, job.id);
  return explainProgress(figure, nameOf(job), job.number, present(it).position, present(it).progress);
}

async function explainLineTotal(sql: Reader, figure: LineFigure, job: JobIdentity, asOf: string): Promise<Workings> {
  const lines = await estimatedLines(sql, job, asOf);
  const { title, unit, value } = LINE_FIGURES[figure];
  return {
    title,
    subject: nameOf(job),
    rule: 'The sum over all cost lines of the job.',
    unit,
    result: lines.reduce((sum, line) => sum + value(line), 0),
    operands: lines
      .filter((line) => value(line) !== 0)
      .map((line) => ({
        ...money(lineName(line), value(line), '+', { figure: { figure, job: job.number, line: line.id } }),
        unit,
      })),
  };
}

async function explainOfLine(sql: Reader, figure: LineFigure, job: JobIdentity, id: number, asOf: string): Promise<Workings> {
  const line = (await estimatedLines(sql, job, asOf)).find((it) => it.id === id);
  if (!line) throw new LedrinError('not-found', `Job ${job.number} has no such cost line by ${asOf}`);
  const subject = `${nameOf(job)}: ${lineName(line)}`;
  if (figure === 'lineRevised' || figure === 'lineEstimate' || figure === 'lineToComplete' || figure === 'lineVariance') {
    return explainLine(figure, subject, line.state, line.estimate, (of) => ({
      figure: { figure: of, job: job.number, line: id },
    }));
  }
  return {
    title: LINE_FIGURES[figure].title,
    subject,
    unit: LINE_FIGURES[figure].unit,
    result: LINE_FIGURES[figure].value(line),
    ...(await lineSources[figure](sql, job, line, asOf)),
  };
}

/** Hours of one task, or of all tasks of a job together. Budgeted and used are explained by what they stand on. */
async function explainHours(
  sql: Reader,
  figure: LabourFigure,
  job: JobIdentity,
  id: number | undefined,
  asOf: string,
): Promise<Workings> {
  const tasks = await labourTasks(sql, job, asOf);
  const { title, unit, key } = LABOUR_FIGURES[figure];
  if (id === undefined) {
    const total = labourTotal(tasks.map((it) => ({ line: it.state, finished: it.finished })));
    const ofLine = (line: number): FigureRef => ({ figure, job: job.number, line });
    return {
      title,
      subject: nameOf(job),
      unit,
      result: total[key],
      rule: unit === 'hours' ? 'The sum over all labour lines of the job.' : 'Of the sums over all labour lines of the job.',
      operands: tasks
        .filter((it) => it.progress[key] !== 0)
        .map((it) => ({
          ...money(lineName(it), it.progress[key], unit === 'hours' ? '+' : '', { figure: ofLine(it.id) }),
          unit,
        })),
    };
  }
  const task = tasks.find((it) => it.id === id);
  if (!task) throw new LedrinError('not-found', `Job ${job.number} has no such labour line by ${asOf}`);
  if (figure === 'labourBudgeted' || figure === 'labourUsed')
    return explainOfLine(sql, figure === 'labourUsed' ? 'lineHoursActual' : 'lineHoursBudgeted', job, id, asOf);
  const ref = (of: LabourFigure) => ({ figure: { figure: of, job: job.number, line: id } });
  return explainLabour(figure, `${nameOf(job)}: ${lineName(task)}`, { line: task.state, finished: task.finished, ref });
}

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
  if (!Object.hasOwn(SUMMARY_FIGURES, ref.figure)) throw unknown(ref.figure);
  return explainApplication(ref.figure as SummaryFigure, subject, job.number, job, valued);
}

function nameOf(job: JobIdentity): string {
  return `Job ${job.number} ${job.name}`;
}
