import type { LineQuantities } from '../core/forecast/quantities';
import type { ContractStatus } from '../core/progress/contractStatus';
import type { Pricing } from '../core/charging/pricing';
import type { Place } from '../core/places/place';
import * as v from 'valibot';
import type { LineKey } from '../core/forecast/lineFigures';
import { REVENUE_METHODS } from '../core/progress/workInProgress';
import { checklistInput, listFacts, lockInput, restrictInput, peopleInput, pricingFields } from './jobFile';
import type { HoldingPart } from '../core/jobs/jobParts';
import type { ListFacts } from '../core/jobs/listFacts';
import { ALL_JOB_STATUSES } from '../core/jobs/jobStatus';
import { cents, costType, days, filled, list, optionalDate, quantity, rate, seen, text, retentionTerms } from './fields';
import { command, dated, query, upload } from './call';

const sovLineInput = v.strictObject({
  line: filled(40),
  section: text(80),
  description: filled(400),
  scheduledValue: cents,
  quantity: v.nullable(quantity),
  unit: text(20),
  retentionRate: v.nullable(rate),
});
const budgetLineInput = v.strictObject({
  section: text(80),
  costCode: filled(40),
  costType,
  sovLine: text(40),
  description: text(400),
  quantity: v.nullable(quantity),
  unit: text(20),
  hours: v.nullable(quantity),
  amount: cents,
});

/** A new job, whole: facts, schedule of values, budget. */
export const jobInput = v.strictObject({
  number: filled(40),
  name: filled(),
  client: filled(40),
  contractReference: text(),
  status: v.picklist(['tender', 'awarded', 'on-site'], 'expected tender, awarded or on-site'),
  awardedOn: optionalDate,
  startsOn: optionalDate,
  finishesOn: optionalDate,
  manager: text(),
  site: text(400),
  revenueMethod: v.picklist(REVENUE_METHODS, `expected one of ${REVENUE_METHODS.join(', ')}`),
  ...pricingFields,
  contractSum: cents,
  retention: retentionTerms,
  taxRate: rate,
  termsDays: v.nullable(days),
  ...listFacts,
  /** What payroll calls its regular hours; empty: as of any job. */
  payCode: v.optional(text(40), ''),
  sov: list(sovLineInput, 5000, 'lines'),
  budget: list(budgetLineInput, 20000, 'lines'),
  /** Team and checklist, where they were copied from another job or a template. */
  people: v.optional(peopleInput.entries.people, []),
  checklist: v.optional(checklistInput.entries.items, []),
  /** The draft this job was made from, to be removed with it. */
  draftId: v.nullable(v.pipe(v.number('expected the number of a draft'), v.safeInteger('expected the number of a draft'))),
});
export type JobInput = v.InferInput<typeof jobInput>;

/** What a new job may be begun from. */
export type JobSetup = Pick<JobInput, 'sov' | 'budget' | 'retention' | 'taxRate' | 'termsDays' | 'revenueMethod'> &
  Required<Pick<JobInput, 'people' | 'checklist'>> & {
    /** Of schedule and budget as they are. */
    seen: string;
    /** Why schedule and budget cannot be corrected any more; null where they can. */
    frozen: string | null;
  };

/** What a new job begins with: as the last job of its client, and as its kind has it, which wins. Empty: nothing is known of it. */
export interface JobBeginning extends Pick<JobInput, 'retention' | 'taxRate' | 'termsDays' | 'revenueMethod' | 'checklist'> {
  department: string;
  workKind: string;
  payCode: string;
  /** The client's last job, that it is taken from; null where the client has none that whoever asks may see. */
  last: { number: string; name: string } | null;
  /** The name of the kind of job, where one was asked for. */
  kind: string | null;
}

/** The original schedule and budget as they should have been. */
export const setupCorrection = v.strictObject({
  seen,
  reason: filled(400),
  contractSum: cents,
  sov: list(sovLineInput, 5000, 'lines'),
  budget: list(budgetLineInput, 20000, 'lines'),
});
export type SetupCorrection = v.InferOutput<typeof setupCorrection>;

const asTyped = v.record(v.string('expected text'), v.string('expected text'));
/** A job as it stands on the page, cell by cell: saved as typed, not judged. */
export const typedJob = v.strictObject({
  facts: asTyped,
  sov: list(asTyped, 5000, 'lines'),
  budget: list(asTyped, 20000, 'lines'),
  people: v.optional(peopleInput.entries.people),
  checklist: v.optional(checklistInput.entries.items),
});
export const jobTemplateInput = v.strictObject({ name: filled(80), content: typedJob });
export type JobTemplate = v.InferOutput<typeof jobTemplateInput>;

/** A draft of a job, as typed. None is added any more: they stay in the browser they are typed in. */
export interface JobDraft {
  id: number;
  content: Record<string, unknown>;
  savedAt: string;
}

export const jobStatusInput = v.strictObject({
  status: v.picklist(ALL_JOB_STATUSES, `expected one of ${ALL_JOB_STATUSES.join(', ')}`),
  on: optionalDate,
  /** Why it ends before it begins, or is taken up again. */
  reason: v.optional(text(400), ''),
});
export type JobMoveInput = v.InferOutput<typeof jobStatusInput>;

/** A job's figures as of a date; amounts in minor units, rates in millionths. */
export interface JobFigures {
  contractSum: number;
  estimate: number;
  estimatedProfit: number;
  margin: number;
  cost: number;
  toComplete: number;
  uninstalled: number;
  complete: number;
  earned: number;
  profitToDate: number;
  billed: number;
  overbilled: number;
  underbilled: number;
  backlog: number;
  lossProvision: number;
  /** Of cost and estimate, what is charged besides: the share complete of several jobs is worked without it. */
  dayworkCost: number;
  received: number;
  pendingChanges: number;
}

