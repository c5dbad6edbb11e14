import { revisedBudget, type CostLineState, type LineEstimate } from './estimateAtCompletion';

/** A cost line with its estimate: what its figures are taken from. */
export interface Estimated {
  state: CostLineState;
  estimate: LineEstimate;
}

/** A figure of estimate versus actual, as it is named everywhere. */
export interface LineFigureOf {
  title: string;
  /** Its head in a table, where the title is too long. */
  head: string;
  unit: 'money' | 'hours';
  /** Its name on the wire. */
  key: string;
  /** Minor units, or ten-thousandths of an hour. */
  value: (of: Estimated) => number;
}

/** Figures of one cost line, in the order of the report. Report, page, filters, downloads and workings read them from here. */
export const LINE_FIGURES = {
  lineOriginal: {
    title: 'Original budget',
    head: 'Original',
    unit: 'money',
    key: 'original',
    value: ({ state }) => state.original,
  },
  lineChanges: {
    title: 'Change orders approved, and daywork',
    head: 'Changes',
    unit: 'money',
    key: 'changes',
    value: ({ state }) => state.changes - state.transfers + state.dayworkCost,
  },
  lineTransfers: {
    title: 'Budget transfers',
    head: 'Transfers',
    unit: 'money',
    key: 'transfers',
    value: ({ state }) => state.transfers,
  },
  lineRevised: {
    title: 'Revised budget',
    head: 'Revised',
    unit: 'money',
    key: 'revised',
    value: ({ state }) => revisedBudget(state),
  },
  lineActual: { title: 'Cost to date', head: 'Actual', unit: 'money', key: 'actual', value: ({ state }) => state.cost },
  lineCommitted: {
    title: 'Open commitments',
    head: 'Committed',
    unit: 'money',
    key: 'committed',
    value: ({ state }) => state.openCommitment,
  },
  lineEstimate: {
    title: 'Estimate at completion',
    head: 'Estimate at completion',
    unit: 'money',
    key: 'estimate',
    value: ({ estimate }) => estimate.amount,
  },
  lineToComplete: {
    title: 'Cost to complete',
    head: 'To complete',
    unit: 'money',
    key: 'toComplete',
    value: ({ state, estimate }) => estimate.amount - state.cost,
  },
  lineVariance: {
    title: 'Variance',
    head: 'Variance',
    unit: 'money',
    key: 'variance',
    value: ({ state, estimate }) => revisedBudget(state) - estimate.amount,
  },
  lineHoursBudgeted: {
    title: 'Hours budgeted',
    head: 'Hours budgeted',
    unit: 'hours',
    key: 'hoursBudgeted',
    value: ({ state }) => state.hoursBudgeted + state.dayworkHours,
  },
  lineHoursActual: {
    title: 'Hours to date',
    head: 'Hours to date',
    unit: 'hours',
    key: 'hoursActual',
    value: ({ state }) => state.hours,
  },
} as const satisfies Record<string, LineFigureOf>;
export type LineFigure = keyof typeof LINE_FIGURES;
export type LineKey = (typeof LINE_FIGURES)[LineFigure]['key'];

export const LINE_FIGURE_NAMES = Object.keys(LINE_FIGURES) as LineFigure[];

/** A line's figures by their names on the wire. */
export function lineFigures(of: Estimated): Record<LineKey, number> {
  const figures = {} as Record<LineKey, number>;
  for (const name of LINE_FIGURE_NAMES) figures[LINE_FIGURES[name].key] = LINE_FIGURES[name].value(of);
  return figures;
}
