import { unitOf } from '../../core/forecast/quantities';
import { grouped } from '../../core/lists/grouped';
import type { BudgetedLine } from '../../wire/costs';
import type { Reader } from '../db/sql';
import { BUDGETED_LINES, BUDGETED_QUANTITIES } from './queries';

/** The lines of jobs that have a budget, with their units: from them section, type and unit of an entry are proposed. */
export async function budgetedLines(sql: Reader, numbers: string, asOf: string): Promise<BudgetedLine[]> {
  const lines = await sql.all(BUDGETED_LINES, [JSON.stringify(numbers.split(','))]);
  const units = new Map<number, string>();
  for (const jobId of new Set(lines.map((it) => it.jobId))) {
    const rows = await sql.all(BUDGETED_QUANTITIES, [jobId, asOf]);
    for (const [line, of] of grouped(rows, (it) => it.line))
      units.set(line, unitOf(of.map((it) => ({ quantity: it.quantity, unit: it.unit, isChange: it.isChange === 1 }))) ?? '');
  }
  return lines.map(({ id, jobId: _, ...it }) => ({ ...it, unit: units.get(id) ?? '' }));
}
