import { billingCalls } from '../../wire/billing';
import { handle } from '../http/handlers';
import { billAbove } from './billAbove';
import { deleteApplication, saveApplication, setSubmitted, startApplication } from './applications';
import { billApplication, certifyApplication, previewBill, previewCertification } from './certify';
import { applicationDocument } from './applicationPdf';
import { applicationView } from './applicationView';
import { billingRegister } from './billingRegister';
import { jobBilling } from './jobBilling';
import { reverseCertification } from './reverseCertification';
import { recordReceipt, releaseRetention } from './receipts';

export const billingHandlers = handle(billingCalls, {
  billingRegister: (sql, { asOf }) => billingRegister(sql, asOf),
  jobBilling: (sql, { job, asOf }) => jobBilling(sql, job, asOf),
  application: (sql, { job, application, asOf }) => applicationView(sql, job, application, asOf),
  applicationPdf: async (database, { job, application, by }, { workers }) => ({
    type: 'application/pdf',
    name: `application-${job}-${application}.pdf`,
    inline: true,
    content: await workers.run(
      'applicationPdf',
      await database.read((sql) => applicationDocument(sql, job, application, by === 'section')),
    ),
  }),
  startApplication: async (command, { job, body }) => ({ number: await startApplication(command, job, body) }),
  saveApplication: async (command, { job, application, body }) => ({
    version: await saveApplication(command, job, application, body),
  }),
  billAbove: (command, { job, application, body }) => billAbove(command, job, application, body),
  deleteApplication: (command, { job, application }) => deleteApplication(command, job, application),
  submitApplication: (command, { job, application }) => setSubmitted(command, job, application, true),
  returnApplication: (command, { job, application }) => setSubmitted(command, job, application, false),
  previewCertification: (database, { job, application, body }) =>
    database.read((sql) => previewCertification(sql, job, application, body)),
  certifyApplication: async (command, { job, application, body }) => ({
    postingId: await certifyApplication(command, job, application, body),
  }),
  previewBill: (database, { job, application, body }) => database.read((sql) => previewBill(sql, job, application, body)),
  billApplication: async (command, { job, application, body }) => ({
    postingId: await billApplication(command, job, application, body),
  }),
  uncertifyApplication: async (command, { job, application, body }) => ({
    postingId: await reverseCertification(command, job, application, body.reason),
  }),
  recordReceipt: async (command, { job, invoice, body }) => ({ postingId: await recordReceipt(command, job, invoice, body) }),
  releaseRetention: async (command, { job, body }) => ({ postingId: await releaseRetention(command, job, body) }),
});
