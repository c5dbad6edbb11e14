import { LedrinError } from '../../core/errors/ledrinError';
import { reportCalls } from '../../wire/reports';
import { loadCompany, type Company } from '../company/company';
import type { Reader } from '../db/sql';
import { handle } from '../http/handlers';
import { explain } from '../workings/explain';
import type { Workers } from '../workers/workers';
import { isReportName, REPORTS } from './index';
import type { Report, ReportRequest } from '../reportFiles/report';
import { reportCsvForSpreadsheet } from '../reportFiles/reportCsv';

function reportOf(sql: Reader, name: string, request: ReportRequest): Promise<Report> {
  if (isReportName(name)) return REPORTS[name](sql, request);
  throw new LedrinError('not-found', `There is no report ${name}; there are ${Object.keys(REPORTS).join(', ')}`);
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
  report: (sql, { name, ...request }) => reportOf(sql, name, request),
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
