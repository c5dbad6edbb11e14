import { mkdirSync } from 'node:fs';
import { dirname, resolve } from 'node:path';
import { Sequelize, Transaction } from 'sequelize';
import sqlite3 from 'sqlite3';
import { migrate } from './migrate';
import { sqlOn, type Sql } from './sql';

/** An open database: reads are spread over a few connections, writes go one at a time. */
export interface Database {
  /** Reads outside any transaction; each query takes the next connection. */
  read(): Sql;
  /**
   * Reads with several queries, side by side on several connections, that all see the same books: where a
   * posting came in between, it reads again.
   */
  consistent<T>(work: (sql: Sql) => Promise<T>): Promise<T>;
  /** Runs `work` in one IMMEDIATE transaction: all of it is kept, or none. Not to be called from inside itself. */
  write<T>(work: (sql: Sql) => Promise<T>): Promise<T>;
  close(): Promise<void>;
}

const READERS = 3;
const READ_TRIES = 5;

/** Opens `file`, making it and its folder where they are missing, and brings its schema up to date. */
export async function openDatabase(file: string): Promise<Database> {
  mkdirSync(dirname(resolve(file)), { recursive: true });
  const writer = connect(file);
  await sqlOn(writer).run('PRAGMA journal_mode = WAL');
  try {
    await migrate(writer);
  } catch (error) {
    await writer.close();
    throw error;
  }
  const readers = Array.from({ length: READERS }, () => connect(file));
  let turn = 0;
  const next = () => sqlOn(readers[turn++ % READERS]!);
  const spread: Sql = {
    all: (sql, bind) => next().all(sql, bind),
    get: (sql, bind) => next().get(sql, bind),
    run: (sql, bind) => next().run(sql, bind),
    insert: (sql, bind) => next().insert(sql, bind),
  };
  let queue: Promise<unknown> = Promise.resolve();
  return {
    read: () => spread,
    consistent: async (work) => {
      // Every posting leaves an audit record, so its last number tells whether one came in between.
      const seal = async () => (await spread.get<{ id: number }>('SELECT coalesce(max(id), 0) AS id FROM audit'))!.id;
      for (let tries = 0; ; tries++) {
        const before = await seal();
        const result = await work(spread);
        if (tries === READ_TRIES || (await seal()) === before) return result;
      }
    },
    write: (work) => {
      const result = queue.then(() =>
        writer.transaction({ type: Transaction.TYPES.IMMEDIATE }, (transaction) => work(sqlOn(writer, transaction))),
      );
      queue = result.catch(() => undefined);
      return result;
    },
    close: async () => {
      await queue;
      await Promise.all([writer, ...readers].map((it) => it.close()));
    },
  };
}

function connect(file: string): Sequelize {
  return new Sequelize({
    dialect: 'sqlite',
    storage: file,
    logging: false,
    dialectModule: { ...sqlite3, Database: ConfiguredDatabase },
    retry: { max: 1 },
  });
}

// Settings are per connection, and Sequelize opens connections by itself: so they are set as each one opens.
class ConfiguredDatabase extends sqlite3.Database {
  constructor(file: string, mode: number, opened: (error: Error | null) => void) {
    super(file, mode, (error: Error | null) => {
      if (error) return opened(error);
      this.exec(
        'PRAGMA foreign_keys = ON; PRAGMA busy_timeout = 10000; PRAGMA synchronous = FULL; PRAGMA cache_size = -65536',
        opened,
      );
    });
  }
}
