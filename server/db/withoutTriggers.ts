import type { Sql } from './sql';

/**
 * Carries out work that the triggers of tables would refuse, and puts them back, all in the caller's transaction. Only for what
 * changes no record: where a name gives way to another.
 */
export async function withoutTriggers(sql: Sql, tables: readonly string[], work: () => Promise<void>): Promise<void> {
  const triggers = (await sql.anyRows(
    `SELECT name, sql FROM main.sqlite_master WHERE type = 'trigger' AND tbl_name IN (SELECT value FROM json_each($1)) ORDER BY rowid`,
    [JSON.stringify(tables)],
  )) as { name: string; sql: string }[];
  for (const { name } of triggers) await sql.run(`DROP TRIGGER "${name}"`);
  await work();
  for (const trigger of triggers) await sql.run(trigger.sql);
}
