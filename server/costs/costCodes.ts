import { shape, t } from '../db/fields';
import type { Reader } from '../db/sql';

/** Ids of the company's cost codes by code. */
export async function costCodeIds(sql: Reader): Promise<Map<string, number>> {
  const rows = await sql.all(shape({ id: t.whole, code: t.text }), 'SELECT id, code FROM cost_code');
  return new Map(rows.map((row) => [row.code, row.id]));
}
