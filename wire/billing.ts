import type { Reasons } from '../core/refusals/reasons';
import * as v from 'valibot';
import type { ApplicationStatus } from '../core/billing/application';
import type { ApplicationMove } from '../core/billing/applicationLife';
import type { SummaryFigure } from '../core/billing/summaryFigures';
import { cents, filled, list, plainDate, text, version } from './fields';
import type { JournalView } from './ledger';
import { command, dated, download, preview, query } from './call';

export const newApplicationInput = v.strictObject({
  dated: plainDate,
  reference: text(80),
  /** With the figures of the billing schedule. */
  bySchedule: v.optional(v.boolean('expected yes or no'), false),
});
export type NewApplicationInput = v.InferOutput<typeof newApplicationInput>;
/** A draft as typed. `version` is the one it was opened at: another one saved means somebody else saved since. Null: not compared. */
export const applicationLinesInput = v.strictObject({
  version: v.nullable(version),
  dated: plainDate,
  reference: text(80),
  lines: list(v.strictObject({ line: filled(40), work: cents, materials: cents }), 5000, 'lines'),
});
export type ApplicationLinesInput = v.InferOutput<typeof applicationLinesInput>;

/** `version` is that of the application as the page showed it. */
export const certifyInput = v.strictObject({
  version: v.nullable(version),
  on: plainDate,
  /** Lines certified for another figure than applied for; the rest as applied. */
  lines: list(v.strictObject({ line: filled(40), work: cents, materials: cents }), 5000, 'lines'),
});
export type CertifyInput = v.InferOutput<typeof certifyInput>;

/** A draft billed in one act. `version` is that of the application as the page showed it. */
export const billInput = v.strictObject({ version: v.nullable(version), on: plainDate });
export type BillInput = v.InferOutput<typeof billInput>;

export const uncertifyInput = v.strictObject({ reason: filled(400) });

/** By how much the lines of a draft may pass their scheduled values, together; 0: not at all any more. */
export const aboveInput = v.strictObject({ by: v.pipe(cents, v.minValue(0, 'expected 0 or more')), reason: filled(400) });
export type AboveInput = v.InferOutput<typeof aboveInput>;

export const receiptInput = v.strictObject({ dated: plainDate, amount: cents, reference: text(80) });
export const releaseInput = v.strictObject({ dated: plainDate, amount: cents, reference: filled(80) });

export interface BilledLineView {
  line: string;
  section: string;
  description: string;
  scheduled: number;
  previousWork: number;
  work: number;
  materials: number;
  appliedWork: number;
  appliedMaterials: number;
  toDate: number;
  retention: number;
  retentionRate: number | null;
  /** What cost says the line has earned: scheduled × cost ÷ estimate of the budget lines that serve it; null where none does. */
  earnedByCost: number | null;
  /** What the billing schedule says is billed to date; null where the job has none. */
  bySchedule: number | null;
}

export interface ApplicationView {
  job: string;
  jobName: string;
  client: string;
  /** What is applied for stands: it may be billed in one act. */
  neverCertifies: boolean;
  number: number;
  version: number;
  dated: string;
  status: ApplicationStatus;
  certifiedOn: string | null;
  /** The day it was certified, where that is after the month shown. */
  certifiedLater: string | null;
  reference: string;
  /** By how much its lines may pass their scheduled values, together, and why. */
  above: number;
  aboveReason: string;
  dueOn: string | null;
  /** By the date looked at. */
  received: number;
  /** What may still be received on that date. */
  receivable: number;
  locked: boolean;
  lines: BilledLineView[];
  summary: Record<SummaryFigure, number>;
  /** Earned revenue of the whole job on the application's own day. */
  earned: number;
  /** The rule in plain words, and which parts of it bit. */
  retentionWords: string;
  taxName: string;
  taxRate: number;
  retentionRule: {
    rate: number;
    materialsRate: number | null;
    step: { at: number; to: number; applies: 'all' | 'further' } | null;
    cap: number | null;
  };
  /** The journal its certification made, or would make today. */
  journal: JournalView | null;
  postingId: number | null;
  receipts: { dated: string; amount: number; reference: string; postingId: number }[];
  /** Its certifications that were reversed, the oldest first, each with the document that reversed it. */
  reversed: { certifiedOn: string; reason: string; postingId: number }[];
  /** Why each move of its life cannot be made now, whatever month is shown; null where it can. */
  refused: Reasons<ApplicationMove>;
  previousNumber: number | null;
  /** There is an application after it. */
  hasNext: boolean;
}

