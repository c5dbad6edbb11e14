import type { Progress } from './workInProgress';

/** A figure of work in progress as it is named everywhere. */
export interface NamedFigure {
  title: string;
  unit: 'money' | 'percent';
  /** Its column in the work-in-progress report, docs/book.md; null where the report has none. */
  column: string | null;
}

const amount = (column: string | null, title: string): NamedFigure => ({ title, unit: 'money', column });
const percent = (column: string, title: string): NamedFigure => ({ title, unit: 'percent', column });

/** Every figure of work in progress, in the order of the report. The report, its downloads, its page and the workings read it from here. */
export const PROGRESS_FIGURES = {
  contractSum: amount('contract_sum', 'Contract sum'),
  estimate: amount('estimated_cost', 'Estimate at completion'),
  estimatedProfit: amount('estimated_profit', 'Estimated profit'),
  margin: percent('estimated_margin_percent', 'Margin'),
  cost: amount('cost_to_date', 'Cost to date'),
  toComplete: amount(null, 'Cost to complete'),
  complete: percent('percent_complete', 'Complete'),
  earned: amount('earned_revenue', 'Earned revenue'),
  profitToDate: amount('profit_to_date', 'Profit to date'),
  billed: amount('billed_to_date', 'Billed to date'),
  overbilled: amount('overbilled', 'Overbilled'),
  underbilled: amount('underbilled', 'Underbilled'),
  backlog: amount('backlog', 'Backlog'),
  lossProvision: amount('loss_provision', 'Loss provision'),
} satisfies Partial<Record<keyof Progress, NamedFigure>>;
export type ProgressFigure = keyof typeof PROGRESS_FIGURES;

/** Those with a column in the report, in its order. */
export const REPORT_FIGURES = (Object.entries(PROGRESS_FIGURES) as [ProgressFigure, NamedFigure][]).flatMap(
  ([figure, { column, ...named }]) => (column === null ? [] : [{ figure, column, ...named }]),
);
