import { present } from '../errors/known';
import { contractBudget, type CostLineState, type LineEstimate } from '../forecast/estimateAtCompletion';
import { LINE_FIGURES, type LineFigure } from '../forecast/lineFigures';
import { hours, money, percent, words, type FigureRef, type Operand, type Workings } from './workings';

type LineRef = (figure: LineFigure) => { figure: FigureRef };

/** The rule that gave a line its estimate, with what it was worked from. */
export function explainEstimate(state: CostLineState, estimate: LineEstimate, ref: LineRef): Pick<Workings, 'rule' | 'operands'> {
  const { rule, operands } = explainContract(state, estimate, ref);
  if (state.dayworkCost === 0) return { rule, operands };
  return {
    rule: `${rule} Daywork is left out of that, and its cost added.`,
    operands: [...operands, money('Cost of daywork', state.dayworkCost, '+')],
  };
}

function explainContract(state: CostLineState, estimate: LineEstimate, ref: LineRef): Pick<Workings, 'rule' | 'operands'> {
  const spent = [
    money('Cost to date', state.cost, '', ref('lineActual')),
    ...(state.dayworkCost === 0 ? [] : [money('Daywork in it', state.dayworkCost, '−')]),
    money('Open commitments', state.openCommitment, '+', ref('lineCommitted')),
  ];
  const revised =
    state.dayworkCost === 0
      ? money('Revised budget', contractBudget(state), '', ref('lineRevised'))
      : money('Revised budget without daywork', contractBudget(state));
  if (estimate.basis === 'finished')
    return { rule: 'The job is finished: cost to date plus what is still committed.', operands: spent };
  if (estimate.basis === 'budget')
    return {
      rule: 'No forecast: the revised budget, as long as cost and commitments stay within it.',
      operands: [revised, ...compared(spent)],
    };
  if (estimate.forecastSays === null) {
    const rule = state.budgeted
      ? 'No forecast, and cost with commitments passes the revised budget: so that is the estimate.'
      : 'No budget and no forecast: cost to date plus open commitments.';
    return {
      rule,
      operands: state.budgeted ? [...spent, { ...revised, label: `${revised.label}, passed` }] : spent,
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
  const shown = {
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
    shown,
    money('Budget changes since', changesSinceForecast, '+'),
  ];
}

/** Explains what follows from a line's other figures; the rest is listed from its postings. */
export function explainLine(
  figure: 'lineRevised' | 'lineEstimate' | 'lineToComplete' | 'lineVariance',
  subject: string,
  state: CostLineState,
  estimate: LineEstimate,
  ref: LineRef,
): Workings {
  const { title, unit, value } = LINE_FIGURES[figure];
  const operand = (of: LineFigure, sign = '') =>
    money(LINE_FIGURES[of].title, LINE_FIGURES[of].value({ state, estimate }), sign, ref(of));
  const explained: Record<typeof figure, () => Pick<Workings, 'rule' | 'operands'>> = {
    lineRevised: () => ({
      rule: 'Original budget plus change orders approved, and with transfers made, by the date; the cost of daywork is added to it.',
      operands: [operand('lineOriginal'), operand('lineChanges', '+'), operand('lineTransfers', '+')],
    }),
    lineToComplete: () => ({
      rule: 'Estimate at completion less cost to date: what is still to be spent.',
      operands: [operand('lineEstimate'), operand('lineActual', '−')],
    }),
    lineVariance: () => ({
      rule: 'Revised budget less estimate at completion; a negative figure is over budget.',
      operands: [operand('lineRevised'), operand('lineEstimate', '−')],
    }),
    lineEstimate: () => explainEstimate(state, estimate, ref),
  };
  return { title, subject, unit, result: value({ state, estimate }), ...explained[figure]() };
}
