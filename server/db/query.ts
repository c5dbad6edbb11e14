import type { Fields, Shape } from './fields';

/** SQL by hand with the row it gives. What is bound is `$1 …` in it, never pasted. */
export interface Query<S extends Fields = Fields> extends Shape<S> {
  readonly sql: string;
}

/** Declares a query. Those of a noun stand in its `queries.ts`; a test holds the columns of each against its row. */
export function query<S extends Fields>({ fields }: Shape<S>, sql: string): Query<S> {
  return { fields, sql };
}

/** Words of ours as a list of SQL texts. */
export function listOfTexts(words: readonly string[]): string {
  return words.map((it) => `'${it}'`).join(', ');
}
