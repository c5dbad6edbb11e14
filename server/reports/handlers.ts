import { LedrinError } from '../../core/errors/ledrinError';
import { known } from '../../core/errors/known';
import { reportCalls, type ReportReply } from '../../wire/reports';
import { fieldError } from '../acts/refused';
import { loadCompany, type Company } from '../company/company';
import type { Reader } from '../db/sql';
import { handle } from '../http/handlers';
import { explain } from '../workings/explain';
import type { Workers } from '../workers/workers';
import { isReportName, REPORTS, type ReportName } from './index';
import type { Report, ReportRequest } from '../reportFiles/report';
import { reportCsvForSpreadsheet } from '../reportFiles/reportCsv';

function reportOf(sql: Reader, name: string, request: ReportRequest): Promise<Report> {
  if (isReportName(name)) {
    const asked = (['by', 'department', 'kind'] as const).find((it) => request[it] !== undefined);
    if (asked && !OVER_JOBS.has(name))
      throw fieldError(asked, `${asked}: only ${[...OVER_JOBS].join(', ')} are grouped and narrowed by it; leave it out`);
    return REPORTS[name](sql, request);
  }
  throw new LedrinError('not-found', `There is no report ${name}; there are ${Object.keys(REPORTS).join(', ')}`);
}

/** Reports over all jobs, which can be grouped and narrowed. */
const OVER_JOBS: ReadonlySet<ReportName> = new Set(['wip', 'contract-status', 'time-cost']);

/** A report as it is sent to the page. */
function replyOf({ groups, computed: _formulas, ...report }: Report): ReportReply {
  if (!groups?.totals) return report;
  const { names, totals } = groups;
  return { ...report, groups: [...names].map(([code, name]) => ({ code, name, total: known(totals, code) })) };
}

type Make = (workers: Workers, report: Report, company: Company, asOf: string) => Promise<Buffer | string>;

/** The ways out of a report: media type, and how it is made. */
const FORMATS: Readonly<Record<string, { type: string; make: Make }>> = {
  csv: { type: 'text/csv', make: async (_workers, report, company) => reportCsvForSpreadsheet(report, company.digits) },
  xlsx: {
    type: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
    make: (workers, report, company) => workers.run('reportXlsx', report, company),
  },
  pdf: { type: 'application/pdf', make: (workers, report, company, asOf) => workers.run('reportPdf', report, company, asOf) },
};

export const reportHandlers = handle(reportCalls, {
  workings: (sql, { asOf, ...figure }) => explain(sql, figure, asOf),
  report: async (sql, { name, ...request }) => replyOf(await reportOf(sql, name, request)),
  reportFile: async (database, { name, format, ...request }, { workers }) => {
    const way = Object.hasOwn(FORMATS, format) ? FORMATS[format] : undefined;
    if (!way) throw new LedrinError('not-found', `A report comes as ${Object.keys(FORMATS).join(', ')}, not as ${format}`);
    const [report, company] = await database.read(
      async (sql) => [await reportOf(sql, name, request), await loadCompany(sql)] as const,
    );
    const fileName = `${[name, request.job, request.asOf].filter(Boolean).join('-')}.${format}`;
    return { type: way.type, name: fileName, content: await way.make(workers, report, company, request.asOf) };
  },
});
