/** The life of a job, in order. A tender has no contract yet. */
export const JOB_STATUSES = ['tender', 'awarded', 'on-site', 'closing-out', 'closed'] as const;
export type JobStatus = (typeof JOB_STATUSES)[number];
