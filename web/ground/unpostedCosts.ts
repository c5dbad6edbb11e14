import { displayDate } from '../../core/calendar/displayDate';
import { displayQuantity } from '../../core/money/display';
import type { CostRow } from '../../wire/costs';
import type { GridRow } from '../kit/grid/gridTypes';

const KEPT = 'ledrin.costs.unposted';

/** Lines of cost typed and not posted yet, as this browser holds them. */
export function unpostedCosts(): GridRow[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(KEPT) ?? '[]');
    return Array.isArray(kept) ? (kept as GridRow[]) : [];
  } catch {
    return [];
  }
}

export function keepUnpostedCosts(rows: readonly GridRow[]): void {
  localStorage.setItem(KEPT, JSON.stringify(rows));
}

/** Lays posted entries out to be entered again, beneath what is being entered. */
export function layOutCosts(rows: readonly CostRow[], exact: (cents: number) => string): void {
  keepUnpostedCosts([...unpostedCosts(), ...rows.map((row) => typedRow(row, exact))]);
}

/** An entry as it is typed. */
function typedRow(row: CostRow, exact: (cents: number) => string): GridRow {
  return {
    ...{ dated: displayDate(row.dated), job: row.job, section: row.section, costCode: row.costCode, costType: row.costType },
    ...{ party: row.party, reference: row.reference, commitment: row.commitmentLine ?? '', description: row.description },
    ...{ hours: row.hours === null ? '' : displayQuantity(row.hours), amount: exact(row.amount) },
    ...{ uninstalled: row.uninstalled ? 'yes' : '', postedOn: row.postedOn === row.dated ? '' : displayDate(row.postedOn) },
  };
}
