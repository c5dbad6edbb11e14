import {
  contractStatus,
  STATUS_FIGURE_NAMES,
  STATUS_FIGURES,
  totalContractStatus,
  type ContractStatus,
} from '../../core/progress/contractStatus';
import type { LoadedPosition } from '../costs/jobPositions';
import type { Reader } from '../db/sql';
import { groupCell, groupColumn, groupsOf, reportedJobs } from './jobGroups';
import { columns, type Report, type ReportColumn, type ReportRequest, type ReportRow } from '../reportFiles/report';

const COLUMNS: ReportColumn[] = [
  ...columns('job:t:Job', 'name:t:Name'),
  ...STATUS_FIGURE_NAMES.map((figure): ReportColumn => {
    const { title, column, same } = STATUS_FIGURES[figure];
    return { key: column, title, kind: 'amount', figure: same ?? figure };
  }),
];

/** What follows from other columns, docs/rules.md §8a. */
const COMPUTED: NonNullable<Report['computed']> = {
  original_profit: { plus: ['original_contract_sum'], minus: ['original_cost'] },
  contract_sum: { plus: ['original_contract_sum', 'changes_price'] },
  revised_cost: { plus: ['original_cost', 'changes_cost'] },
  overrun: { plus: ['estimated_cost'], minus: ['revised_cost'] },
  estimated_profit: { plus: ['contract_sum'], minus: ['estimated_cost'] },
};

/** What each job was signed and budgeted at, what changes made of it, and where it stands: the rows of work in progress, or one. */
export async function contractStatusReport(sql: Reader, request: ReportRequest): Promise<Report> {
  const jobs = await reportedJobs(sql, request);
  const total = (of: readonly LoadedPosition[]) => statusRow('TOTAL', '', totalContractStatus(of.map((job) => job.contract)));
  return {
    name: 'contract-status',
    title: 'Contract status',
    columns: [...groupColumn(request), ...COLUMNS],
    rows: [
      ...jobs.map((job) => ({ ...statusRow(job.number, job.name, contractStatus(job.contract)), ...groupCell(request, job) })),
      { ...total(jobs), ...(request.by ? { group: '' } : {}) },
    ],
    ...(await groupsOf(sql, request, jobs, (job) => groupCell(request, job).group, total)),
    hasTotal: true,
    computed: COMPUTED,
  };
}

function statusRow(job: string, name: string, it: ContractStatus): ReportRow {
  return { job, name, ...Object.fromEntries(STATUS_FIGURE_NAMES.map((figure) => [STATUS_FIGURES[figure].column, it[figure]])) };
}
