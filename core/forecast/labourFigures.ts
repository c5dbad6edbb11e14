import type { LabourProgress } from './labourProgress';

/** Figures of hours by task, in the order of the report. Report, pages, downloads and workings read them from here. */
export const LABOUR_FIGURES = {
  labourBudgeted: { title: 'Hours budgeted', head: 'Budgeted', unit: 'hours', column: 'hours_budgeted', key: 'budgeted' },
  labourUsed: { title: 'Hours used', head: 'Used', unit: 'hours', column: 'hours_used', key: 'used' },
  labourPercentUsed: { title: 'Hours used, %', head: 'Used %', unit: 'percent', column: 'percent_used', key: 'percentUsed' },
  labourDone: { title: 'Work done, %', head: 'Done %', unit: 'percent', column: 'percent_done', key: 'percentDone' },
  labourToFinish: { title: 'Hours to finish', head: 'To finish', unit: 'hours', column: 'hours_to_finish', key: 'toFinish' },
  labourAtCompletion: {
    title: 'Hours at completion',
    head: 'At completion',
    unit: 'hours',
    column: 'hours_at_completion',
    key: 'atCompletion',
  },
  labourOver: { title: 'Hours over budget', head: 'Over', unit: 'hours', column: 'hours_over', key: 'over' },
} as const satisfies Record<
  string,
  { title: string; head: string; unit: 'hours' | 'percent'; column: string; key: keyof LabourProgress }
>;

export type LabourFigure = keyof typeof LABOUR_FIGURES;
