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
