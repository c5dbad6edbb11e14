/** Facts that name a row of one of the company's lists by its code; empty where a job is of none. */
export const LIST_FACTS = {
  kind: { column: 'job_kind_id', title: 'Kind of job', one: 'kind of job' },
  department: { column: 'department_id', title: 'Department', one: 'department' },
  workKind: { column: 'work_kind_id', title: 'Kind of work', one: 'kind of work' },
} as const;

export type ListFact = keyof typeof LIST_FACTS;
export type ListFacts = Record<ListFact, string>;
export const LIST_FACT_NAMES = Object.keys(LIST_FACTS) as ListFact[];
