import { REPORT_FIGURES } from '../../core/progress/figures';
import { totalProgress, type Progress } from '../../core/progress/workInProgress';
import type { Reader } from '../db/sql';
import type { LoadedPosition } from '../costs/jobPositions';
import { groupCell, groupColumn, groupsOf, reportedJobs } from './jobGroups';
import { columns, type Report, type ReportColumn, type ReportRequest, type ReportRow } from '../reportFiles/report';

const COLUMNS: ReportColumn[] = [
  ...columns('job:t:Job', 'name:t:Name'),
  ...REPORT_FIGURES.map(({ figure, title, unit, column }): ReportColumn =>
    unit === 'percent'
      ? { key: column, title: `${title} %`, kind: 'percent', figure }
      : { key: column, title, kind: 'amount', figure },
  ),
];

/** What follows from other columns, docs/rules.md §8; percent complete goes by the job's method and does not. */
const COMPUTED: NonNullable<Report['computed']> = {
  estimated_profit: { plus: ['contract_sum'], minus: ['estimated_cost'] },
  estimated_margin_percent: { of: 'estimated_profit', over: 'contract_sum' },
  profit_to_date: { plus: ['earned_revenue'], minus: ['cost_to_date', 'loss_provision'] },
  overbilled: { plus: ['billed_to_date'], minus: ['earned_revenue'], notBelowZero: true },
  underbilled: { plus: ['earned_revenue'], minus: ['billed_to_date'], notBelowZero: true },
  backlog: { plus: ['contract_sum'], minus: ['earned_revenue'] },
};

/** The work-in-progress schedule, docs/rules.md §8: all jobs awarded by the date, or one. */
export async function workInProgressReport(sql: Reader, request: ReportRequest): Promise<Report> {
  const jobs = await reportedJobs(sql, request);
  const total = (of: readonly LoadedPosition[]) => progressRow('TOTAL', '', totalProgress(of.map((job) => job.progress)));
  const rows = jobs.map((job) => ({ ...progressRow(job.number, job.name, job.progress), ...groupCell(request, job) }));
  return {
    name: 'wip',
    title: 'Work in progress',
    columns: [...groupColumn(request), ...COLUMNS],
    rows: [...rows, { ...total(jobs), ...(request.by ? { group: '' } : {}) }],
    ...(await groupsOf(sql, request, jobs, (job) => groupCell(request, job).group, total)),
    hasTotal: true,
    computed: COMPUTED,
  };
}

function progressRow(job: string, name: string, it: Progress): ReportRow {
  return { job, name, ...Object.fromEntries(REPORT_FIGURES.map(({ figure, column }) => [column, it[figure]])) };
}
