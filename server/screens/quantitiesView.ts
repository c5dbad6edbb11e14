import type { LineQuantitiesRow } from '../../wire/jobs';
import { quantityLines } from '../costs/lineQuantities';
import type { Reader } from '../db/sql';
import { jobByNumber } from '../jobs/jobByNumber';

/** The cost lines of a job by quantity. */
export async function quantitiesView(sql: Reader, job: string, asOf: string): Promise<LineQuantitiesRow[]> {
  const lines = await quantityLines(sql, await jobByNumber(sql, job, 'job'), asOf);
  return lines.map(({ id, section, costCode, description, costType, quantities }) => ({
    id,
    section,
    costCode,
    description,
    costType,
    ...quantities,
  }));
}
