import { grouped } from '../../core/lists/grouped';
import { isWanted, JOB_GROUPS, type JobGroup } from '../../core/jobs/jobGroups';
import { ClientTable, DepartmentTable, JobKindTable } from '../company/models';
import { inSchedule, loadPositions, type LoadedPosition } from '../costs/jobPositions';
import type { Reader } from '../db/sql';
import { jobByNumber } from '../jobs/jobByNumber';
import type { Report, ReportColumn, ReportRequest, ReportRow } from '../reportFiles/report';

/** The jobs of a report over jobs: those in the schedule, or one; narrowed and in groups as asked. */
export async function reportedJobs(sql: Reader, request: ReportRequest): Promise<LoadedPosition[]> {
  const jobId = request.job === undefined ? null : (await jobByNumber(sql, request.job, 'contract')).id;
  const jobs = (await loadPositions(sql, request.asOf, jobId)).filter((job) => inSchedule(job, request.asOf));
  const { by } = request;
  const wanted = jobs.filter((job) => isWanted(job, request));
  return by === undefined ? wanted : inGroups(wanted, (job) => job[by]);
}

/** Rows by their groups, those of none last; within a group as they were. */
export function inGroups<Row>(rows: readonly Row[], of: (row: Row) => string): Row[] {
  const groups = [...grouped(rows, of)].sort(([a], [b]) => Number(a === '') - Number(b === '') || (a < b ? -1 : 1));
  return groups.flatMap(([, own]) => own);
}

/** The column in which the rows of a grouped report say what they are of. */
export function groupColumn({ by }: ReportRequest): ReportColumn[] {
  return by === undefined ? [] : [{ key: 'group', title: JOB_GROUPS[by].title, kind: 'text' }];
}

/** What a job is of, as the cell of that column; nothing where the report is not grouped. */
export function groupCell({ by }: ReportRequest, job: Record<JobGroup, string>): { group?: string } {
  return by === undefined ? {} : { group: job[by] };
}

/** The groups of a report with their names, and what each comes to. */
export async function groupsOf<Row>(
  sql: Reader,
  { by }: ReportRequest,
  rows: readonly Row[],
  of: (row: Row) => string | undefined,
  total: (rows: readonly Row[]) => ReportRow,
): Promise<Pick<Report, 'groups'>> {
  if (by === undefined) return {};
  const called = await namesOf(sql, by);
  const own = [...grouped(rows, (row) => of(row) ?? '')];
  const nameOf = (code: string) => (code === '' ? JOB_GROUPS[by].none : [code, called.get(code)].filter(Boolean).join(' '));
  return {
    groups: {
      by: 'group',
      names: new Map(own.map(([code]) => [code, nameOf(code)])),
      totals: new Map(own.map(([code, of]) => [code, total(of)])),
    },
  };
}

async function namesOf(sql: Reader, by: JobGroup): Promise<ReadonlyMap<string, string>> {
  if (by === 'department') return new Map((await sql.find(DepartmentTable, {})).map((it) => [it.code, it.name]));
  if (by === 'kind') return new Map((await sql.find(JobKindTable, {})).map((it) => [it.code, it.name]));
  return by === 'client' ? new Map((await sql.find(ClientTable, {})).map((it) => [it.code, it.name])) : new Map();
}
