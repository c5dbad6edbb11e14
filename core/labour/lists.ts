/** The lists that labour is cut and priced by, one entry each: set up in the order they build on each other. */
export const LABOUR_LISTS = {
  'wage-classes': { title: 'Wage classes', one: 'wage class', named: 'wageClass' },
  employees: { title: 'Employees', one: 'employee', named: 'employee' },
  'work-kinds': { title: 'Kinds of work', one: 'kind of work', named: 'workKind' },
  'pay-rates': { title: 'Pay rates', one: 'pay rate', named: 'from' },
  'piece-rates': { title: 'Piece rates', one: 'piece rate', named: 'from' },
  burdens: { title: 'Burdens', one: 'burden', named: 'burden' },
  'overtime-rules': { title: 'Overtime rules', one: 'overtime rule', named: 'from' },
  'pay-codes': { title: 'Pay codes', one: 'pay code', named: 'payCode' },
  'charge-rates': { title: 'Charge rates', one: 'charge rate', named: 'from' },
} as const;

export type LabourList = keyof typeof LABOUR_LISTS;
export const LABOUR_LIST_NAMES = Object.keys(LABOUR_LISTS) as [LabourList, ...LabourList[]];

export function isLabourList(text: string): text is LabourList {
  return Object.hasOwn(LABOUR_LISTS, text);
}

type Cell = string | number | boolean | null;
/** A row of a list by its columns; `id` null for one that is new. */
export type ListRow = Readonly<Record<string, Cell>> & { readonly id: number | null };

/** What saving a list changes in it. */
export interface ListChange {
  kind: 'added' | 'changed' | 'removed';
  /** Its place among the rows as they are sent; null for one removed. */
  row: number | null;
  was: ListRow | null;
  now: ListRow | null;
  /** The columns that differ, of a change. */
  columns: string[];
}

/** What is different between a list as it is saved and as it is to be, rows known by their ids. */
export function changesOf(saved: readonly ListRow[], rows: readonly ListRow[]): ListChange[] {
  const before = new Map(saved.map((it) => [it.id, it]));
  const remaining = new Set(rows.map((it) => it.id));
  return [
    ...rows.flatMap((now, row): ListChange[] => {
      const was = now.id === null ? undefined : before.get(now.id);
      if (!was) return [{ kind: 'added', row, was: null, now, columns: [] }];
      const columns = Object.keys(now).filter((key) => now[key] !== was[key]);
      return columns.length > 0 ? [{ kind: 'changed', row, was, now, columns }] : [];
    }),
    ...saved
      .filter((it) => !remaining.has(it.id))
      .map((was): ListChange => ({ kind: 'removed', row: null, was, now: null, columns: [] })),
  ];
}
