import { COST_CODE_IDS } from './queries';
import type { Reader } from '../db/sql';

/** Ids of the company's cost codes by code. */
export async function costCodeIds(sql: Reader): Promise<Map<string, number>> {
  const rows = await sql.all(COST_CODE_IDS);
  return new Map(rows.map((row) => [row.code, row.id]));
}

/** Ids of those that take new cost and new budget: the closed ones are left out. */
export async function openCostCodeIds(sql: Reader): Promise<Map<string, number>> {
  const rows = await sql.all(COST_CODE_IDS);
  return new Map(rows.filter((row) => row.closed === 0).map((row) => [row.code, row.id]));
}
