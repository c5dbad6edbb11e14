import { bulkInsert, nextId, type Sql } from '../../db/sql';

/** Ids of what a book's rows refer to, by the business's own keys; the database's and the new ones together. */
export type BookIds = Record<
  | 'customers'
  | 'vendors'
  | 'costCodes'
  | 'priceItems'
  | 'buildUps'
  | 'estimates'
  | 'estimateLines'
  | 'jobs'
  | 'sovLines'
  | 'changeOrders'
  | 'commitments'
  | 'commitmentLines'
  | 'applications'
  | 'releases',
  Map<string, number>
>;

/** Saves rows under ids of their own, and notes each id under its key. */
export async function saveKeyed<Row>(
  sql: Sql,
  table: string,
  columns: readonly string[],
  rows: readonly Row[],
  ids: Map<string, number>,
  key: (row: Row) => string,
  values: (row: Row) => unknown[],
): Promise<void> {
  let id = await nextId(sql, table);
  const toSave = rows.map((row) => {
    ids.set(key(row), id);
    return [id++, ...values(row)];
  });
  await bulkInsert(sql, table, ['id', ...columns], toSave);
}
