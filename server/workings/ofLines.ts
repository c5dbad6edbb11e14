import { LedrinError } from '../../core/errors/ledrinError';
import { LABOUR_FIGURES, type LabourFigure } from '../../core/forecast/labourFigures';
import { labourTotal } from '../../core/forecast/labourProgress';
import { LINE_FIGURE_NAMES, LINE_FIGURES, type LineFigure } from '../../core/forecast/lineFigures';
import { explainLine } from '../../core/workings/estimateWorkings';
import { explainLabour } from '../../core/workings/labourWorkings';
import { money, type FigureRef, type Workings } from '../../core/workings/workings';
import { estimatedLines } from '../costs/estimatedLines';
import type { Reader } from '../db/sql';
import type { JobIdentity } from '../jobs/jobByNumber';
import { labourTasks } from '../labour/labourTasks';
import { nameOf, ofJob } from './figureFamily';
import { chargedPosition } from './ofDaywork';
import { lineName } from './lineName';
import { lineSources } from './lineSources';

/** Estimate versus actual: of one cost line, or of all lines of the job together. What a job is estimated at is its lines' estimates. */
export const lineFigures = ofJob([...LINE_FIGURE_NAMES, 'estimate'], (sql, job, { figure, line }, asOf) => {
  const name = figure === 'estimate' ? 'lineEstimate' : (figure as LineFigure);
  if (figure === 'estimate') return explainEstimateOfJob(sql, job, asOf);
  return line === undefined ? explainLineTotal(sql, name, job, asOf) : explainOfLine(sql, name, job, line, asOf);
});

/** Hours by task: of one task, or of all tasks of the job together. */
export const labourFigures = ofJob(Object.keys(LABOUR_FIGURES), (sql, job, { figure, line }, asOf) =>
  explainHours(sql, figure as LabourFigure, job, line, asOf),
);

/** What a job is estimated at: its lines' estimates; without a ceiling a charged job comes to what it has cost so far. */
async function explainEstimateOfJob(sql: Reader, job: JobIdentity, asOf: string): Promise<Workings> {
  const { charged, cost } = await chargedPosition(sql, job, asOf);
  if (charged === null || charged.ceiling !== null) return explainLineTotal(sql, 'lineEstimate', job, asOf);
  return {
    title: LINE_FIGURES.lineEstimate.title,
    subject: nameOf(job),
    rule: 'A charged job without a ceiling comes to what it has cost so far.',
    operands: [money('Cost to date', cost, '', { figure: { figure: 'cost', job: job.number } })],
    result: cost,
    unit: 'money',
  };
}

/** A figure of all cost lines of a job together. */
export async function explainLineTotal(sql: Reader, figure: LineFigure, job: JobIdentity, asOf: string): Promise<Workings> {
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