/** What certifying would make of an application, and what it would post. */
export interface CertificationPreview {
  summary: Record<SummaryFigure, number>;
  journal: JournalView;
}

/** The same of billing in one act. */
export interface BillPreview extends CertificationPreview {
  /** The number its invoice would have. */
  invoice: number;
  dueOn: string;
}

export interface ApplicationRow {
  job: string;
  jobName: string;
  client: string;
  number: number;
  dated: string;
  status: string;
  certifiedOn: string | null;
  gross: number;
  retention: number;
  due: number;
  payable: number;
  received: number;
  dueOn: string | null;
  daysLate: number;
}

export interface JobBilling {
  applications: ApplicationRow[];
  releases: {
    reference: string;
    dated: string;
    amount: number;
    tax: number;
    received: number;
    postingId: number;
    dueOn: string;
  }[];
  retentionHeld: number;
  taxName: string;
  /** The job's, for what is released. */
  taxRate: number;
  /** What the billing schedule says is billed by the date, and what was; null where the job has none. */
  schedule: { due: number; billed: number } | null;
  canStart: string | null;
}

/** An invoice of released retention or of charged cost that is not paid, or is of the month. */
export interface ReleaseRow {
  kind: 'release' | 'daywork';
  job: string;
  jobName: string;
  client: string;
  reference: string;
  dated: string;
  amount: number;
  payable: number;
  received: number;
  dueOn: string;
  daysLate: number;
}

export interface BillingRegister {
  releases: ReleaseRow[];
  applications: ApplicationRow[];
  /** Jobs that could be billed this month and have no application in it; `bySchedule` is what their schedule says is still to be billed. */
  unbilled: {
    job: string;
    name: string;
    client: string;
    lastNumber: number | null;
    underbilled: number;
    overbilled: number;
    bySchedule: number | null;
  }[];
}

const application = '/jobs/:job/applications/:application';

const printQuery = v.strictObject({ by: v.optional(v.picklist(['section'], 'expected section')) });

export const billingCalls = {
  billingRegister: query<BillingRegister>('read-jobs')('/billing', { query: dated, part: 'report:billing-register' }),
  jobBilling: query<JobBilling>('read-jobs')('/jobs/:job/billing', { query: dated }),
  application: query<ApplicationView>('read-jobs')(application, { query: dated }),
  /** By section: each with its sum. */
  applicationPdf: download('read-jobs')(`${application}/print`, { query: printQuery }),
  startApplication: command<{ number: number }>('apply')('/jobs/:job/applications', { input: newApplicationInput }),
  saveApplication: command<{ version: number }>('apply')(application, { method: 'PUT', input: applicationLinesInput }),
  billAbove: command('apply')(`${application}/above`, { method: 'PUT', input: aboveInput }),
  deleteApplication: command('apply')(application, { method: 'DELETE' }),
  submitApplication: command('apply')(`${application}/submit`),
  returnApplication: command('apply')(`${application}/return`),
  previewCertification: preview<CertificationPreview>('certify')(`${application}/certify/preview`, { input: certifyInput }),
  certifyApplication: command<{ postingId: number }>('certify')(`${application}/certify`, { input: certifyInput }),
  previewBill: preview<BillPreview>('certify')(`${application}/bill/preview`, { input: billInput }),
  /** Whoever bills in one act applies and certifies. */
  billApplication: command<{ postingId: number }>('certify')(`${application}/bill`, { input: billInput, also: () => 'apply' }),
  uncertifyApplication: command<{ postingId: number }>('certify')(`${application}/uncertify`, { input: uncertifyInput }),
  recordReceipt: command<{ postingId: number }>('receive')('/jobs/:job/invoices/:invoice/receipts', { input: receiptInput }),
  releaseRetention: command<{ postingId: number }>('release-retention')('/jobs/:job/releases', { input: releaseInput }),
};
