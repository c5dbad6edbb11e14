import { Router } from 'express';
import * as v from 'valibot';
import { LedrinError } from '../../core/errors/ledrinError';
import { figureQuery } from '../../wire/workings';
import { reportCsv } from './reportCsv';
import { reportPdf } from './reportPdf';
import { reportXlsx } from './reportXlsx';
import { loadCompany, type Company } from '../company/company';
import { isReportName, REPORTS } from './index';
import type { Report } from './report';
import { explain } from '../workings/explain';
import { asOfOf, type Context } from '../http/context';
import { read } from '../http/reply';

const reportQuery = v.strictObject({
  asOf: v.string(),
  job: v.optional(v.string()),
  application: v.optional(v.pipe(v.string(), v.regex(/^\d{1,9}$/, 'expected a number'), v.transform(Number))),
});

/** The ways out of a report: type of the file, and how it is made. */
const FORMATS = {
  csv: { type: 'text/csv', make: async (report: Report, company: Company) => Buffer.from(reportCsv(report, company.digits)) },
  xlsx: { type: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet', make: reportXlsx },
  pdf: { type: 'application/pdf', make: reportPdf },
};

export function reportRoutes({ database }: Context): Router {
  const router = Router();
  router.get('/workings', async (request, response) => {
    const { asOf, ...ref } = read(figureQuery, request.query);
    response.json(await database.consistent((sql) => explain(sql, ref, asOfOf(asOf))));
  });
  router.get('/reports/:file', async (request, response) => {
    const [name = '', format] = String(request.params.file).split('.');
    if (!isReportName(name))
      throw new LedrinError('not-found', `There is no report ${name}; there are ${Object.keys(REPORTS).join(', ')}`);
    const query = read(reportQuery, request.query);
    const asOf = asOfOf(query.asOf);
    const report = await database.consistent((sql) => REPORTS[name](sql, { ...query, asOf }));
    if (format === undefined) return void response.json(report);
    if (!Object.hasOwn(FORMATS, format))
      throw new LedrinError('not-found', `A report comes as ${Object.keys(FORMATS).join(', ')}, not as ${format}`);
    const company = await loadCompany(database.read());
    if (!company) throw new LedrinError('refused', 'There is no company yet, and so nothing to report');
    const { type, make } = FORMATS[format as keyof typeof FORMATS];
    const fileName = [name, query.job, asOf].filter(Boolean).join('-');
    response
      .type(type)
      .attachment(`${fileName}.${format}`)
      .send(await make(report, company, asOf));
  });
  return router;
}
