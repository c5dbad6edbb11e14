/** The life of a job, in order. A tender has no contract yet. */
export const JOB_STATUSES = ['tender', 'awarded', 'on-site', 'closing-out', 'closed'] as const;
/** How a job may end before it begins: the tender is lost or withdrawn, the award is cancelled. Such a job is in no report. */
export const JOB_ENDS = ['lost', 'withdrawn', 'cancelled'] as const;
export const ALL_JOB_STATUSES = [...JOB_STATUSES, ...JOB_ENDS] as const;
export type JobStatus = (typeof ALL_JOB_STATUSES)[number];
export type JobEnd = (typeof JOB_ENDS)[number];

/** Statuses of jobs with a contract that stands. */
export const WITH_CONTRACT: readonly JobStatus[] = ['awarded', 'on-site', 'closing-out', 'closed'];

export function isEnded(status: string): status is JobEnd {
  return (JOB_ENDS as readonly string[]).includes(status);
}

export function hasContract(status: string): boolean {
  return (WITH_CONTRACT as readonly string[]).includes(status);
}

/** What a job of a status may become: on along its life, or to an end; what ended may be taken up again where it was. */
export function movesOn(status: string): readonly JobStatus[] {
  if (status === 'lost' || status === 'withdrawn') return ['tender'];
  if (status === 'cancelled') return ['awarded'];
  const along = JOB_STATUSES.slice((JOB_STATUSES as readonly string[]).indexOf(status) + 1);
  if (status === 'tender') return [...along, 'lost', 'withdrawn'];
  return status === 'awarded' ? [...along, 'cancelled'] : along;
}

/** Whether a job needs the day of its award. */
export function needsAward(status: string): boolean {
  return hasContract(status) || status === 'cancelled';
}