export interface JobListRow extends JobFigures, Pick<ListFacts, 'kind' | 'department'> {
  number: string;
  name: string;
  client: string;
  clientName: string;
  manager: string;
  status: string;
  locked: boolean;
  /** Takes costs and documents from its team alone. */
  restricted: boolean;
  /** In the work-in-progress schedule on the date; a job awarded later has a contract but no progress yet. */
  inSchedule: boolean;
}

/** What a job stood at by the end of the month before. */
export type JobBefore = Pick<JobFigures, 'contractSum' | 'estimate' | 'earned' | 'billed' | 'received' | 'cost'>;

/** A job of the list, and what it stood at by the end of the month before; null where it was not in the schedule then. */
export interface ListedJob extends JobListRow {
  before: JobBefore | null;
}

export interface JobList {
  jobs: ListedJob[];
  totals: JobFigures;
  drafts: JobDraft[];
}

/** Something that waits to be done on a job, and the door to it. */
export interface NextStep {
  text: string;
  to: Place;
}

export interface SovLineView {
  line: string;
  section: string;
  description: string;
  scheduledValue: number;
  changes: number;
  scheduledToDate: number;
  billed: number;
  retention: number;
  retentionRate: number | null;
}

export interface JobView extends ListedJob {
  /** Its parts that hold something: the others stand aside. */
  holds: HoldingPart[];
  contractReference: string;
  site: string;
  awardedOn: string | null;
  startsOn: string | null;
  finishesOn: string | null;
  finishedOn: string | null;
  revenueMethod: string;
  pricing: Pricing;
  /** Of a charged job that has one. */
  ceiling: number | null;
  taxRate: number;
  termsDays: number | null;
  /** What its client has where the job has none of its own; null: neither has. */
  clientTermsDays: number | null;
  retentionRule: {
    rate: number;
    materialsRate: number | null;
    step: { at: number; to: number; applies: 'all' | 'further' } | null;
    cap: number | null;
  };
  retentionHeld: number;
  open: number;
  overdue: number;
  sov: SovLineView[];
  changeOrders: {
    number: string;
    title: string;
    status: string;
    raisedOn: string;
    decidedOn: string | null;
    price: number;
    cost: number;
  }[];
  nextSteps: NextStep[];
  /** Cost and billing to the end of each month, for the curve; every value to date. */
  months: { month: string; cost: number; billed: number; budget: number }[];
}

/** A cost line with its names; its figures are those of core/forecast/lineFigures.ts. */
export interface EstimateLine extends Record<LineKey, number> {
  id: number;
  section: string;
  costCode: string;
  description: string;
  costType: string;
  budgeted: boolean;
  basis: string;
  serves: string[];
}

export interface EstimateView {
  lines: EstimateLine[];
  /** Revenue beside cost: each SOV line with what its budget lines cost. */
  revenue: {
    line: string;
    description: string;
    scheduled: number;
    billed: number;
    revised: number;
    actual: number;
    estimate: number;
  }[];
  /** Behind no SOV line: what no budget or change order gives one. */
  unserved: { revised: number; actual: number; estimate: number };
}

/** A cost line by quantity. */
export interface LineQuantitiesRow extends LineQuantities {
  id: number;
  section: string;
  costCode: string;
  description: string;
  costType: string;
}

/** The contract status of a job at the end of a month, or on the day that is looked at. */
export interface StatusOfMonth extends ContractStatus {
  on: string;
}

export const jobCalls = {
  jobList: query<JobList>('read-jobs')('/jobs', { query: dated }),
  job: query<JobView>('read-jobs')('/jobs/:job', { query: dated }),
  estimateVersusActual: query<EstimateView>('read-jobs')('/jobs/:job/estimate-versus-actual', {
    query: dated,
    part: 'report:estimate-vs-actual',
  }),
  /** From the month of the award on, the newest first. */
  contractStatus: query<StatusOfMonth[]>('read-jobs')('/jobs/:job/contract-status', {
    query: dated,
    part: 'report:contract-status',
  }),
  lineQuantities: query<LineQuantitiesRow[]>('read-jobs')('/jobs/:job/quantities', { query: dated, part: 'report:quantities' }),
  createJob: command<{ number: string }>('manage-jobs')('/jobs', { input: jobInput }),
  moveJob: command('move-jobs')('/jobs/:job/status', { input: jobStatusInput }),
  restrictJob: command('move-jobs')('/jobs/:job/restriction', { input: restrictInput }),
  /** Says that a tender is lost or withdrawn, or takes it up again. */
  endTender: command('estimate')('/jobs/:job/end', { input: jobStatusInput }),
  lockJob: command('move-jobs')('/jobs/:job/lock', { input: lockInput }),
  deleteJob: command('manage-jobs')('/jobs/:job', { method: 'DELETE' }),
  jobSetup: query<JobSetup>('read-jobs')('/jobs/:job/setup'),
  correctSetup: command('manage-jobs')('/jobs/:job/setup', { method: 'PUT', input: setupCorrection }),
  jobBeginning: query<JobBeginning>('manage-jobs')('/job-beginning', {
    query: v.strictObject({ client: text(40), kind: text(40) }),
  }),
  jobTemplates: query<JobTemplate[]>('read-jobs')('/job-templates'),
  saveJobTemplate: command('manage-jobs')('/job-templates', { method: 'PUT', input: jobTemplateInput }),
  removeJobTemplate: command('manage-jobs')('/job-templates/:name', { method: 'DELETE' }),
  deleteDraft: command('manage-jobs')('/drafts/:id', { method: 'DELETE' }),
  /** A sheet as rows of text, to be matched with columns; nothing is saved. */
  readSheet: upload<string[][]>('signed-in')('/sheets', { quiet: true }),
};
