/** A task hours are on: a job, its section and cost code. */
export interface Task {
  job: string;
  section: string;
  costCode: string;
}

/** A row of a week sheet as far as it is typed; empty where it is not. */
export interface RowOfTask extends Task {
  employee: string;
}

/** What is known of the people of a week sheet. */
export interface WorkedBefore {
  /** Tasks of the last weeks by employee, the newest first. */
  tasks: ReadonlyMap<string, readonly Task[]>;
  /** Jobs whose team an employee is on. */
  teams: ReadonlyMap<string, readonly string[]>;
}

/** How far back what somebody worked on says what they work on now. */
export const WEEKS_BEFORE = 4;

/** Jobs that are likely for a row, the likeliest first: those of the employee's last weeks, then those of their teams. */
export function likelyJobs({ employee }: RowOfTask, { tasks, teams }: WorkedBefore): string[] {
  return [...new Set([...(tasks.get(employee) ?? []).map((it) => it.job), ...(teams.get(employee) ?? [])])];
}

/**
 * What a row of a week sheet is likely of, as far as it is typed. A task of the employee's last weeks that no other row of theirs has: of
 * the job of the row above, where they worked there too. Without one, the job of the row above, or the only one whose team they are on.
 * `rows`: those of the sheet; `at`: the place of the row among them, after the last for a new one. Null: nothing is likely.
 */
export function likelyTask(rows: readonly RowOfTask[], at: number, before: WorkedBefore): Partial<Task> | null {
  const row = rows[at] ?? { employee: '', job: '', section: '', costCode: '' };
  const above = rows[at - 1];
  const worked = before.tasks.get(row.employee) ?? [];
  const taken = new Set(
    worked.length === 0 ? [] : rows.flatMap((it, i) => (i !== at && it.employee === row.employee ? [keyOf(it)] : [])),
  );
  const own = worked.filter((it) => !taken.has(keyOf(it)) && agrees(it, row));
  const found = own.find((it) => it.job === above?.job) ?? own[0];
  if (found) return found;
  const teams = before.teams.get(row.employee) ?? [];
  const job = row.job || above?.job || (teams.length === 1 ? teams[0] : '') || '';
  if (job === '') return null;
  // On the same job, the work of the row above is as likely as any.
  return above?.job === job && agrees(above, row) ? { job, section: above.section, costCode: above.costCode } : { job };
}

const keyOf = ({ job, section, costCode }: Task) => JSON.stringify([job, section, costCode]);

/** Whether a task says nothing else than what is typed. */
const agrees = (task: Task, row: Task) =>
  (['job', 'section', 'costCode'] as const).every((key) => row[key] === '' || row[key] === task[key]);
