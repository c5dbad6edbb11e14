import type { Reader } from '../db/sql';
import type { JobIdentity } from '../jobs/jobByNumber';
import { installedBy, type Installed } from '../../core/labour/productivity';
import { ON_DAY_SHEETS, TASK_QUANTITIES } from './queries';

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

/** What day sheets say was installed of a task up to a day, beside the hours on the same sheets. */
export async function installedOn(
  sql: Reader,
  job: JobIdentity,
  asOf: string,
): Promise<(task: { section: string; costCode: string; unit: string }) => Installed | null> {
  const rows = await sql.all(ON_DAY_SHEETS, [job.id, asOf]);
  return ({ section, costCode, unit }) => {
    const of = rows.filter((it) => it.section === section && it.costCode === costCode);
    const sum = (value: (it: (typeof rows)[number]) => number) => of.reduce((total, it) => total + value(it), 0);
    return installedBy(
      sum((it) => it.hours),
      sum((it) => (it.unit === unit ? it.quantity : 0)),
    );
  };
}
