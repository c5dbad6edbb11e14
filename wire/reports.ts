import * as v from 'valibot';
import { asOf } from './fields';
import { download, query } from './call';
import { figureQuery, type Workings } from './workings';

/** What a report's cell holds: amounts in minor units, percentages in millionths, hours in ten-thousandths. */
type ColumnKind = 'text' | 'integer' | 'date' | 'amount' | 'percent' | 'hours';

export interface ReportColumn {
  key: string;
  title: string;
  kind: ColumnKind;
  /** The figure its cells show, where each has workings of its own. */
  figure?: string;
}

/** A report with its rows; the last is the total where `hasTotal`. */
export interface ReportReply {
  name: string;
  title: string;
  columns: readonly ReportColumn[];
  rows: Record<string, string | number>[];
  hasTotal: boolean;
}

export const reportQuery = v.strictObject({
  asOf,
  job: v.optional(v.string()),
  application: v.optional(v.pipe(v.string(), v.regex(/^\d{1,9}$/, 'expected a number'), v.transform(Number))),
});

export const reportCalls = {
  workings: query<Workings>()('/workings', { query: figureQuery }),
  report: query<ReportReply>()('/reports/:name', { query: reportQuery }),
  reportFile: download()('/reports/:name.:format', { query: reportQuery }),
};
