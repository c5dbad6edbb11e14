import * as v from 'valibot';
import type { CostType } from '../core/costs/costType';
import type { RetentionRule } from '../core/billing/retention';
import { DUE_AT, type StageDates } from '../core/instalments/instalment';
import type { TakenLine } from '../core/instalments/valueInstalments';
import { MAX_INSTALMENTS, type AgreedPayment } from '../core/instalments/proposedInstalments';
import { cents, filled, list, optionalDate, rate, seen } from './fields';
import { command, dated, query } from './call';

export const instalmentInput = v.strictObject({
  name: filled(),
  /** Names of sections; none: the job as a whole. */
  stages: list(filled(80), 500, 'stages'),
  due: v.picklist(DUE_AT, `expected one of ${DUE_AT.join(', ')}`),
  day: optionalDate,
  days: v.pipe(
    v.number('expected a number of days'),
    v.integer('expected whole days'),
    v.minValue(-3650, 'expected -3650 to 3650 days'),
    v.maxValue(3650, 'expected -3650 to 3650 days'),
  ),
  from: v.picklist(['stages', 'job'], 'expected one of stages, job'),
  rate: v.nullable(rate),
  amount: v.nullable(cents),
});

/** A fixed billing schedule, whole; no instalments: the job is billed without one. */
export const instalmentsInput = v.strictObject({
  seen,
  instalments: list(instalmentInput, MAX_INSTALMENTS, 'instalments'),
});
export type InstalmentsInput = v.InferOutput<typeof instalmentsInput>;

/** A stage: a section with its days, and its revised budget by cost type. */
export interface StageView extends StageDates {
  name: string;
  costs: Partial<Record<CostType, number>>;
}

/** The fixed billing schedule of a job with all that it is valued and previewed by. */
export interface BillingScheduleView extends InstalmentsInput {
  savedBy: string | null;
  savedAt: string | null;
  job: StageDates;
  stages: StageView[];
  /** Every line with what is approved. */
  lines: (TakenLine & { retentionRate: number | null })[];
  retentionRule: RetentionRule;
  termsDays: number;
  /** The day retention is released, the end of defects liability; null where none is agreed. */
  retentionOn: string | null;
  /** Planned cost by month, not to date. */
  costs: { month: string; amount: number }[];
  /** The agreed payments of the accepted quotation. */
  payments: AgreedPayment[];
  /** What fell due by the date, with the contract of the date. */
  due: number;
  /** Gross to date of the last application by the date. */
  billed: number;
  /** Why nothing can be saved; null where it can. */
  closed: string | null;
}

export const instalmentCalls = {
  billingSchedule: query<BillingScheduleView>('read-jobs')('/jobs/:job/billing-schedule', { query: dated }),
  saveBillingSchedule: command('schedule-billing')('/jobs/:job/billing-schedule', { method: 'PUT', input: instalmentsInput }),
};
