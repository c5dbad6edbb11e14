/** Kinds of cost, in the order every report lists them. */
export const COST_TYPES = ['labour', 'material', 'subcontract', 'equipment', 'other'] as const;
export type CostType = (typeof COST_TYPES)[number];

/** A line of cost: job × section × cost code × cost type. Budget, cost, commitments and forecasts meet on it. */
export interface CostLineKey {
  section: string;
  costCode: string;
  costType: CostType;
}

/** Section, then code, as plain text; then type in the order of the list (docs/book.md: estimate-vs-actual). */
export function compareCostLines(a: CostLineKey, b: CostLineKey): number {
  return (
    comparePlain(a.section, b.section) ||
    comparePlain(a.costCode, b.costCode) ||
    COST_TYPES.indexOf(a.costType) - COST_TYPES.indexOf(b.costType)
  );
}

/** Text in plain code-unit order, the same on every machine. */
export function comparePlain(a: string, b: string): number {
  return a < b ? -1 : a > b ? 1 : 0;
}
