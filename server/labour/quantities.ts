import type { Reader } from '../db/sql';
import type { JobIdentity } from '../jobs/jobByNumber';
import { TASK_QUANTITIES } from './queries';

export interface TaskQuantity {
  /** Null where the budget does not say it, or in several units. */
  quantity: number | null;
  unit: string;
}
const NONE: TaskQuantity = { quantity: null, unit: '' };

/** What the tasks of a job are to install, by cost line. */
export async function quantitiesOf(sql: Reader, job: JobIdentity): Promise<(costLine: number) => TaskQuantity> {
  const rows = await sql.all(TASK_QUANTITIES, [job.id]);
  const found = new Map(rows.map(({ id, quantity, unit, otherUnit }) => [id, unit === otherUnit ? { quantity, unit } : NONE]));
  return (costLine) => found.get(costLine) ?? NONE;
}
