import type { WaitingName } from '../core/waiting/waiting';
import { query } from './call';

/** A document that waits for whoever asks. */
export interface WaitingRow {
  kind: WaitingName;
  job: string;
  jobName: string;
  document: string;
  /** What it is about, where its number does not say it. */
  about?: string;
  /** The day it waits since. */
  since: string;
}

export const waitingCalls = { waiting: query<WaitingRow[]>('read-jobs')('/waiting') };
