import { COST_CODE_IDS } from './queries';
import type { Reader } from '../db/sql';

/** Ids of the company's cost codes by code. */
export async function costCodeIds(sql: Reader): Promise<Map<string, number>> {
  const rows = await sql.all(COST_CODE_IDS);
  return new Map(rows.map((row) => [row.code, row.id]));
}
