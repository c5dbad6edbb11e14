import type { Fields, RowOf, Shape } from './fields';
import type { Query } from './query';
import type { Reader } from './sql';

/**
 * What a query gives, read as one JSON text: of tens of thousands of rows a row by itself takes longer to hand over than to find. In the
 * order of the query.
 */
export async function allInBulk<S extends Fields>(
  sql: Reader,
  { fields, sql: text }: Query<S>,
  bind: readonly unknown[],
): Promise<RowOf<Shape<S>>[]> {
  const names = Object.keys(fields);
  const columns = names.map((it) => `"${it}"`).join(', ');
  const [found] = await sql.anyRows(`SELECT json_group_array(json_array(${columns})) AS found FROM (${text})`, bind);
  const rows = JSON.parse(String(found?.found ?? '[]')) as unknown[][];
  return rows.map((row) => {
    const named: Record<string, unknown> = {};
    names.forEach((name, i) => (named[name] = row[i]));
    return named as RowOf<Shape<S>>;
  });
}
