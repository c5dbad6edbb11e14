import type { LabourProgress } from '../core/forecast/labourProgress';
import type { HoursAUnit, Installed } from '../core/labour/productivity';
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
  /** Its hours are used up and nobody has said what is done: shares done and hours to finish are not known. */
  doneUnknown: boolean;
  /** What is to be installed, by the budget or the estimate it came from; null where they do not say, or in several units. */
  quantity: number | null;
  unit: string;
  perUnit: HoursAUnit;
  /** By day sheets up to the date, in the unit of the task. */
  installed: Installed | null;
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

/** Hours of an employee in a week on a job, or on none: in ten-thousandths. */
export interface WorkedRow {
  employee: string;
  name: string;
  /** Of the weeks shown, from 0. */
  week: number;
  /** Empty: without a job. */
  job: string;
  hours: number;
  /** Of them posted as overtime or double. */
  overtime: number;
  /** Of them not posted yet. */
  open: number;
}

export interface PeopleAtWork {
  /** First days of the weeks. */
  weeks: string[];
  rows: WorkedRow[];
  /** By sheets that are not posted. */
  ahead: {
    name: string;
    job: string;
    jobName: string;
    section: string;
    first: string;
    last: string;
    hours: number;
    sheets: string;
  }[];
}

/** What a task of a finished job was to take, and took: hours in ten-thousandths. */
export interface AchievedTask {
  job: string;
  jobName: string;
  section: string;
  quantity: number;
  planned: number;
  used: number;
  perUnit: HoursAUnit;
}

/** The same of a cost code in a unit, with its tasks. */
export interface AchievedCode extends Omit<AchievedTask, 'job' | 'jobName' | 'section'> {
  costCode: string;
  description: string;
  unit: string;
  tasks: AchievedTask[];
}

const part = 'report:labour-progress';
export const labourCalls = {
  /** Of jobs that are finished by the day. */
  achievedHours: query<{ codes: AchievedCode[] }>('read-tenders')('/achieved-hours', { query: dated }),
  peopleAtWork: query<PeopleAtWork>('approve-time')('/people-at-work', { query: dated }),
  labourOfJob: query<LabourView>('read-jobs')('/jobs/:job/hours', { query: dated, part }),
  /** Of jobs that are awarded or on site. */
  labourByCode: query<{ codes: LabourCodeRow[]; total: LabourProgress }>('read-jobs')('/hours', { query: dated, part }),
};
