import type { Connection } from './connection';
import { sqlOn, type Reader, type Sql } from './sql';

/** How rows of a table belong to a job: by their own column, or by the row of another table that they are of. */
interface Belonging {
  table: string;
  /** Never null, but for tables in ROWS_OF_NO_JOB: a row whose column is null would belong to no job, and be hidden. */
  column: string;
  /** The table that column refers to; null for the job itself. */
  parent: string | null;
}

/** Who sees rows that belong to no job: whoever is signed in, nobody who sees the jobs of a team alone, or whoever sees a row that refers to them. */
type NoJob = 'seen' | 'hidden' | { lines: readonly string[]; column: string };

/** Tables whose rows may belong to no job, the one list of them. A row of a job is seen by whoever sees the job. */
export const ROWS_OF_NO_JOB: Readonly<Record<string, NoJob>> = {
  approval: 'hidden',
  // What the company pays, and hours without a job, are not another job's.
  burden: 'seen',
  charge_rate: 'seen',
  pay_code: 'seen',
  pay_rate: 'seen',
  time_line: 'seen',
  // One posting may have cost of many jobs. Its journals are sums over all of them, and stay hidden.
  posting: { lines: ['cost_entry', 'time_line'], column: 'posting_id' },
};

/** Tables without a job whose rows are heads of lines that have one: seen by whoever sees a line. */
export const HEADS: Readonly<Record<string, NoJob>> = {
  commitment: { lines: ['commitment_line'], column: 'commitment_id' },
};

/** A posting of no job has journals of all its jobs together. */
const SEEN_BY_JOB_ALONE: ReadonlySet<string> = new Set(['journal']);

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
  const ofJobs = await belongings(sql);
  const views = [
    ...ofJobs.map(({ table, column, parent }) => {
      const own = `${column} IN (SELECT id FROM temp."${parent ?? 'seen_job'}"${SEEN_BY_JOB_ALONE.has(table) ? ' WHERE job_id IS NOT NULL' : ''})`;
      const none = ROWS_OF_NO_JOB[table] ?? 'hidden';
      return {
        table,
        where: none === 'hidden' ? own : `${own} OR (${column} IS NULL AND ${none === 'seen' ? 'true' : hasLine(table, none)})`,
      };
    }),
    ...Object.entries(HEADS).map(([table, seen]) => ({ table, where: typeof seen === 'string' ? 'true' : hasLine(table, seen) })),
  ];
  for (const { table, where } of views)
    await sql.run(`CREATE TEMP VIEW IF NOT EXISTS "${table}" AS SELECT * FROM main."${table}" WHERE ${where}`);
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

/** That somebody sees a row which refers to this one. */
function hasLine(table: string, { lines, column }: Exclude<NoJob, string>): string {
  return `(${lines.map((line) => `EXISTS (SELECT 1 FROM temp."${line}" l WHERE l.${column} = main."${table}".id)`).join(' OR ')})`;
}

/**
 * Every table that belongs to a job, each after the one it belongs to it by: read off the references of the schema. A table is of its
 * parent by a column that is never null; job_id may be, where ROWS_OF_NO_JOB says what of it.
 */
export async function belongings(sql: Reader): Promise<readonly Belonging[]> {
  const references = (await sql.anyRows(
    `SELECT m.name AS "table", f."from" AS "column", f."table" AS parent FROM main.sqlite_master m, pragma_foreign_key_list(m.name) f
      JOIN pragma_table_info(m.name) c ON c.name = f."from"
      WHERE m.type = 'table' AND (c."notnull" = 1 OR c.pk > 0 OR f."from" = 'job_id') ORDER BY f."from" <> 'job_id', m.name, f.id`,
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
