import { totalProgress, type Progress } from '../../core/progress/workInProgress';
import type { Reader } from '../db/sql';
import { inSchedule, loadPositions } from '../jobs/jobPositions';
import { jobByNumber } from '../jobs/jobByNumber';
import { columns, type Report, type ReportRequest, type ReportRow } from './report';

const COLUMNS = columns(
  'job:t:Job',
  'name:t:Name',
  'contract_sum:a:Contract sum',
  'estimated_cost:a:Estimate at completion',
  'estimated_profit:a:Estimated profit',
  'estimated_margin_percent:p:Margin %',
  'cost_to_date:a:Cost to date',
  'percent_complete:p:Complete %',
  'earned_revenue:a:Earned revenue',
  'profit_to_date:a:Profit to date',
  'billed_to_date:a:Billed to date',
  'overbilled:a:Overbilled',
  'underbilled:a:Underbilled',
  'backlog:a:Backlog',
  'loss_provision:a:Loss provision',
);

/** The work-in-progress schedule, docs/rules.md §8: all jobs awarded by the date, or one. */
export async function workInProgressReport(sql: Reader, request: ReportRequest): Promise<Report> {
  const jobId = request.job === undefined ? null : (await jobByNumber(sql, request.job, 'contract')).id;
  const jobs = (await loadPositions(sql, request.asOf, jobId)).filter((job) => inSchedule(job, request.asOf));
  const rows = jobs.map((job) => progressRow(job.number, job.name, job.progress));
  return {
    name: 'wip',
    title: 'Work in progress',
    columns: COLUMNS,
    rows: [...rows, progressRow('TOTAL', '', totalProgress(jobs.map((job) => job.progress)))],
    hasTotal: true,
  };
}

function progressRow(job: string, name: string, it: Progress): ReportRow {
  return {
    job,
    name,
    contract_sum: it.contractSum,
    estimated_cost: it.estimate,
    estimated_profit: it.estimatedProfit,
    estimated_margin_percent: it.margin,
    cost_to_date: it.cost,
    percent_complete: it.complete,
    earned_revenue: it.earned,
    profit_to_date: it.profitToDate,
    billed_to_date: it.billed,
    overbilled: it.overbilled,
    underbilled: it.underbilled,
    backlog: it.backlog,
    loss_provision: it.lossProvision,
  };
}
