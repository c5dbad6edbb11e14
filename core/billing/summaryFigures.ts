import type { Cents } from '../money/cents';
import type { ValuedApplication } from './application';

/** A figure of an application's summary, as it is named everywhere. */
export interface SummaryFigureOf {
  title: string;
  /** Its name in the application-summary report, docs/book.md. */
  item: string;
  value: (it: ValuedApplication) => Cents;
  /** A sum of those above it. */
  sum?: true;
  /** Taken off: shown with a minus. */
  less?: true;
}

/**
 * The figures of an application from contract sum to balance, in the order of the report. The application's page and
 * document, the report, its downloads and the workings read them from here.
 */
export const SUMMARY_FIGURES = {
  originalContractSum: { title: 'Original contract sum', item: 'original_contract_sum', value: (it) => it.originalContractSum },
  changeOrders: { title: 'Change orders', item: 'change_orders', value: (it) => it.contractSum - it.originalContractSum },
  contractSum: { title: 'Contract sum', item: 'contract_sum', value: (it) => it.contractSum, sum: true },
  work: { title: 'Work done to date', item: 'work_to_date', value: (it) => it.work },
  materials: { title: 'Materials on site', item: 'materials_on_site', value: (it) => it.materials },
  gross: { title: 'Gross to date', item: 'gross_to_date', value: (it) => it.gross, sum: true },
  retention: { title: 'Retention to date', item: 'retention', value: (it) => it.retention.total, less: true },
  retentionReleased: { title: 'Retention released', item: 'retention_released', value: (it) => it.retentionReleased },
  net: { title: 'Net to date', item: 'net_to_date', value: (it) => it.net, sum: true },
  previouslyCertified: {
    title: 'Previously certified',
    item: 'previously_certified',
    value: (it) => it.previouslyCertified,
    less: true,
  },
  due: { title: 'Amount due', item: 'due', value: (it) => it.due, sum: true },
  tax: { title: 'Tax', item: 'tax', value: (it) => it.tax },
  payable: { title: 'Payable', item: 'payable', value: (it) => it.payable, sum: true },
  balanceToComplete: {
    title: 'Balance to complete, incl. retention',
    item: 'balance_to_complete',
    value: (it) => it.balanceToComplete,
  },
} satisfies Record<string, SummaryFigureOf>;
export type SummaryFigure = keyof typeof SUMMARY_FIGURES;

export const SUMMARY_FIGURE_NAMES = Object.keys(SUMMARY_FIGURES) as SummaryFigure[];

/** A figure as registered. */
export function summaryFigure(figure: SummaryFigure): SummaryFigureOf {
  return SUMMARY_FIGURES[figure];
}

/** Every figure of a valued application. */
export function summaryOf(it: ValuedApplication): Record<SummaryFigure, Cents> {
  return Object.fromEntries(SUMMARY_FIGURE_NAMES.map((name) => [name, SUMMARY_FIGURES[name].value(it)])) as Record<
    SummaryFigure,
    Cents
  >;
}
