import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';

/** Reads by plain SQL: `$1 …` are bound, never pasted. */
export interface Reader {
  all<Row = Record<string, unknown>>(sql: string, bind?: readonly unknown[]): Promise<Row[]>;
  get<Row = Record<string, unknown>>(sql: string, bind?: readonly unknown[]): Promise<Row | undefined>;
}

/** Reads and writes by plain SQL on one connection. */
export interface Sql extends Reader {
  run(sql: string, bind?: readonly unknown[]): Promise<void>;
  /** Runs one INSERT and gives back the new row's id. */
  insert(sql: string, bind?: readonly unknown[]): Promise<number>;
}

/** SQL on a Sequelize connection, inside `transaction` where one is given. */
export function sqlOn(sequelize: Sequelize, transaction?: Transaction): Sql {
  const options = (bind: readonly unknown[]) => ({ bind: [...bind], transaction: transaction ?? null, raw: true });
  const all = async <Row>(sql: string, bind: readonly unknown[] = []) =>
    (await sequelize.query(sql, { ...options(bind), type: QueryTypes.SELECT })) as Row[];
  return {
    all,
    get: async <Row>(sql: string, bind: readonly unknown[] = []) => (await all<Row>(sql, bind))[0],
    run: async (sql, bind = []) => {
      await sequelize.query(sql, { ...options(bind), type: QueryTypes.RAW });
    },
    insert: async (sql, bind = []) => {
      const [id] = (await sequelize.query(sql, { ...options(bind), type: QueryTypes.INSERT })) as unknown as [number];
      return id;
    },
  };
}

/** Rows a single statement inserts at once: the fastest way measured here, and bounded in memory. */
export const BULK_ROWS = 5000;

/**
 * Inserts rows through one JSON parameter a chunk. Each row is an array in the order of `columns`.
 * Values are text, numbers and nulls only.
 */
export async function bulkInsert(
  sql: Sql,
  table: string,
  columns: readonly string[],
  rows: readonly (readonly unknown[])[],
): Promise<void> {
  const values = columns.map((_, i) => `value->>${i}`).join(', ');
  for (let start = 0; start < rows.length; start += BULK_ROWS) {
    const chunk = JSON.stringify(rows.slice(start, start + BULK_ROWS));
    await sql.run(`INSERT INTO ${table} (${columns.join(', ')}) SELECT ${values} FROM json_each($1)`, [chunk]);
  }
}

/** The next free id of a table, for writers that hand out ids themselves inside their transaction. */
export async function nextId(sql: Sql, table: string): Promise<number> {
  const row = await sql.get<{ id: number | null }>(`SELECT max(id) AS id FROM ${table}`);
  return (row?.id ?? 0) + 1;
}
