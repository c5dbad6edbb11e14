/** How the cells of a column are read. Money scales by the company's currency; the rest as core/money says. */
export interface Column<T> {
  kind:
    | 'text'
    | 'date'
    | 'moment'
    | 'amount'
    | 'percent'
    | 'markup'
    | 'unit-cost'
    | 'quantity'
    | 'needed'
    | 'integer'
    | 'boolean'
    | 'one-of'
    | 'forecast-value';
  required: boolean;
  values?: readonly string[];
  /** Smallest and largest whole number allowed. */
  span?: readonly [number, number];
  /** Carries the cell's type; never set. */
  type?: T;
}

/** A column of a kind; called with REQUIRED where its cell must be filled. */
export const make =
  <T>(kind: Column<T>['kind'], rest: Partial<Column<T>> = {}) =>
  (required = false): Column<T> => ({ kind, required, ...rest });
export const text = make<string>('text');
export const date = make<string>('date');
export const moment = make<string>('moment');
export const amount = make<number>('amount');
export const percent = make<number>('percent');
export const markup = make<number>('markup');
export const unitCost = make<number>('unit-cost');
export const quantity = make<number>('quantity');
export const needed = make<number>('needed');
export const yesNo = make<boolean>('boolean');
export const integer = (low: number, high: number) => make<number>('integer', { span: [low, high] });
export const days = integer(0, 3650);
export const oneOf = <const V extends readonly string[]>(values: V) => make<V[number]>('one-of', { values });
export const REQUIRED = true;
