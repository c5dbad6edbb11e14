import { present } from '../errors/known';
import { revisedBudget, type CostLineState, type LineEstimate } from '../forecast/estimateAtCompletion';
import { hours, money, percent, words, type FigureRef, type Operand, type Workings } from './workings';

/** Figures of one cost line that can be opened, with their names. */
export const LINE_FIGURES = {
  lineOriginal: 'Original budget',
  lineChanges: 'Change orders approved',
  lineTransfers: 'Budget transfers',
  lineRevised: 'Revised budget',
  lineActual: 'Cost to date',
  lineCommitted: 'Open commitments',
  lineEstimate: 'Estimate at completion',
  lineVariance: 'Variance',
  lineHoursBudgeted: 'Hours budgeted',
  lineHoursActual: 'Hours to date',
} as const;
export type LineFigure = keyof typeof LINE_FIGURES;

type LineRef = (figure: LineFigure) => { figure: FigureRef };

/** The rule that gave a line its estimate, with what it was worked from. */
export function explainEstimate(state: CostLineState, estimate: LineEstimate, ref: LineRef): Pick<Workings, 'rule' | 'operands'> {
  const spent = [
    money('Cost to date', state.cost, '', ref('lineActual')),
    money('Open commitments', state.openCommitment, '+', ref('lineCommitted')),
  ];
  if (estimate.basis === 'finished')
    return { rule: 'The job is finished: cost to date plus what is still committed.', operands: spent };
  if (estimate.basis === 'budget')
    return {
      rule: 'No forecast: the revised budget, as long as cost and commitments stay within it.',
      operands: [money('Revised budget', revisedBudget(state), '', ref('lineRevised')), ...compared(spent)],
    };
  if (estimate.forecastSays === null) {
    const rule = state.budgeted
      ? 'No forecast, and cost with commitments passes the revised budget: so that is the estimate.'
      : 'No budget and no forecast: cost to date plus open commitments.';
    return {
      rule,
      operands: state.budgeted
        ? [
            ...spent,
            { ...money('Revised budget', revisedBudget(state), '', ref('lineRevised')), label: 'Revised budget, passed' },
          ]
        : spent,
    };
  }
  return {
    rule: `${FORECAST_RULES[present(state.forecast).method]} Never below cost to date plus open commitments.`,
    operands: [...forecastOperands(state), money('The forecast says', estimate.forecastSays, '='), ...compared(spent)],
  };
}

const FORECAST_RULES = {
  'to-complete':
    'Forecast by cost to complete: cost on the day of the forecast plus what was still to come, plus budget changes since.',
  percent: 'Forecast by percent complete: cost on the day of the forecast over the share done, plus budget changes since.',
  hours:
    'Forecast by hours to go: hours then plus hours to go, at the cost of an hour so far (before any hour: as budgeted), plus budget changes since.',
} as const;

function compared(spent: readonly Operand[]): Operand[] {
  return spent.map((operand) => ({ ...operand, sign: '', label: `${operand.label}, compared` }));
}

function forecastOperands({ forecast, changesSinceForecast }: CostLineState): Operand[] {
  const it = present(forecast);
  const said = {
    'to-complete': money('Cost to complete', it.value, '+'),
    percent: percent('Done', it.value, '÷'),
    hours: hours('Hours to go', it.value, '+'),
  }[it.method];
  const basis =
    it.method === 'hours'
      ? it.hoursThen > 0
        ? [hours('Hours then', it.hoursThen)]
        : [money('Revised budget then', it.revisedThen), hours('Hours budgeted then', it.hoursBudgetedThen, '÷')]
      : [];
  return [
    words('Forecast of', it.asOf),
    money('Cost then', it.costThen),
    ...basis,
    said,
    money('Budget changes since', changesSinceForecast, '+'),
  ];
}

/** Explains what follows from a line's other figures; the rest is listed from its postings. */
export function explainLine(
  figure: 'lineRevised' | 'lineEstimate' | 'lineVariance',
  subject: string,
  state: CostLineState,
  estimate: LineEstimate,
  ref: LineRef,
): Workings {
  const revised = revisedBudget(state);
  const title = LINE_FIGURES[figure];
  switch (figure) {
    case 'lineRevised':
      return {
        title,
        subject,
        rule: 'Original budget plus change orders approved, and with transfers made, by the date.',
        operands: [
          money('Original', state.original, '', ref('lineOriginal')),
          money('Changes', state.changes - state.transfers, '+', ref('lineChanges')),
          money('Transfers', state.transfers, '+', ref('lineTransfers')),
        ],
        result: revised,
        unit: 'money',
      };
    case 'lineVariance':
      return {
        title,
        subject,
        rule: 'Revised budget less estimate at completion; a negative figure is over budget.',
        operands: [
          money('Revised budget', revised, '', ref('lineRevised')),
          money('Estimate at completion', estimate.amount, '−', ref('lineEstimate')),
        ],
        result: revised - estimate.amount,
        unit: 'money',
      };
    case 'lineEstimate':
      return { title, subject, ...explainEstimate(state, estimate, ref), result: estimate.amount, unit: 'money' };
  }
}
