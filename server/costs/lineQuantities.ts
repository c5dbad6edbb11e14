import { countedIn, lineQuantities, unitOf, type LineQuantities, type UsedQuantity } from '../../core/forecast/quantities';
import { contractBudget } from '../../core/forecast/estimateAtCompletion';
import { grouped } from '../../core/lists/grouped';
import { loadDigits } from '../company/company';
import type { RowOf } from '../db/fields';
import type { Reader } from '../db/sql';
import type { JobIdentity } from '../jobs/jobByNumber';
import { estimatedLines, type EstimatedLine } from './estimatedLines';
import { BUDGETED_QUANTITIES, USED_QUANTITIES } from './queries';

/** A cost line that is budgeted or used by quantity, with what that stands on. */
export interface QuantityLine extends EstimatedLine {
  quantities: LineQuantities;
  rows: readonly RowOf<typeof BUDGETED_QUANTITIES>[];
  counted: UsedQuantity;
}

/** The cost lines of a job by quantity, in the order of estimate versus actual: labour is hours, and is not among them. */
export async function quantityLines(sql: Reader, job: JobIdentity, asOf: string): Promise<QuantityLine[]> {
  return byQuantity(sql, job, asOf, await estimatedLines(sql, job, asOf));
}

/** Those of the lines of a job that are budgeted or used by quantity. */
export async function byQuantity(
  sql: Reader,
  job: JobIdentity,
  asOf: string,
  lines: readonly EstimatedLine[],
): Promise<QuantityLine[]> {
  const [budgeted, used, digits] = await Promise.all([
    sql.all(BUDGETED_QUANTITIES, [job.id, asOf]),
    sql.all(USED_QUANTITIES, [job.id, asOf]),
    loadDigits(sql),
  ]);
  const rowsOf = grouped(budgeted, (it) => it.line);
  const usedOf = grouped(used, (it) => it.line);
  return lines.flatMap((line): QuantityLine[] => {
    if (line.costType === 'labour') return [];
    const rows = rowsOf.get(line.id) ?? [];
    const named = rows.map(({ quantity, unit, isChange }) => ({ quantity, unit, isChange: isChange === 1 }));
    const counted = countedIn(unitOf(named), usedOf.get(line.id) ?? []);
    const quantities = lineQuantities(named, counted, contractBudget(line.state), digits);
    if (quantities === null || (quantities.revised === 0 && quantities.used === 0)) return [];
    return [{ ...line, quantities, rows, counted }];
  });
}
