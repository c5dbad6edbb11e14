/** How the cells of a column are read. Money scales by the company's currency; the rest as core/money says. */
export interface Column<T, Required extends boolean = boolean> {
  readonly kind:
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
  readonly required: Required;
  readonly values?: readonly string[];
  /** The most characters a text has. */
  readonly longest?: number;
  /** Smallest and largest whole number allowed. */
  readonly span?: readonly [number, number];
  /** What the table of docs/book.md says of it. */
  readonly note?: string;
  /** Carries the cell's type; never set. */
  readonly type?: T;
}

interface Make<T> {
  (required: typeof REQUIRED, note?: string): Column<T, true>;
  (note?: string): Column<T, false>;
}

export const REQUIRED = true;

/** A column of a kind; called with REQUIRED where its cell must be filled, and with what its table says beside it. */
function make<T>(kind: Column<T>['kind'], rest: Partial<Column<T>> = {}): Make<T> {
  return ((required?: true | string, note?: string): Column<T> => {
    const remark = typeof required === 'string' ? required : note;
    return { kind, required: required === true, ...rest, ...(remark === undefined ? {} : { note: remark }) };
  }) as Make<T>;
}

/** The longest text of a cell; no page takes more. */
const LONGEST_TEXT = 20_000;

export const text = make<string>('text', { longest: LONGEST_TEXT });
/** A text that is a whole document. */
export const longText = make<string>('text', { longest: 8_000_000 });
export const date = make<string>('date');
export const moment = make<string>('moment');
export const amount = make<number>('amount');
export const percent = make<number>('percent');
export const markup = make<number>('markup');
export const unitCost = make<number>('unit-cost');
export const quantity = make<number>('quantity');
export const needed = make<number>('needed');
export const yesNo = make<boolean>('boolean');
export const forecastValue = make<string>('forecast-value');
export const integer = (low: number, high: number) => make<number>('integer', { span: [low, high] });
export const days = integer(0, 3650);
export const oneOf = <const V extends readonly string[]>(values: V) => make<V[number]>('one-of', { values });

export type Columns = Readonly<Record<string, Column<unknown>>>;
type CellOf<C> = C extends Column<infer T> ? T : never;

/** A row as it was read: null is an empty cell, undefined one that is faulty and already reported. `row` as docs/book.md counts. */
export type ReadRow<C extends Columns> = { -readonly [K in keyof C]: CellOf<C[K]> | null | undefined } & { row: number };

/** A row of a book without a fault: what is required is there. */
export type Row<C extends Columns> = {
  -readonly [K in keyof C]: C[K] extends Column<infer T, true> ? T : CellOf<C[K]> | null;
} & { row: number };

/** True where every cell of a row could be read. */
export function isWhole(row: Readonly<Record<string, unknown>>): boolean {
  return !Object.values(row).includes(undefined);
}
