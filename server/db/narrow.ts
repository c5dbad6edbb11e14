import type { Connection } from './connection';
import { sqlOn, type Sql } from './sql';

/** How rows of a table belong to a job: by their own column, or by the row of another table that they are of. */
interface Belonging {
  table: string;
  column: string;
  /** The table that column refers to; null for the job itself. */
  parent: string | null;
}

/** Tables of which rows of no job at all are there for everybody: hours without a job are not of another's. */
const OF_NO_JOB_TOO: ReadonlySet<string> = new Set(['time_line']);

/** Connections on which the views stand already. */
const prepared = new WeakSet<Connection>();

/**
 * Puts a view before each table that belongs to a job, on one connection, which shows only the rows of the jobs that `narrow` names.
 * Temporary ones are found before the tables themselves. What belongs to no job, such as prices and clients, is left as it is.
 */
export async function standBefore(connection: Connection): Promise<void> {
  if (prepared.has(connection)) return;
  const sql = sqlOn(connection);
  await sql.run('CREATE TEMP TABLE IF NOT EXISTS seen_job (id INTEGER PRIMARY KEY)');
  for (const { table, column, parent } of await belongings(sql)) {
    const none = OF_NO_JOB_TOO.has(table) ? `${column} IS NULL OR ` : '';
    await sql.run(
      `CREATE TEMP VIEW IF NOT EXISTS "${table}" AS SELECT * FROM main."${table}"
        WHERE ${none}${column} IN (SELECT id FROM temp."${parent ?? 'seen_job'}")`,
    );
  }
  await copyViews(sql);
  prepared.add(connection);
}

/** Names the jobs, by their ids, for the length of a transaction. */
export async function narrow(sql: Sql, jobs: readonly number[]): Promise<void> {
  await sql.run('INSERT INTO temp.seen_job SELECT value FROM json_each($1)', [JSON.stringify(jobs)]);
}

/** A view sees only the tables it was made beside: tables that come before the real ones have views of their own. */
export async function copyViews(sql: Sql): Promise<void> {
  for (const view of await sql.anyRows(`SELECT sql FROM main.sqlite_master WHERE type = 'view'`))
    await sql.run(String(view.sql).replace('CREATE VIEW', 'CREATE TEMP VIEW IF NOT EXISTS'));
}

/** Every table that belongs to a job, each after the one it belongs to it by: read off the references of the schema. */
async function belongings(sql: Sql): Promise<readonly Belonging[]> {
  const references = (await sql.anyRows(
    `SELECT m.name AS "table", f."from" AS "column", f."table" AS parent FROM main.sqlite_master m, pragma_foreign_key_list(m.name) f
      WHERE m.type = 'table' ORDER BY f."from" <> 'job_id', m.name, f.id`,
  )) as unknown as { table: string; column: string; parent: string }[];
  const found: Belonging[] = [{ table: 'job', column: 'id', parent: null }];
  for (let before = 0; before < found.length;) {
    before = found.length;
    for (const { table, column, parent } of references) {
      if (found.some((it) => it.table === table) || !found.some((it) => it.table === parent)) continue;
      found.push({ table, column, parent: column === 'job_id' ? null : parent });
    }
  }
  return found;
}
