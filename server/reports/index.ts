import type { Reader } from '../db/sql';
import { ageingReport } from './ageingReport';
import { applicationReport, applicationSummaryReport } from './applicationReport';
import { contractStatusReport } from './contractStatusReport';
import { dayworkReport } from './dayworkReport';
import { estimateVsActualReport } from './estimateVsActualReport';
import { labourProgressReport } from './labourProgressReport';
import { quantitiesReport } from './quantitiesReport';
import { payrollReport, timeCostReport } from './timeReports';
import { tieOutReport, trialBalanceReport } from './ledgerReports';
import type { Report, ReportRequest } from '../reportFiles/report';
import { workInProgressReport } from './workInProgressReport';

/** Every report by its name in docs/book.md. Adding one is its file and one line here. */
export const REPORTS = {
  wip: workInProgressReport,
  'contract-status': contractStatusReport,
  'estimate-vs-actual': estimateVsActualReport,
  application: applicationReport,
  'application-summary': applicationSummaryReport,
  'labour-progress': labourProgressReport,
  'time-cost': timeCostReport,
  payroll: payrollReport,
  quantities: quantitiesReport,
  daywork: dayworkReport,
  ageing: ageingReport,
  'trial-balance': trialBalanceReport,
  'tie-out': tieOutReport,
} satisfies Record<string, (sql: Reader, request: ReportRequest) => Promise<Report>>;

export type ReportName = keyof typeof REPORTS;

export function isReportName(name: string): name is ReportName {
  return Object.hasOwn(REPORTS, name);
}
