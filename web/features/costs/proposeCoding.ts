import type { BudgetedLine, RecentCoding } from '../../../wire/costs';
import type { GridRow } from '../../kit/grid/gridTypes';

const typed = (row: GridRow, key: string) => (row[key] ?? '').trim();

/**
 * How a line of cost is likely coded, by what is typed of it: as the last line of the same party and code, else of the same party,
 * else of the same code; of its own job where that is typed. The lines typed above it count before those that are posted. Where
 * neither party nor code nor job is typed yet, as the line above. Null where nothing is like it.
 */
export function proposeCoding(
  rows: readonly GridRow[],
  index: number,
  posted: readonly RecentCoding[],
): Pick<RecentCoding, 'job' | 'section'> | null {
  const row = rows[index] ?? {};
  const [job, party, costCode] = ['job', 'party', 'costCode'].map((key) => typed(row, key)) as [string, string, string];
  const above = rows.slice(0, index).reverse().map(codingOf);
  if (job === '' && party === '' && costCode === '') return Object.keys(row).length > 0 ? (above[0] ?? null) : null;
  const like = [...above, ...posted].filter((it) => it.job !== '' && (job === '' || it.job === job));
  const find = (same: (it: RecentCoding) => boolean) => like.find(same) ?? null;
  if (party === '' && costCode === '') return like[0] ?? null;
  return (
    (party && costCode ? find((it) => it.party === party && it.costCode === costCode) : null) ??
    (party ? find((it) => it.party === party) : null) ??
    (costCode ? find((it) => it.costCode === costCode) : null)
  );
}

/**
 * The type of a line of cost by its party and code: as the last line of both, else of the code, else of the party, whatever the job. Null
 * where neither is typed or nothing is like it.
 */
export function proposeType(rows: readonly GridRow[], index: number, posted: readonly RecentCoding[]): string | null {
  const row = rows[index] ?? {};
  const [party, costCode] = [typed(row, 'party'), typed(row, 'costCode')];
  const like = [...rows.slice(0, index).reverse().map(codingOf), ...posted].filter((it) => it.costType !== '');
  const find = (same: (it: RecentCoding) => boolean) => like.find(same)?.costType ?? null;
  return (
    (party && costCode ? find((it) => it.party === party && it.costCode === costCode) : null) ??
    (costCode ? find((it) => it.costCode === costCode) : null) ??
    (party ? find((it) => it.party === party) : null)
  );
}

/** The lines of the budget a row may be of, as far as it is typed: of its job, with its section, code and type. */
export function budgetFor(row: GridRow, budget: readonly BudgetedLine[]): BudgetedLine[] {
  const [section, costCode, costType] = ['section', 'costCode', 'costType'].map((key) => typed(row, key));
  return budget.filter(
    (it) =>
      it.job === typed(row, 'job') &&
      (!section || it.section === section) &&
      (!costCode || it.costCode === costCode) &&
      (!costType || it.costType === costType),
  );
}

/** What all lines of the budget that a row may be of have in common; null where they differ, or there is none. */
export function budgetSays(row: GridRow, budget: readonly BudgetedLine[], what: 'section' | 'costType' | 'unit'): string | null {
  const values = new Set(budgetFor(row, budget).map((it) => it[what]));
  return values.size === 1 ? ([...values][0] ?? null) : null;
}

function codingOf(row: GridRow): RecentCoding {
  return {
    job: typed(row, 'job'),
    section: typed(row, 'section'),
    costCode: typed(row, 'costCode'),
    costType: typed(row, 'costType'),
    party: typed(row, 'party'),
  };
}
