/** What reports over jobs can be grouped and narrowed by, and what it is called. */
export const JOB_GROUPS = {
  department: { title: 'Department', none: 'No department' },
  kind: { title: 'Kind of job', none: 'No kind' },
  client: { title: 'Client', none: 'No client' },
  manager: { title: 'Manager', none: 'No manager' },
} as const;

export type JobGroup = keyof typeof JOB_GROUPS;
export const JOB_GROUP_NAMES = Object.keys(JOB_GROUPS) as [JobGroup, ...JobGroup[]];

/** What jobs are narrowed to, by group; a group left out is not narrowed. */
export type JobsWanted = Partial<Record<'department' | 'kind', string>>;

/** Whether a job is among those wanted. */
export function isWanted(job: Record<'department' | 'kind', string>, { department, kind }: JobsWanted): boolean {
  return (department === undefined || job.department === department) && (kind === undefined || job.kind === kind);
}

/** The department an hour counts in: that of its job; of overhead, which has no job, the line's own, or else that of whoever worked it. */
export function departmentOfHour(it: {
  job: string;
  lineDepartment: string;
  jobDepartment: string;
  employeeDepartment: string;
}): string {
  return it.job === '' ? it.lineDepartment || it.employeeDepartment : it.jobDepartment;
}
