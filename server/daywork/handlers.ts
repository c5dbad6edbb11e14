import { chargingCalls } from '../../wire/charging';
import { handle } from '../http/handlers';
import { creditDaywork, deleteDraft, issueDraft } from './creditDaywork';
import { dayworkDocument } from './dayworkInvoicePdf';
import { dayworkView } from './dayworkView';
import { issueRun, previewRun } from './runDaywork';
import { saveMarks } from '../charging/saveMarks';
import { saveMarkups } from '../charging/saveMarkups';
import { jobCharging, unbilledJobs } from './unbilled';

export const chargingHandlers = handle(chargingCalls, {
  unbilled: (sql, { asOf }) => unbilledJobs(sql, asOf),
  jobCharging: (sql, { job, asOf, show }) => jobCharging(sql, job, asOf, show),
  markEntries: (command, { job, body }) => saveMarks(command, job, body),
  saveMarkups: (command, { job, body }) => saveMarkups(command, job, body),
  previewRun: (database, { body }) => database.read((sql) => previewRun(sql, body)),
  issueRun: (command, { body }) => issueRun(command, body),
  dayworkInvoice: (sql, { job, invoice, asOf }) => dayworkView(sql, job, invoice, asOf),
  dayworkInvoicePdf: async (database, { job, invoice }, { workers }) => ({
    type: 'application/pdf',
    name: `invoice-${job}-${invoice.replaceAll(/[^\w-]/g, '-')}.pdf`,
    inline: true,
    content: await workers.run('dayworkInvoicePdf', await database.read((sql) => dayworkDocument(sql, job, invoice))),
  }),
  issueDaywork: (command, { job, invoice }) => issueDraft(command, job, invoice),
  deleteDaywork: (command, { job, invoice }) => deleteDraft(command, job, invoice),
  creditDaywork: async (command, { job, invoice, body }) => ({ postingId: await creditDaywork(command, job, invoice, body) }),
});
