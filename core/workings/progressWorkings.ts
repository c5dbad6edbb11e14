import { inJob, type JobPlace, type Place } from '../places/place';
import { PROGRESS_FIGURES, type ProgressFigure } from '../progress/figures';
import { followedPercent, type JobPosition, type Progress } from '../progress/workInProgress';
import { hours, money, percent, words, type FigureRef, type Operand, type Workings } from './workings';

/** A job's figures that follow from its other figures; contract sum, estimate, cost and billed have their own sources. */
export type DerivedFigure = Exclude<ProgressFigure, 'contractSum' | 'estimate' | 'cost' | 'billed'>;

/** Opens another figure of the same job. */
type Ref = (figure: ProgressFigure) => { figure: FigureRef };
/** Leads to a part of the job's page. */
type At = (place: JobPlace, filter?: Readonly<Record<string, string>>) => { to: Place };
type Explained = { rule: string; operands: Operand[] };
type Explain = (job: JobPosition, it: Progress, ref: Ref, at: At) => Explained;

const EXPLAIN: Record<DerivedFigure, Explain> = {
  estimatedProfit: (_, it, ref) => ({
    rule: 'Contract sum less estimate at completion.',
    operands: [
      money('Contract sum', it.contractSum, '', ref('contractSum')),
      money('Estimate at completion', it.estimate, '−', ref('estimate')),
    ],
  }),
  margin: (_, it, ref) => ({
    rule: 'Estimated profit as a share of the contract sum.',
    operands: [
      money('Estimated profit', it.estimatedProfit, '', ref('estimatedProfit')),
      money('Contract sum', it.contractSum, '÷', ref('contractSum')),
    ],
  }),
  complete: explainComplete,
  earned: explainEarned,
  profitToDate: (job, it, ref) =>
    isDeferred(job)
      ? {
          rule: 'Revenue of the contract is recognised when the job is finished; until then only daywork and an expected loss count.',
          operands: [
            ...besides(job, 'Daywork, at its charge', job.daywork.charge, '+'),
            ...besides(job, 'Cost of daywork', job.daywork.cost, '−'),
            money('Loss provision', it.lossProvision, '−', ref('lossProvision')),
          ],
        }
      : {
          rule: 'Earned revenue less cost to date, less what is set aside for an expected loss.',
          operands: [
            money('Earned revenue', it.earned, '', ref('earned')),
            money('Cost to date', it.cost, '−', ref('cost')),
            money('Loss provision', it.lossProvision, '−', ref('lossProvision')),
          ],
        },
  overbilled: (_, it, ref) => ({
    rule: 'Billed to date less earned revenue, where more was billed than earned; else nothing.',
    operands: [money('Billed to date', it.billed, '', ref('billed')), money('Earned revenue', it.earned, '−', ref('earned'))],
  }),
  underbilled: (_, it, ref) => ({
    rule: 'Earned revenue less billed to date, where less was billed than earned; else nothing.',
    operands: [money('Earned revenue', it.earned, '', ref('earned')), money('Billed to date', it.billed, '−', ref('billed'))],
  }),
  backlog: (_, it, ref) => ({
    rule: 'The part of the contract sum that is not earned yet.',
    operands: [
      money('Contract sum', it.contractSum, '', ref('contractSum')),
      money('Earned revenue', it.earned, '−', ref('earned')),
    ],
  }),
  toComplete: (_, it, ref) => ({
    rule: 'Estimate at completion less cost to date: what is still to be spent.',
    operands: [
      money('Estimate at completion', it.estimate, '', ref('estimate')),
      money('Cost to date', it.cost, '−', ref('cost')),
    ],
  }),
  lossProvision: (job, it, ref) => ({
    rule: `Where the job is expected to lose money, the whole loss is taken at once: estimate less contract sum, less the loss already in cost less earned revenue. Never below zero.${isBeside(job) ? ' Daywork is no part of it.' : ''}`,
    operands: [
      money('Estimate at completion', it.estimate, '', ref('estimate')),
      money('Contract sum', it.contractSum, '−', ref('contractSum')),
      money('Cost to date', it.cost, '−', ref('cost')),
      money('Earned revenue', it.earned, '+', ref('earned')),
      ...besides(job, 'Daywork in contract sum and earned revenue', job.daywork.charge, ''),
      ...besides(job, 'Daywork in estimate and cost', job.daywork.cost, ''),
    ],
  }),
};

/** Their names. */
export const DERIVED_FIGURES = Object.keys(EXPLAIN) as DerivedFigure[];

const isDeferred = (job: JobPosition) => !job.charged && job.method === 'completed' && !job.finished;
/** Whether something is charged beside a contract. */
const isBeside = (job: JobPosition) => !job.charged && (job.daywork.cost !== 0 || job.daywork.charge !== 0);
const besides = (job: JobPosition, label: string, amount: number, sign: string) =>
  isBeside(job) ? [money(label, amount, sign)] : [];

