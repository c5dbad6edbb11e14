import type { LabourProgress } from '../core/forecast/labourProgress';
import { dated, query } from './call';

/** A task of a job: a section and a cost code of its labour. */
export interface LabourTaskRow extends LabourProgress {
  /** Cost line id. */
  id: number;
  job: string;
  jobName: string;
  section: string;
  costCode: string;
  description: string;
  /** Has a budget or an approved change. */
  inBudget: boolean;
}

export interface LabourView {
  tasks: LabourTaskRow[];
  total: LabourProgress;
}

/** A cost code over all running jobs, with its tasks. */
export interface LabourCodeRow extends LabourProgress {
  costCode: string;
  description: string;
  tasks: LabourTaskRow[];
}

const part = 'report:labour-progress';
export const labourCalls = {
  labourOfJob: query<LabourView>('read-jobs')('/jobs/:job/hours', { query: dated, part }),
  /** Of jobs that are awarded or on site. */
  labourByCode: query<{ codes: LabourCodeRow[]; total: LabourProgress }>('read-jobs')('/hours', { query: dated, part }),
};
