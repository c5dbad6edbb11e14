import { labourProgress, type LabourProgress } from '../../core/forecast/labourProgress';
import { isFinished } from '../../core/progress/workInProgress';
import type { Reader } from '../db/sql';
import type { JobIdentity } from '../jobs/jobByNumber';
import { estimatedLines, type EstimatedLine } from '../costs/estimatedLines';

/** A labour line of a job, with how far it is in hours. */
export type LabourTask = EstimatedLine & { finished: boolean; progress: LabourProgress };

/** Every labour line of estimate versus actual, in its order. */
export async function labourTasks(sql: Reader, job: JobIdentity, asOf: string): Promise<LabourTask[]> {
  const finished = isFinished(job.finished_on, asOf);
  return (await estimatedLines(sql, job, asOf))
    .filter((it) => it.costType === 'labour')
    .map((it) => ({ ...it, finished, progress: labourProgress(it.state, finished) }));
}
