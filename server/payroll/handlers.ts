import { payrollCalls } from '../../wire/payroll';
import { loadDigits } from '../company/company';
import { handle } from '../http/handlers';
import {
  handOver,
  noteUsed,
  openPayroll,
  payrollCsv,
  payrollRun,
  payrollRuns,
  payrollSetting,
  savePayrollSetting,
  undoHandOver,
} from './payroll';
import { todayOf } from '../http/context';
import { wageStatement, wageStatementCsv, wageStatementDocument } from './wageStatement';

export const payrollHandlers = handle(payrollCalls, {
  openPayroll: (sql, period) => openPayroll(sql, period),
  payrollRuns: (sql) => payrollRuns(sql),
  payrollRun: (sql, { id }) => payrollRun(sql, id),
  payrollCsv: async (database, { id }, context) => {
    const content = await database.read((sql) => payrollCsv(sql, id));
    // Before it goes out: what payroll has cannot be taken back any more.
    await database.write((sql) => noteUsed(sql, id, todayOf(context)));
    return { type: 'text/csv', name: `payroll-${id}.csv`, content };
  },
  undoHandOver: (command, { id }) => undoHandOver(command, id),
  handOver: (command, { body }) => handOver(command, body),
  payrollSetting: (sql) => payrollSetting(sql),
  savePayrollSetting: (command, { body }) => savePayrollSetting(command, body),
  wageStatement: (sql, { job, on }) => wageStatement(sql, job, on),
  wageStatementPdf: async (database, { job, on }, { workers }) => ({
    type: 'application/pdf',
    name: `wages-${job}-${on}.pdf`,
    inline: true,
    content: await workers.run('wageStatementPdf', await database.read((sql) => wageStatementDocument(sql, job, on))),
  }),
  wageStatementCsv: async (database, { job, on }) => ({
    type: 'text/csv',
    name: `wages-${job}-${on}.csv`,
    content: await database.read(async (sql) => wageStatementCsv(await wageStatement(sql, job, on), await loadDigits(sql))),
  }),
});
