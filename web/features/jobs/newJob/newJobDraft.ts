/** What the draft of a new job is known by in this browser. */
export const NEW_JOB = 'new-job';
