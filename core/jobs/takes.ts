import { refuse, type Refusal } from '../refusals/refusal';
import type { JobStatus } from './jobStatus';

/** What a job is given in the course of its life. */
export type Given = 'cost' | 'time' | 'daySheets' | 'bills' | 'receipts' | 'changes' | 'transfers' | 'forecasts';

/**
 * The statuses in which a job takes it. A tender takes cost and time, and has nothing else yet; closing out, a job takes final cost and
 * bills, and its contract and budget stay as they are; closed, it is still paid.
 */
const TAKEN: Readonly<Record<Given, readonly JobStatus[]>> = {
  cost: ['tender', 'awarded', 'on-site', 'closing-out'],
  time: ['tender', 'awarded', 'on-site', 'closing-out'],
  daySheets: ['awarded', 'on-site', 'closing-out'],
  bills: ['awarded', 'on-site', 'closing-out'],
  receipts: ['awarded', 'on-site', 'closing-out', 'closed'],
  changes: ['awarded', 'on-site'],
  transfers: ['awarded', 'on-site'],
  forecasts: ['awarded', 'on-site', 'closing-out'],
};

const WORDS: Readonly<Record<Given, string>> = {
  cost: 'takes no cost',
  time: 'takes no time',
  daySheets: 'takes no day sheets',
  bills: 'is not billed',
  receipts: 'has nothing to be paid',
  changes: 'takes no change orders',
  transfers: 'keeps its budget as it is',
  forecasts: 'is not forecast',
};

/** A job as far as that goes. `locked`: as a flag of the database, or true. */
export interface TakingJob {
  status: string;
  locked: boolean | number;
}

/** Why a job takes no more of something, as the end of a sentence about it; null where it does. */
export function whyNotTaken({ status, locked }: TakingJob, what: Given): string | null {
  if (locked) return 'is locked; nothing posts to it until it is unlocked';
  if ((TAKEN[what] as readonly string[]).includes(status)) return null;
  return status === 'tender' ? `is a tender; a tender ${WORDS[what]}` : `is ${status.replaceAll('-', ' ')}; it ${WORDS[what]}`;
}

/** The same as a refusal at a field of the input, `job` unless it is named. */
export function takesRefusal(job: TakingJob & { number: string }, what: Given, at = 'job'): Refusal | null {
  const why = whyNotTaken(job, what);
  return why === null ? null : refuse('job-takes-none', at, { job: job.number, why });
}

/** The statuses of jobs that take it. */
export const statusesTaking = (what: Given): readonly JobStatus[] => TAKEN[what];

export function takes(job: TakingJob, what: Given): boolean {
  return whyNotTaken(job, what) === null;
}
