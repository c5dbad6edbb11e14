import { QueryTypes, type Sequelize, type Transaction, type WhereOptions } from 'sequelize';
import { assertShape, shape, t, type Fields, type NewRow, type RowOf, type Shape, type Table, type Where } from './fields';
import { modelOn } from './models';
import { query, type Query } from './query';

/** Columns to sort by, in turn. */
export type Order<T extends Table> = readonly (keyof RowOf<T> & string)[];

/** Reads: rows of a table by their values, or what a query gives. */
export interface Reader {
  all<S extends Fields>(query: Query<S>, bind?: readonly unknown[]): Promise<RowOf<Shape<S>>[]>;
  get<S extends Fields>(query: Query<S>, bind?: readonly unknown[]): Promise<RowOf<Shape<S>> | undefined>;
  /** Rows of whatever columns the SQL names, for SQL that is not written here but made. */
  anyRows(sql: string, bind?: readonly unknown[]): Promise<Record<string, unknown>[]>;
  find<T extends Table>(table: T, where: Where<T>, order?: Order<T>): Promise<RowOf<T>[]>;
  findOne<T extends Table>(table: T, where: Where<T>): Promise<RowOf<T> | undefined>;
}

/** Reads and writes on one connection. */
export interface Sql extends Reader {
  /** Inserts one row and gives back its id. */
  insert<T extends Table>(table: T, row: NewRow<T>): Promise<number>;
  /** Inserts many rows, thousands at once. All leave out the same columns. */
  insertAll<T extends Table>(table: T, rows: readonly NewRow<T>[]): Promise<void>;
  /** Inserts rows, or writes over those with the same `key`: but for columns they do not have. */
  save<T extends Table>(table: T, rows: readonly NewRow<T>[], key: Order<T>): Promise<void>;
  update<T extends Table>(table: T, where: Where<T>, values: Partial<RowOf<T>>): Promise<void>;
  remove<T extends Table>(table: T, where: Where<T>): Promise<void>;
  run(sql: string, bind?: readonly unknown[]): Promise<void>;
}

interface Within {
  /** A transaction with a connection of its own. */
  transaction?: Transaction;
  /** Throws where what this was opened for has ended: asked before each statement. */
  assertOpen?: () => void;
}

/** SQL on a Sequelize connection. */
export function sqlOn(sequelize: Sequelize, { transaction, assertOpen = () => {} }: Within = {}): Sql {
  const within = () => {
    assertOpen();
    return { transaction };
  };
  const options = (bind: readonly unknown[]) => ({ bind: [...bind], ...within(), raw: true });
  const anyRows = async (sql: string, bind: readonly unknown[] = []) =>
    (await sequelize.query(sql, { ...options(bind), type: QueryTypes.SELECT })) as Record<string, unknown>[];
  const all: Reader['all'] = async (query, bind) => {
    const rows = await anyRows(query.sql, bind);
    if (rows[0]) assertShape(query, rows[0]);
    return rows as RowOf<typeof query>[];
  };
  const find: Reader['find'] = async (table, where, order = []) => {
    const rows = await modelOn(sequelize, table).findAll({
      where: where as WhereOptions,
      order: [...order],
      ...within(),
      raw: true,
    });
    return rows as unknown as RowOf<typeof table>[];
  };
  const run: Sql['run'] = async (sql, bind = []) => {
    await sequelize.query(sql, { ...options(bind), type: QueryTypes.RAW });
  };
  return {
    all,
    find,
    anyRows,
    run,
    get: async (query, bind) => (await all(query, bind))[0],
    findOne: async (table, where) => (await find(table, where))[0],
    insert: async (table, row) => Number((await modelOn(sequelize, table).create(row as never, within())).get('id')),
    insertAll: (table, rows) => insertAll(run, table, rows, []),
    save: (table, rows, key) => insertAll(run, table, rows, key),
    update: async (table, where, values) => {
      await modelOn(sequelize, table).update(values as object, { where: where as WhereOptions, ...within() });
    },
    remove: async (table, where) => {
      await modelOn(sequelize, table).destroy({ where: where as WhereOptions, ...within() });
    },
  };
}

/** Rows a single statement inserts at once: the fastest way measured here, and bounded in memory. */
export const BULK_ROWS = 5000;

/**
 * Inserts rows through one JSON parameter a chunk: an array a row, in the order of the columns the first one has. With a `key`, a row
 * that is there is written over.
 */
async function insertAll(
  run: Sql['run'],
  { name, fields }: Table,
  rows: readonly Record<string, unknown>[],
  key: readonly string[],
): Promise<void> {
  const [first] = rows;
  if (!first) return;
  const columns = Object.keys(first).filter((column) => Object.hasOwn(fields, column));
  const values = columns.map((_, i) => `value->>${i}`).join(', ');
  const others = columns.filter((column) => !key.includes(column)).map((column) => `${column} = excluded.${column}`);
  // SQLite takes ON CONFLICT after a SELECT only where that has a WHERE.
  const over = key.length > 0 ? `WHERE true ON CONFLICT (${key.join(', ')}) DO UPDATE SET ${others.join(', ')}` : '';
  for (let start = 0; start < rows.length; start += BULK_ROWS) {
    const chunk = rows.slice(start, start + BULK_ROWS).map((row) => columns.map((column) => row[column]));
    await run(`INSERT INTO ${name} (${columns.join(', ')}) SELECT ${values} FROM json_each($1) ${over}`, [JSON.stringify(chunk)]);
  }
}

/** The next free id of a table, for writers that hand out ids themselves inside their transaction. */
export async function nextId(sql: Reader, { name }: Table): Promise<number> {
  const [row] = await sql.anyRows(`SELECT coalesce(max(id), 0) + 1 AS id FROM ${name}`);
  return Number(row?.id);
}

/**
 * Fills an empty table and makes its indexes afterwards, all at once, in half the time of writing them row by row. A table that has
 * rows keeps its indexes, and so does a reference of the table to itself: while references wait for the end of the transaction, the
 * engine looks for rows that refer to each new one. All in the transaction of `sql`, so that a failure leaves the indexes as they were.
 */
export async function fillTable(sql: Sql, { name }: Table, fill: () => Promise<void>): Promise<void> {
  const indexes = await sql.all(
    query(
      shape({ name: t.text, sql: t.text }),
      `SELECT name, sql FROM sqlite_master
        WHERE type = 'index' AND tbl_name = $1 AND sql IS NOT NULL AND NOT EXISTS (SELECT 1 FROM ${name})
          AND NOT EXISTS (SELECT 1 FROM pragma_index_info(sqlite_master.name) i JOIN pragma_foreign_key_list($1) f ON f."from" = i.name
            WHERE i.seqno = 0 AND f."table" = $1)`,
    ),
    [name],
  );
  for (const index of indexes) await sql.run(`DROP INDEX ${index.name}`);
  await fill();
  for (const index of indexes) await sql.run(index.sql);
}
