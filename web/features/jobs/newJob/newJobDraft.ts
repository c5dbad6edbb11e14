/** What the draft of a new job, and that of a new tender, is known by in this browser. */
export const NEW_JOB = 'new-job';
export const NEW_TENDER = 'new-tender';
