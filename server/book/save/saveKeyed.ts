import { BULK_ROWS, nextId, type Sql } from '../../db/sql';

export async function bulkInsert(
  sql: Sql,
  table: string,
  columns: readonly string[],
  rows: readonly (readonly unknown[])[],
): Promise<void> {
  const values = columns.map((_, i) => `value->>${i}`).join(', ');
  for (let start = 0; start < rows.length; start += BULK_ROWS)
    await sql.run(`INSERT INTO ${table} (${columns.join(', ')}) SELECT ${values} FROM json_each($1)`, [
      JSON.stringify(rows.slice(start, start + BULK_ROWS)),
    ]);
}

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
  let id = await nextId(sql, { name: table, fields: {} });
  const toSave = rows.map((row) => {
    ids.set(key(row), id);
    return [id++, ...values(row)];
  });
  await bulkInsert(sql, table, ['id', ...columns], toSave);
}
