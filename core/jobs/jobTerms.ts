import { refuse, type Refusal } from '../refusals/refusal';

/** What is agreed of a job beside its money: dates and retention, as entered. */
export interface JobTerms {
  awardedOn: string | null;
  startsOn: string | null;
  finishesOn: string | null;
  defectsEnd: string | null;
  retention: { rate: number; stepAt: number | null; stepTo: number | null };
  noRetention: boolean;
}

/** What cannot stand together in the terms of a job; asked by forms, commands and the book alike. */
export function termsRefusals({ awardedOn, startsOn, finishesOn, defectsEnd, retention, noRetention }: JobTerms): Refusal[] {
  const refusals: Refusal[] = [];
  if (startsOn && finishesOn && finishesOn < startsOn)
    refusals.push(refuse('finish-before-start', 'finishesOn', { start: startsOn, finish: finishesOn }));
  const begun = finishesOn ?? startsOn ?? awardedOn;
  if (defectsEnd && begun && defectsEnd < begun)
    refusals.push(refuse('defects-before-finish', 'defectsEnd', { end: defectsEnd, after: begun }));
  const { stepAt, stepTo, rate } = retention;
  if ((stepAt === null) !== (stepTo === null)) refusals.push(refuse('step-half', stepAt === null ? 'stepAt' : 'stepTo', {}));
  if (noRetention && rate > 0) refusals.push(refuse('no-retention-with-rate', 'noRetention', {}));
  return refusals;
}

/** Where the parts of the retention rule stand in an input. */
export const RETENTION_FIELDS = { stepAt: 'retention.stepAt', stepTo: 'retention.stepTo' };
