import type { PlainDate } from '../../core/calendar/plainDate';
import type { Sql } from '../db/sql';
import { ADD_MONTHS, COST_TOTALS_OF_JOBS, DELETE_COST_TOTALS, RAISE_TOTALS } from './queries';

/** What of an entry its line's totals count. */
interface Counted {
  cost_line_id: number;
  posted_on: PlainDate;
  amount: number;
  hours?: number | null;
}

type Added = [line: number, month: number, cost: number, hours: number, entries: number];

/** What entries come to, by line and month. */
function byMonth(entries: readonly Counted[]): Added[] {
  const added = new Map<string, Added>();
  for (const { cost_line_id: line, posted_on, amount, hours } of entries) {
    const month = Number(posted_on.slice(0, 4)) * 12 + Number(posted_on.slice(5, 7)) - 1;
    const key = `${line} ${month}`;
    const there = added.get(key) ?? [line, month, 0, 0, 0];
    added.set(key, [line, month, there[2] + amount, there[3] + (hours ?? 0), there[4] + 1]);
  }
  return [...added.values()];
}

/**
 * Adds new entries to the monthly totals of their lines, in the transaction that saves them: what a posting costs follows its own lines,
 * however many its jobs have.
 */
export async function addToCostTotals(sql: Sql, entries: readonly Counted[]): Promise<void> {
  if (entries.length === 0) return;
  const all = JSON.stringify(byMonth(entries));
  await sql.run(ADD_MONTHS, [all]);
  await sql.run(RAISE_TOTALS, [all]);
}

/** Works the totals of these jobs out again from all their entries: what adding must never differ from. */
export async function recountCostTotals(sql: Sql, jobIds: readonly number[]): Promise<void> {
  const jobs = JSON.stringify(jobIds);
  await sql.run(DELETE_COST_TOTALS, [jobs]);
  await sql.run(COST_TOTALS_OF_JOBS, [jobs]);
}
