import * as v from 'valibot';
import type { PaidRow, PayrollColumn } from '../core/labour/payroll';
import { PAYROLL_FIELD_NAMES } from '../core/labour/payroll';
import type { PayClass } from '../core/labour/payClass';
import { filled, list, plainDate, seen, text } from './fields';
import { command, download, query } from './call';

/** A row with whom it pays. */
export interface NamedPayrollRow extends PaidRow {
  name: string;
  payrollNumber: string;
}

/** That nothing is lost on the way: what is posted, handed over and left, in minor units and ten-thousandths of an hour. */
export interface PayrollProof {
  posted: { hours: number; amount: number };
  handedOver: { hours: number; amount: number };
  left: { hours: number; amount: number };
  /** What time has put on wages clearing in the ledger. */
  ledger: number;
}

export interface OpenPayroll {
  seen: string;
  rows: NamedPayrollRow[];
  /** Lines worked before the period and not handed over: corrections, and what came late. */
  earlier: number;
  lines: number;
  proof: PayrollProof;
}

export interface PayrollRun {
  run: number;
  from: string;
  to: string;
  handedOn: string;
  handedBy: string;
  people: number;
  hours: number;
  amount: number;
  /** The day it was taken back; null: it stands. */
  undoneOn: string | null;
}

export interface PayrollRunView extends PayrollRun {
  /** Why it cannot be taken back; null where it can. */
  undoRefused: string | null;
  rows: NamedPayrollRow[];
  /** What was posted of its lines: the rows come to the same. */
  posted: { lines: number; hours: number; amount: number };
}

/** A worker's hours of a pay class on a job, day by day. */
export interface WageRow {
  employee: string;
  name: string;
  wageClass: string;
  pay: PayClass;
  /** Of the seven days of the week. */
  days: number[];
  hours: number;
  rate: number;
  /** Paid by the piece: `rate` is of one. */
  byPiece: boolean;
  units: number;
  topUp: number;
  gross: number;
}

export interface WageStatement {
  job: string;
  jobName: string;
  client: string;
  week: string;
  rows: WageRow[];
  hours: number;
  gross: number;
  declaration: string;
}

const period = v.strictObject({ from: plainDate, to: plainDate });
const column = v.strictObject({
  title: v.pipe(filled(80), v.regex(/^[^;=]*$/, 'expected no ; and no =')),
  field: v.picklist(PAYROLL_FIELD_NAMES, `expected one of ${PAYROLL_FIELD_NAMES.join(', ')}`),
});
const on = v.strictObject({ on: plainDate });

export const payrollCalls = {
  openPayroll: query<OpenPayroll>('post-costs')('/payroll/open', { query: period }),
  payrollRuns: query<{ runs: PayrollRun[] }>('post-costs')('/payroll'),
  payrollRun: query<PayrollRunView>('post-costs')('/payroll/:id'),
  payrollCsv: download('post-costs')('/payroll/:id/file'),
  /** Hands over what was shown; of some people where they are named. */
  handOver: command<{ run: number }>('post-costs')('/payroll', {
    input: v.strictObject({ ...period.entries, seen, employees: v.nullable(list(filled(40), 5000, 'employees')) }),
  }),
  /** Takes back the last one, while nobody has taken its file. */
  undoHandOver: command('post-costs')('/payroll/:id', { method: 'DELETE' }),
  payrollSetting: query<{ seen: string; columns: PayrollColumn[]; declaration: string }>('post-costs')('/payroll-setting'),
  savePayrollSetting: command('set-up')('/payroll-setting', {
    method: 'PUT',
    input: v.strictObject({ seen, columns: list(column, 40, 'columns'), declaration: text(4000) }),
  }),
  wageStatement: query<WageStatement>('read-books')('/jobs/:job/wage-statement', { query: on }),
  wageStatementPdf: download('read-books')('/jobs/:job/wage-statement.pdf', { query: on }),
  wageStatementCsv: download('read-books')('/jobs/:job/wage-statement.csv', { query: on }),
};
