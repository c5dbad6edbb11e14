import type { JobStatus } from './jobStatus';

/** What a job is given in the course of its life. */
export type Given = 'cost' | 'time' | 'bills';

/** The statuses in which a job takes it. A tender takes cost and time, and no bills; closing out, a job still takes all three. */
const TAKEN: Readonly<Record<Given, readonly JobStatus[]>> = {
  cost: ['tender', 'awarded', 'on-site', 'closing-out'],
  time: ['tender', 'awarded', 'on-site', 'closing-out'],
  bills: ['awarded', 'on-site', 'closing-out'],
};

const WORDS: Readonly<Record<Given, string>> = { cost: 'takes no cost', time: 'takes no time', bills: 'is not billed' };

/** A job as far as that goes. */
export interface TakingJob {
  status: string;
  locked: boolean;
}

/** Why a job takes no more of something, as the end of a sentence about it; null where it does. */
export function whyNotTaken({ status, locked }: TakingJob, what: Given): string | null {
  if (locked) return 'is locked';
  if ((TAKEN[what] as readonly string[]).includes(status)) return null;
  return status === 'tender' ? `is a tender; a tender ${WORDS[what]}` : `is ${status}; it ${WORDS[what]}`;
}

export function takes(job: TakingJob, what: Given): boolean {
  return whyNotTaken(job, what) === null;
}
