import { lastDay, monthsFrom, periodOf } from '../../core/calendar/plainDate';
import { present } from '../../core/errors/known';
import { contractStatus } from '../../core/progress/contractStatus';
import type { StatusOfMonth } from '../../wire/jobs';
import { loadPositions } from '../costs/jobPositions';
import type { Reader } from '../db/sql';
import { jobByNumber } from '../jobs/jobByNumber';

/** The contract status of a job at each month end since its award, the last as of the date; the newest first. */
export async function statusByMonth(sql: Reader, job: string, asOf: string): Promise<StatusOfMonth[]> {
  const { id, awarded_on: awardedOn } = await jobByNumber(sql, job, 'contract');
  const first = present(awardedOn);
  if (first > asOf) return [];
  const rows: StatusOfMonth[] = [];
  for (const month of monthsFrom(periodOf(first), periodOf(asOf)).reverse()) {
    const end = lastDay(month);
    const on = end < asOf ? end : asOf;
    const [position] = await loadPositions(sql, on, id);
    rows.push({ on, ...contractStatus(present(position).contract) });
  }
  return rows;
}
