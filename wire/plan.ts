import * as v from 'valibot';
import { costType, filled, list, optionalDate, plainDate, seen, text } from './fields';
import { command, dated, query } from './call';

/** The sections of a job with their dates, whole; and the cost lines that have dates of their own. */
export const planInput = v.strictObject({
  seen,
  sections: list(
    v.strictObject({
      name: filled(80),
      startsOn: optionalDate,
      finishesOn: optionalDate,
      /** The days it really began and was finished. */
      startedOn: optionalDate,
      finishedOn: optionalDate,
    }),
    500,
    'sections',
  ),
  lines: list(
    v.strictObject({ section: text(80), costCode: filled(40), costType, startsOn: plainDate, finishesOn: plainDate }),
    5000,
    'lines',
  ),
});
export type PlanInput = v.InferOutput<typeof planInput>;

/** A section with what stands on it by the date. */
export interface SectionView {
  name: string;
  startsOn: string | null;
  finishesOn: string | null;
  startedOn: string | null;
  finishedOn: string | null;
  scheduled: number;
  billed: number;
  revised: number;
  actual: number;
  estimate: number;
}

export interface PlanView {
  /** Digest of sections and lines, for a change of them. */
  seen: string;
  jobStartsOn: string | null;
  jobFinishesOn: string | null;
  sections: SectionView[];
  lines: PlanInput['lines'];
  /** To date by the end of each month; actual figures only up to the date of the page. */
  months: { month: string; plannedCost: number; plannedBilling: number; cost: number | null; billed: number | null }[];
  unplannedCost: number;
  unplannedBilling: number;
}

export const planCalls = {
  plan: query<PlanView>('read-jobs')('/jobs/:job/plan', { query: dated }),
  savePlan: command('manage-jobs')('/jobs/:job/plan', { method: 'PUT', input: planInput }),
};
