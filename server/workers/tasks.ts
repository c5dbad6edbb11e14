import { applicationPdf } from '../billing/applicationPdf';
import { dayworkInvoicePdf } from '../daywork/dayworkInvoicePdf';
import { dayPdf, dayworkPdf } from '../daySheets/dayPdf';
import { exportZip } from '../book/exportZip';
import { previewImport } from '../book/previewImport';
import { importBookAlone } from '../book/importBookAlone';
import { clientDocumentDocx } from '../offers/clientDocumentDocx';
import { clientDocumentPdf } from '../offers/clientDocumentPdf';
import { reportPdf } from '../reportFiles/reportPdf';
import { reportXlsx } from '../reportFiles/reportXlsx';
import { readSheet } from '../sheets/readSheet';
import { wageStatementPdf } from '../payroll/wageStatement';
import { hashPassword, matchesPassword } from '../users/scrypt';

/** What is worked in a thread of its own, since it would hold up everybody else: one line each. */
export const TASKS = {
  readSheet,
  reportPdf,
  reportXlsx,
  applicationPdf,
  dayworkInvoicePdf,
  clientDocumentPdf,
  clientDocumentDocx,
  wageStatementPdf,
  dayPdf,
  dayworkPdf,
  exportZip,
  importBookAlone,
  previewImport,
  hashPassword,
  matchesPassword,
};
export type TaskName = keyof typeof TASKS;
export type TaskArgs<Name extends TaskName> = Parameters<(typeof TASKS)[Name]>;
export type TaskResult<Name extends TaskName> = Awaited<ReturnType<(typeof TASKS)[Name]>>;

/** How a task ended, in a form that passes between threads: an error of ours keeps what it says. */
export type TaskReply =
  | { done: unknown }
  | { refused: { code: string; message: string; faults: readonly unknown[] } }
  | { bookRefused: { faults: readonly unknown[]; more: number } };
