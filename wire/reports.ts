import * as v from 'valibot';
import { JOB_GROUP_NAMES } from '../core/jobs/jobGroups';
import type { Right } from '../core/rights/rights';
import { asOf, plainDate } from './fields';
import { download, query } from './call';
import { figureQuery, type Workings } from './workings';

/** What a report's cell holds: amounts in minor units, percentages in millionths, hours and rates in ten-thousandths. */
type ColumnKind = 'text' | 'integer' | 'date' | 'amount' | 'percent' | 'hours' | 'rate';

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
  /** Where it is grouped: each group by the code in `group`, in order, with its name and what it comes to. */
  groups?: { code: string; name: string; total: Record<string, string | number> }[];
}

export const reportQuery = v.strictObject({
  asOf,
  from: v.optional(plainDate),
  job: v.optional(v.string()),
  by: v.optional(v.picklist(JOB_GROUP_NAMES, `expected one of ${JOB_GROUP_NAMES.join(', ')}`)),
  department: v.optional(v.string()),
  kind: v.optional(v.string()),
  application: v.optional(v.pipe(v.string(), v.regex(/^\d{1,9}$/, 'expected a number'), v.transform(Number))),
});

/** Reports of the whole ledger, and of what somebody is paid, need its right; those of jobs show whoever asks their own. */
const also = ({ name }: Readonly<Record<string, unknown>>): Right =>
  ['trial-balance', 'tie-out', 'time-cost', 'payroll'].includes(String(name)) ? 'read-books' : 'read-jobs';

/** Each report can be taken from a role; one that is not a part of its own cannot. */
const part = ({ name }: Readonly<Record<string, unknown>>): string => `report:${String(name)}`;

export const reportCalls = {
  workings: query<Workings>('read-jobs')('/workings', { query: figureQuery }),
  report: query<ReportReply>('read-jobs')('/reports/:name', { query: reportQuery, also, part }),
  reportFile: download('read-jobs')('/reports/:name.:format', { query: reportQuery, also, part }),
};
