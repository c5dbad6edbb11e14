import * as v from 'valibot';
import { CHARGE_MARKS, type ChargeMark } from '../core/charging/chargeMark';
import type { ChargeRung } from '../core/charging/chargeRates';
import { SHOWN_AS, type InvoiceLine, type ShownAs } from '../core/charging/dayworkInvoice';
import type { Pricing } from '../core/charging/pricing';
import type { CostType } from '../core/costs/costType';
import { cents, costType, filled, list, markup, plainDate, seen, text } from './fields';
import type { JournalView } from './ledger';
import { command, dated, download, preview, query } from './call';

const MOST_ENTRIES = 60_000;
const ids = list(
  v.pipe(v.number('expected the id of an entry'), v.safeInteger('expected the id of an entry')),
  MOST_ENTRIES,
  'entries',
);
const mark = v.picklist(CHARGE_MARKS, `expected one of ${CHARGE_MARKS.join(', ')}`);

/** What is said of many entries of a job at once; what is left out stays as it is. */
export const marksInput = v.strictObject({
  entries: ids,
  mark: v.optional(mark),
  /** Charged from this day on; null: from the accounting date. */
  from: v.optional(v.nullable(plainDate)),
  /** Their own markup; null: the job's. */
  markup: v.optional(v.nullable(markup)),
  wording: v.optional(text(400)),
});
export type MarksInput = v.InferOutput<typeof marksInput>;

/** The markups of a job, whole: a cost type left out has none. */
export const markupsInput = v.strictObject({ seen, markups: list(v.strictObject({ costType, markup }), 5, 'markups') });
export type MarkupsInput = v.InferOutput<typeof markupsInput>;

const runInvoice = v.strictObject({
  job: filled(40),
  /** Empty: the next of the job. */
  reference: text(80),
  shown: v.picklist(SHOWN_AS, `expected one of ${SHOWN_AS.join(', ')}`),
  wording: text(400),
  /** Null: all that is charged by the cut-off and on no invoice. */
  entries: v.nullable(ids),
});
const run = {
  dated: plainDate,
  cutOff: plainDate,
  invoices: v.pipe(list(runInvoice, 2000, 'invoices'), v.minLength(1, 'expected at least one job')),
};
/** Invoices of charged cost, one a job. */
export const runInput = v.strictObject(run);
export type RunInput = v.InferOutput<typeof runInput>;
export const issueInput = v.strictObject({ ...run, seen });

export const creditInput = v.strictObject({
  dated: plainDate,
  /** Before tax; null: in full. */
  amount: v.nullable(cents),
  creditNote: filled(80),
  reason: filled(400),
});
export type CreditInput = v.InferOutput<typeof creditInput>;

/** What is charged on a job and on no invoice yet, by the date. Amounts before tax. */
export interface UnbilledJob {
  job: string;
  jobName: string;
  client: string;
  clientName: string;
  pricing: Pricing;
  entries: number;
  cost: number;
  charge: number;
  /** Of those that wait. */
  heldEntries: number;
  heldCharge: number;
  /** The day from which the oldest is charged; null where all wait. */
  oldest: string | null;
  /** Of a charged job that has one. */
  ceiling: number | null;
  invoiced: number;
  /** Charged so far, invoiced or not. */
  charged: number;
  /** Why nothing can be invoiced; null where it can. */
  why: string | null;
}

/** A cost entry with what is charged for it; of a line of time its pay and burden together. */
export interface ChargeEntry {
  id: number;
  dated: string;
  postedOn: string;
  countsFrom: string;
  reference: string;
  party: string;
  description: string;
  wording: string;
  section: string;
  costCode: string;
  costType: CostType;
  hours: number | null;
  cost: number;
  charge: number;
  mark: ChargeMark;
  from: string | null;
  /** Its own; null: the job's. */
  markup: number | null;
  /** By a charge rate, and which; null: by markup. */
  rung: ChargeRung | null;
  rate: number | null;
  /** The markup that counts. */
  marked: number | null;
  postingId: number;
  sheet: string | null;
}

export interface DayworkRow {
  reference: string;
  number: number | null;
  dated: string;
  dueOn: string | null;
  status: 'draft' | 'issued';
  amount: number;
  tax: number;
  credited: number;
  creditedInFull: boolean;
  received: number;
  open: number;
}

/** What is charged on one job. */
export interface JobCharging {
  unbilled: UnbilledJob;
  entries: ChargeEntry[];
  invoices: DayworkRow[];
  markups: { costType: CostType; markup: number }[];
  markupsSeen: string;
  nextReference: string;
  taxName: string;
  taxRate: number;
}

/** An invoice as it would be issued. */
export interface RunInvoiceView {
  job: string;
  jobName: string;
  client: string;
  clientName: string;
  reference: string;
  dueOn: string;
  entries: number;
  cost: number;
  lines: InvoiceLine[];
  amount: number;
  tax: number;
  payable: number;
  journal: JournalView;
  /** Billed less earned, before it and after: below zero, underbilled. */
  before: number;
  after: number;
}

export interface RunPreview {
  seen: string;
  invoices: RunInvoiceView[];
  /** What is not ready, and why. */
  notReady: { job: string; jobName: string; entries: number; charge: number; why: string }[];
}

export interface DayworkView {
  job: string;
  jobName: string;
  client: string;
  clientName: string;
  reference: string;
  number: number | null;
  dated: string;
  cutOff: string;
  dueOn: string | null;
  status: 'draft' | 'issued';
  shown: ShownAs;
  wording: string;
  lines: InvoiceLine[];
  entries: {
    id: number;
    dated: string;
    reference: string;
    words: string;
    costType: CostType;
    charge: number;
    postingId: number;
  }[];
  amount: number;
  tax: number;
  payable: number;
  credits: {
    creditNote: string;
    dated: string;
    amount: number;
    tax: number;
    inFull: boolean;
    reason: string;
    postingId: number;
  }[];
  receipts: { dated: string; amount: number; reference: string; postingId: number }[];
  /** With tax: what it still asks for. */
  open: number;
  postingId: number | null;
  nextCreditNote: string;
  /** Why each cannot be done; null where it can. */
  can: { creditInFull: string | null; creditInPart: string | null; receive: string | null };
}

const daywork = '/jobs/:job/daywork/:invoice';
export const chargingCalls = {
  /** By job, those with something to invoice or that waits. */
  unbilled: query<UnbilledJob[]>('read-jobs')('/unbilled', { query: dated }),
  /** `show`: what is charged or waits, or all other cost of the job. */
  jobCharging: query<JobCharging>('read-books')('/jobs/:job/charging', {
    query: v.strictObject({ ...dated.entries, show: v.optional(v.picklist(['unbilled', 'others']), 'unbilled') }),
  }),
  markEntries: command<{ marked: number }>('post-costs')('/jobs/:job/marks', { input: marksInput }),
  saveMarkups: command('post-costs')('/jobs/:job/markups', { method: 'PUT', input: markupsInput }),
  previewRun: preview<RunPreview>('certify')('/daywork/preview', { input: runInput }),
  issueRun: command<{ invoices: { job: string; reference: string; payable: number }[] }>('certify')('/daywork', {
    input: issueInput,
  }),
  dayworkInvoice: query<DayworkView>('read-jobs')(daywork, { query: dated }),
  dayworkInvoicePdf: download('read-jobs')(`${daywork}/print`),
  issueDaywork: command('certify')(`${daywork}/issue`),
  deleteDaywork: command('certify')(daywork, { method: 'DELETE' }),
  creditDaywork: command<{ postingId: number }>('certify')(`${daywork}/credits`, { input: creditInput }),
};
