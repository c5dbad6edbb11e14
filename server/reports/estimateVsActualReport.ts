import { estimatedLines } from '../costs/estimatedLines';
import { LINE_FIGURES, type LineFigure } from '../../core/forecast/lineFigures';
import type { Reader } from '../db/sql';
import { jobOf } from './jobOf';
import { columns, totalRow, type Report, type ReportColumn, type ReportRequest } from '../reportFiles/report';

/** The columns of the report that are figures, and the figure each one is; names are the open format's. */
const FIGURE_COLUMNS = {
  original: 'lineOriginal',
  // Transfers among them: the format has no column of its own for them.
  changes: 'lineChanges',
  revised: 'lineRevised',
  actual: 'lineActual',
  committed: 'lineCommitted',
  estimate_at_completion: 'lineEstimate',
  variance: 'lineVariance',
  hours_budgeted: 'lineHoursBudgeted',
  hours_actual: 'lineHoursActual',
} as const satisfies Record<string, LineFigure>;
type FigureColumn = keyof typeof FIGURE_COLUMNS;
const FIGURES = Object.entries(FIGURE_COLUMNS) as [FigureColumn, LineFigure][];

const COLUMNS: ReportColumn[] = [
  ...columns('section:t:Section', 'cost_code:t:Cost code', 'cost_type:t:Cost type'),
  ...FIGURES.map(([key, figure]): ReportColumn => {
    const { head, unit } = LINE_FIGURES[figure];
    return { key, title: head, kind: unit === 'hours' ? 'hours' : 'amount' };
  }),
  ...columns('budgeted:t:Budgeted'),
];

/** Estimate versus actual of one job, by section, cost code and cost type; unbudgeted lines too. */
export async function estimateVsActualReport(sql: Reader, request: ReportRequest): Promise<Report> {
  const job = await jobOf(sql, 'estimate-vs-actual', request);
  const rows = (await estimatedLines(sql, job, request.asOf)).map((line) => ({
    section: line.section,
    cost_code: line.costCode,
    cost_type: line.costType,
    ...Object.fromEntries(FIGURES.map(([key, figure]) => [key, LINE_FIGURES[figure].value(line)])),
    changes: line.state.changes + line.state.dayworkCost,
    budgeted: line.state.budgeted ? 'yes' : 'no',
  }));
  return {
    name: 'estimate-vs-actual',
    title: `Estimate versus actual, job ${job.number} ${job.name}`,
    columns: COLUMNS,
    rows: [...rows, totalRow(COLUMNS, rows, 'section')],
    hasTotal: true,
    computed: {
      revised: { plus: ['original', 'changes'] },
      variance: { plus: ['revised'], minus: ['estimate_at_completion'] },
    },
  };
}
