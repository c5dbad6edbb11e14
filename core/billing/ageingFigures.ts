import type { AgedInvoice } from './ageing';

/** A figure of the ageing of receivables, as it is named everywhere. */
export interface AgeingFigure {
  title: string;
  /** Its column in the report, docs/book.md. */
  column: string;
  /** What explains it: what is open on the invoice, or the retention held on its job. The total is the two together. */
  explainedBy: 'open' | 'held' | null;
}

/** Figures of one invoice, in the order of the report. Report, page and downloads read them from here. */
export const AGEING_FIGURES = {
  notDue: { title: 'Not due', column: 'not_due', explainedBy: 'open' },
  days1To30: { title: '1–30 days', column: 'days_1_30', explainedBy: 'open' },
  days31To60: { title: '31–60 days', column: 'days_31_60', explainedBy: 'open' },
  days61To90: { title: '61–90 days', column: 'days_61_90', explainedBy: 'open' },
  daysOver90: { title: 'Over 90 days', column: 'days_over_90', explainedBy: 'open' },
  retentionHeld: { title: 'Retention held', column: 'retention_held', explainedBy: 'held' },
  total: { title: 'Total', column: 'total', explainedBy: null },
} as const satisfies Partial<Record<keyof AgedInvoice, AgeingFigure>>;
export type AgeingFigureName = keyof typeof AGEING_FIGURES;
export const AGEING_FIGURE_NAMES = Object.keys(AGEING_FIGURES) as AgeingFigureName[];
