import type { ListChange, ListRow } from '../../core/labour/lists';
import { plainRateFrom, plainRateOf, type PayRate } from '../../core/labour/payRates';
import type { Fault } from '../../core/errors/ledrinError';
import { fieldError } from '../acts/refused';

type Rates = readonly (PayRate & ListRow)[];

/** What each employee costs an hour by the rate they have alone, beside the list of them. */
export function withHourlyRates(rows: readonly ListRow[], rates: readonly ListRow[]): ListRow[] {
  return rows.map((row) => ({
    ...row,
    costsAnHour: plainRateOf(rates as unknown as Rates, String(row.employee))?.rate ?? null,
  }));
}

/** Rows as sent, with the rate an hour that is saved where none was sent. */
export function withRatesKept(rows: readonly ListRow[], saved: readonly ListRow[]): ListRow[] {
  const before = new Map(saved.map((it) => [it.id, it.costsAnHour ?? null]));
  return rows.map((it) => ({
    ...it,
    costsAnHour: it.costsAnHour === undefined ? ((it.id === null ? null : before.get(it.id)) ?? null) : it.costsAnHour,
  }));
}

/** Of a change of an employee: the rate an hour that it sets. */
function newRate({ was, now, columns }: ListChange): number | null {
  if (!now || (was && !columns.includes('costsAnHour'))) return null;
  return (now.costsAnHour as number | null) ?? null;
}

/**
 * The list of pay rates as changed rates of employees make it, and at which employee's row each stands. Throws bad-input where a rate is
 * taken away, since hours may rest on it.
 */
export function ratesAfter(
  changes: readonly ListChange[],
  rates: readonly ListRow[],
  from: string,
  hasPosted: (employeeId: number) => boolean,
): { rows: ListRow[]; employeeRow: ReadonlyMap<number, number> } {
  const rows = [...rates];
  const employeeRow = new Map<number, number>();
  for (const change of changes) {
    const { was, now, row } = change;
    if (now && was && was.costsAnHour !== null && now.costsAnHour === null)
      throw fieldError(`rows.${row}.costsAnHour`, 'Give another rate; to take one away, remove it from the list Pay rates');
    const rate = newRate(change);
    if (!now || rate === null) continue;
    const employee = String(now.employee);
    const before = plainRateOf(rates as unknown as Rates, employee);
    const startsOn = (now.startsOn as string | null) ?? null;
    const day = plainRateFrom({ before, startsOn, hasPosted: now.id !== null && hasPosted(now.id) }, from);
    const at = rows.findIndex((it) => it.from === day && it.employee === employee && !it.job && !it.workKind && !it.wageClass);
    const place = at < 0 ? rows.length : at;
    rows[place] = { ...EMPTY_RATE, ...rows[at], from: day, employee, rate };
    employeeRow.set(place, Number(row));
  }
  return { rows, employeeRow };
}

const EMPTY_RATE = { id: null, job: '', section: '', workKind: '', wageClass: '', atLeast: false };

/** Faults of the list of rates, at the employees they come from. */
export function atEmployees(faults: readonly Fault[], employeeRow: ReadonlyMap<number, number>): Fault[] {
  return faults.map(({ field, message }) => {
    const row = employeeRow.get(Number(/^rows\.(\d+)\./.exec(field)?.[1]));
    return row === undefined ? { field: 'rows', message } : { field: `rows.${row}.costsAnHour`, message };
  });
}