function explainComplete(job: JobPosition, it: Progress, ref: Ref, at: At): Explained {
  if (job.charged)
    return {
      rule: 'A charged job: cost to date over estimate at completion; between 0 and 100 %.',
      operands: [
        money('Cost to date', it.cost, '', ref('cost')),
        money('Estimate at completion', it.estimate, '÷', ref('estimate')),
      ],
    };
  switch (job.method) {
    case 'cost-to-cost': {
      const stored =
        job.uninstalled === 0
          ? []
          : [money('Less uninstalled materials (both figures)', job.uninstalled, '−', at('material-on-site'))];
      return {
        rule: 'Cost to cost: cost to date over estimate at completion, both without materials not yet installed; between 0 and 100 %.',
        operands: [
          money('Cost to date', it.cost, '', ref('cost')),
          money('Estimate at completion', it.estimate, '÷', ref('estimate')),
          ...stored,
          ...besides(job, 'Less daywork, at cost (both figures)', job.daywork.cost, '−'),
        ],
      };
    }
    case 'hours':
      return {
        rule: 'Hours: labour hours to date over labour hours at completion.',
        operands: [
          hours('Labour hours to date', job.labourHours, '', at('costs', { type: 'labour' })),
          hours('Labour hours at completion', job.labourHoursAtCompletion, '÷', at('budget')),
        ],
      };
    case 'physical':
      return {
        rule: 'Physical: work applied for, without materials on site, over the contract sum.',
        operands: [
          money('Work applied for', job.workAppliedFor, '', at('billing')),
          money('Contract sum', it.contractSum, '÷', ref('contractSum')),
          ...besides(job, 'Less daywork in the contract sum', job.daywork.charge, '−'),
        ],
      };
    case 'completed':
      return {
        rule: 'Completed contract: nothing until the job is finished, then all of it.',
        operands: [words('Finished', job.finished ? 'yes' : 'not yet')],
      };
  }
}

function explainEarned(job: JobPosition, it: Progress, ref: Ref, at: At): Explained {
  const uninstalled = (label: string, sign: '−' | '+') =>
    it.uninstalled === 0 ? [] : [money(label, it.uninstalled, sign, at('material-on-site'))];
  if (job.charged)
    return {
      rule: 'A charged job: what is charged for its cost by the date is earned, at most its ceiling.',
      operands: [
        money('Charged by the date', job.daywork.charge, '', at('charging')),
        ...(job.charged.ceiling === null ? [] : [money('Ceiling, compared', job.charged.ceiling)]),
      ],
    };
  const rule =
    it.uninstalled === 0
      ? 'Contract sum times the share complete, rounded once.'
      : 'Contract sum less uninstalled materials, times the share complete, plus uninstalled materials at cost; rounded once.';
  return {
    rule: isBeside(job) ? `${rule.slice(0, -1)}; daywork is left out of that, and added at its charge.` : rule,
    operands: [
      money('Contract sum', it.contractSum, '', ref('contractSum')),
      ...besides(job, 'Less daywork in it', job.daywork.charge, '−'),
      ...uninstalled('Less uninstalled materials, at cost', '−'),
      { ...percent('Complete', it.complete, '×', ref('complete')), shown: followedPercent(job) },
      ...uninstalled('Add uninstalled materials, at cost', '+'),
      ...(isBeside(job) ? [money('Daywork, at its charge', job.daywork.charge, '+', at('charging'))] : []),
    ],
  };
}

/** Explains a figure of one job that follows from its others. */
export function explainProgress(
  figure: DerivedFigure,
  subject: string,
  jobNumber: string,
  job: JobPosition,
  it: Progress,
): Workings {
  const ref: Ref = (of) => ({ figure: { figure: of, job: jobNumber } });
  const at: At = (place, filter) => ({ to: { ...inJob({ number: jobNumber }, place), ...(filter && { filter }) } });
  return {
    title: PROGRESS_FIGURES[figure].title,
    subject,
    ...EXPLAIN[figure](job, it, ref, at),
    result: it[figure],
    unit: PROGRESS_FIGURES[figure].unit,
  };
}

/** Explains a figure over all jobs: each job's own, added up; percentages from the sums. */
export function explainTotal(
  figure: ProgressFigure,
  total: Progress,
  jobs: readonly { number: string; name: string; progress: Progress }[],
): Workings {
  const { title } = PROGRESS_FIGURES[figure];
  const subject = 'All jobs in the WIP schedule';
  if (figure === 'margin') {
    return {
      title,
      subject,
      rule: 'Total estimated profit over total contract sum.',
      operands: [
        money('Estimated profit', total.estimatedProfit, '', { figure: { figure: 'estimatedProfit' } }),
        money('Contract sum', total.contractSum, '÷', { figure: { figure: 'contractSum' } }),
      ],
      result: total.margin,
      unit: 'percent',
    };
  }
  if (figure === 'complete') {
    return {
      title,
      subject,
      rule: 'Total cost to date over total estimate at completion, both without uninstalled materials and daywork; at most 100 %.',
      operands: [
        money('Cost to date', total.cost, '', { figure: { figure: 'cost' } }),
        money('Estimate at completion', total.estimate, '÷', { figure: { figure: 'estimate' } }),
        money('Less uninstalled materials (both figures)', total.uninstalled, '−'),
        ...(total.dayworkCost === 0 ? [] : [money('Less daywork, at cost (both figures)', total.dayworkCost, '−')]),
      ],
      result: total.complete,
      unit: 'percent',
    };
  }
  const operands = jobs
    .filter((job) => job.progress[figure] !== 0)
    .map((job) => money(`${job.number} ${job.name}`, job.progress[figure], '+', { figure: { figure, job: job.number } }));
  return { title, subject, rule: 'The sum over all jobs.', operands, result: total[figure], unit: 'money' };
}
