import type { Cents } from '../../core/money/cents';
import type { Hours, Quantity, Rate } from '../../core/money/rate';
import type { UnitCost } from '../../core/prices/unitCost';
import type { Period, PlainDate } from '../../core/calendar/plainDate';

/**
 * What one column holds, as the database stores it and as the code names it: `T` carries the unit. `Gap` says whether an insert
 * may leave it out.
 */
export interface Field<T, Gap extends boolean = boolean> {
  readonly stored: 'integer' | 'text';
  readonly nullable: boolean;
  readonly gap: Gap;
  /** The value the schema fills in, where an insert leaves the column out. */
  readonly filled?: string | number;
  readonly key?: true;
  /** The table whose id it holds. */
  readonly refersTo?: string;
  /** All values it may have. */
  readonly among?: readonly string[];
  /** Of the type alone; never there. */
  readonly of?: T;
}

const integer = { stored: 'integer', nullable: false, gap: false } as const;
const words = { stored: 'text', nullable: false, gap: false } as const;

const text: Field<string, false> = words;
const whole: Field<number, false> = integer;
const day: Field<PlainDate, false> = words;
const month: Field<Period, false> = words;
/** A moment, as ISO 8601 in UTC. */
const moment: Field<string, false> = words;
/** Minor units of the company's currency. */
const cents: Field<Cents, false> = integer;
/** Millionths: 1,000,000 is 100 %. */
const rate: Field<Rate, false> = integer;
/** Ten-thousandths. */
const quantity: Field<Quantity, false> = integer;
const hours: Field<Hours, false> = integer;
/** Ten-thousandths of a major unit of money for one unit of work. */
const unitCost: Field<UnitCost, false> = integer;
const flag: Field<number, false> = integer;
/** The row's number, given by the database where an insert leaves it out. */
const id: Field<number, true> = { ...integer, gap: true, key: true };

/** The id of a row of another table. */
const ref = (refersTo: string): Field<number, false> => ({ ...integer, refersTo });
/** One of a closed list of words. Without the list, the type alone knows it. */
const oneOf = <T extends string>(...among: readonly T[]): Field<T, false> => (among.length > 0 ? { ...words, among } : words);

/** May be NULL, and is where an insert leaves it out. */
function orNull<T>(field: Field<T>): Field<T | null, true> {
  return { ...field, nullable: true, gap: true } as Field<T | null, true>;
}

/** Filled in by the schema where an insert leaves it out. */
function filled<T extends string | number>(field: Field<T>, value: T): Field<T, true> {
  return { ...field, gap: true, filled: value } as Field<T, true>;
}

/** Names a row by its columns. */
const asKey = <T>(field: Field<T, false>): Field<T, false> => ({ ...field, key: true });

/** The kinds of columns. */
export const t = {
  text,
  whole,
  day,
  month,
  moment,
  cents,
  rate,
  quantity,
  hours,
  unitCost,
  flag,
  id,
  ref,
  oneOf,
  orNull,
  filled,
  asKey,
} as const;

export type Fields = Readonly<Record<string, Field<unknown>>>;
export type TypeOf<F> = F extends Field<infer T> ? T : never;
type RowFrom<S extends Fields> = { -readonly [K in keyof S]: TypeOf<S[K]> };

/** What a query gives back: the row type of its columns. */
export interface Shape<S extends Fields = Fields> {
  readonly fields: S;
}
export type RowOf<S extends { fields: Fields }> = RowFrom<S['fields']>;

/** Declares the columns of a query's rows; a row that has others is refused as soon as it is read. */
export function shape<const S extends Fields>(fields: S): Shape<S> {
  return { fields };
}

/** A table: its name and its columns. The one description of it; a test holds it against the schema. */
export interface Table<S extends Fields = Fields> extends Shape<S> {
  readonly name: string;
}

export function table<const S extends Fields>(name: string, fields: S): Table<S> {
  return { name, fields };
}

/** Some columns of a table, as a query's row. */
export function pick<S extends Fields, K extends keyof S & string>(
  { fields }: Table<S>,
  ...columns: readonly K[]
): Shape<Pick<S, K>> {
  return { fields: Object.fromEntries(columns.map((column) => [column, fields[column]])) as unknown as Pick<S, K> };
}

/** The columns of a row as a SELECT lists them, of the table with this alias. */
export function listed({ fields }: Shape, alias: string): string {
  return Object.keys(fields)
    .map((column) => `${alias}.${column}`)
    .join(', ');
}

/** A view of the database, read like a table. */
export interface View<S extends Fields = Fields> extends Table<S> {
  readonly isView: true;
}

export function view<const S extends Fields>(name: string, fields: S): View<S> {
  return { name, fields, isView: true };
}

type Gaps<S extends Fields> = { [K in keyof S]: S[K] extends Field<unknown, true> ? K : never }[keyof S];
/** A row to insert: columns the schema can fill may be left out. */
export type NewRow<T extends Table> = Omit<RowOf<T>, Gaps<T['fields']>> & Partial<Pick<RowOf<T>, Gaps<T['fields']>>>;
/** Rows whose columns have these values, or one of these values. */
export type Where<T extends Table> = { [K in keyof RowOf<T>]?: RowOf<T>[K] | readonly RowOf<T>[K][] };

/** Refuses a row that is not of its declared columns and kinds: the SQL and its row type have come apart. */
export function assertShape({ fields }: Shape, found: Record<string, unknown>): void {
  const names = Object.keys(fields);
  const wrong = [
    ...names.filter((name) => !(name in found)).map((name) => `${name} is missing`),
    ...Object.keys(found)
      .filter((name) => !Object.hasOwn(fields, name))
      .map((name) => `${name} is not declared`),
    ...names
      .filter((name) => name in found && !holds(fields[name], found[name]))
      .map((name) => `${name} is ${typeof found[name]}`),
  ];
  if (wrong.length > 0) throw new Error(`A query and its row type disagree: ${wrong.join(', ')}`);
}

function holds(field: Field<unknown> | undefined, value: unknown): boolean {
  if (!field) return false;
  if (value === null) return field.nullable;
  return typeof value === (field.stored === 'integer' ? 'number' : 'string');
}
