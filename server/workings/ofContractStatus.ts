import { inJob } from '../../core/places/place';
import { present } from '../../core/errors/known';
import { STATUS_FIGURE_NAMES, STATUS_FIGURES, type StatusFigure } from '../../core/progress/contractStatus';
import { DERIVED_STATUS, explainStatus, explainStatusTotal } from '../../core/workings/contractStatusWorkings';
import { money } from '../../core/workings/workings';
import { inSchedule, loadPositions } from '../costs/jobPositions';
import { nameOf, ofJob, type FigureFamily } from './figureFamily';
import { chargedPosition, dayworkOperands } from './ofDaywork';
import { explainLineTotal } from './ofLines';
import { APPROVED_CHANGES, ORIGINAL_SCHEDULE } from './queries';

/** The status of all jobs; what work in progress has as well is explained there. */
export const statusOfAllJobs: FigureFamily = {
  of: 'all jobs',
  figures: STATUS_FIGURE_NAMES.filter((it) => STATUS_FIGURES[it].same === null),
  explain: async (sql, { figure }, asOf) => {
    const jobs = (await loadPositions(sql, asOf, null)).filter((job) => inSchedule(job, asOf));
    return explainStatusTotal(figure as StatusFigure, jobs);
  },
};

/** Figures that follow from others of the same job. */
export const derivedStatus = ofJob(DERIVED_STATUS, async (sql, job, { figure }, asOf) => {
  const [it] = await loadPositions(sql, asOf, job.id);
  return explainStatus(figure as (typeof DERIVED_STATUS)[number], nameOf(job), job.number, present(it).contract);
});

/** What was budgeted, and what change orders added to it: the same of the job's cost lines. */
export const statusOfCostLines = ofJob(['originalCost', 'changesCost'], async (sql, job, { figure }, asOf) => {
  const workings = await explainLineTotal(sql, figure === 'originalCost' ? 'lineOriginal' : 'lineChanges', job, asOf);
  return { ...workings, title: STATUS_FIGURES[figure as StatusFigure].title };
});

/** What was signed, and the price of change orders. */
export const statusOfSchedule = ofJob(['originalSum', 'changesPrice'], async (sql, job, { figure }, asOf) => {
  const { title } = STATUS_FIGURES[figure as StatusFigure];
  const { charged } = await chargedPosition(sql, job, asOf);
  if (charged && figure === 'originalSum') {
    const [it] = await loadPositions(sql, asOf, job.id);
    const signed = present(it).contract.originalSum;
    const sum = money('Contract sum', signed, '', { figure: { figure: 'contractSum', job: job.number } });
    return {
      title,
      subject: nameOf(job),
      rule: 'A charged job is signed for its contract sum.',
      operands: [sum],
      result: signed,
      unit: 'money',
    };
  }
  const operands =
    figure === 'originalSum'
      ? (await sql.all(ORIGINAL_SCHEDULE, [job.id])).map((it) =>
          money(`${it.line} ${it.description}`, it.amount, '+', {
            figure: { figure: 'sovLineSigned', job: job.number, sovLine: it.line },
          }),
        )
      : charged
        ? []
        : [
            ...(await sql.all(APPROVED_CHANGES, [job.id, asOf])).map((it) =>
              money(`${it.number} ${it.title}, approved ${it.decided_on}`, it.amount, '+', {
                to: inJob(job, 'change', it.number),
              }),
            ),
            ...(await dayworkOperands(sql, job, asOf)),
          ];
  const rule =
    figure === 'originalSum'
      ? 'The schedule of values as signed.'
      : 'Price lines of change orders approved by the date, and daywork at its charge.';
  const result = operands.reduce((sum, it) => sum + Number(it.value), 0);
  return { title, subject: nameOf(job), rule, operands, result, unit: 'money' };
});
