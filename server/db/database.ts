import { chmodSync, closeSync, mkdirSync, openSync, statSync } from 'node:fs';
import { basename, dirname, join, resolve } from 'node:path';
import { closeConnection, connect, type Connection } from './connection';
import { copiesFolder, copyDatabase, OWN_ALONE } from './backup';
import { troubleInWords } from './inWords';
import { migrate } from './migrate';
import { ReaderPool, type ReadBy } from './readerPool';
import { copyViews, narrow, standBefore } from './narrow';
import { sqlOn, type Reader, type Sql } from './sql';

/** An open database: writes go one at a time, each read has a snapshot of its own. */
export interface Database {
  /** Runs `work` on one snapshot of the books, however many queries it makes and whatever is posted meanwhile. */
  read<T>(work: (sql: Reader) => Promise<T>): Promise<T>;
  /**
   * Runs `work` on a snapshot in which it may write to copies of tables it asks for: shows what a command would do without
   * doing it, and without holding up whoever posts. Nothing it writes is ever saved.
   */
  preview<T>(work: (sql: Sql, copy: CopyTables) => Promise<T>): Promise<T>;
  /** Runs `work` in one IMMEDIATE transaction: all of it is saved, or none. Not to be called from inside itself. */
  write<T>(work: (sql: Sql) => Promise<T>): Promise<T>;
  /** Runs `work` while nothing is written through this connection, for another process or thread that writes itself. */
  alone<T>(work: () => Promise<T>): Promise<T>;
  /**
   * The same books, of which only these jobs, by their ids, can be read: whatever is asked of them, others are not there. Writes and
   * previews are as before: they are of jobs that were looked up here.
   */
  narrowed(jobs: readonly number[]): Database;
  /** The same books as one person asks for them: their reads take turns, so that others are answered meanwhile. */
  askedBy(person: string): Database;
  /** Of the open file, for a worker that opens it by itself. */
  file: string;
  close(): Promise<void>;
}

/** The rows of a table that a preview may write over, and the columns it looks them up by. */
export interface TableCopy {
  table: string;
  /** Condition on the rows that matter, such as `job_id IN (4, 7)`; null for all. */
  where: string | null;
  indexes?: readonly string[];
}
export type CopyTables = (copies: readonly TableCopy[]) => Promise<void>;

const READERS = 4;
const NARROW_READERS = 4;

const inWords = (file: string, error: unknown): unknown => {
  const trouble = troubleInWords(error);
  return trouble === null ? error : new Error(`${file}: ${trouble}`);
};

/** Throws in words where the file is damaged. */
async function assertSound(sql: Reader, file: string): Promise<void> {
  const [row] = await sql.anyRows('PRAGMA quick_check(1)');
  const found = Object.values(row ?? {})[0];
  if (found !== 'ok')
    throw new Error(
      `${file} is damaged (${String(found).slice(0, 120)}). Copy it to a safe place, and restore the newest backup: ledrin restore BACKUP --db FILE, or a copy of the folder ${copiesFolder(file)}`,
    );
}

/**
 * Opens `file`, making it and its folder where they are missing, and brings its schema up to date, after a copy of it was made.
 * `checked`: looks whether it is sound first. Throws in words where it cannot be opened.
 */
export async function openDatabase(file: string, { checked = false } = {}): Promise<Database> {
  try {
    mkdirSync(dirname(resolve(file)), { recursive: true });
    // An empty file is an empty database; one that is there is left as it is.
    closeSync(openSync(file, 'a', OWN_ALONE));
    chmodSync(file, OWN_ALONE);
  } catch (error) {
    // Whatever the system says of it, such as that it is a folder: the file cannot be opened.
    throw inWords(file, troubleInWords(error) === null ? { code: 'SQLITE_CANTOPEN' } : error);
  }
  const writer = connect(file, 'write');
  try {
    await sqlOn(writer).run('PRAGMA journal_mode = WAL');
    if (checked) await assertSound(sqlOn(writer), file);
    await migrate(writer, (name) => copyDatabase(file, join(copiesFolder(file), `${basename(file)}.before-${name}`)));
  } catch (error) {
    await closeConnection(writer);
    throw inWords(file, error);
  }
  // What is written into a file that was deleted or replaced meanwhile would be lost without a word.
  const opened = statSync(file).ino;
  const readers = new ReaderPool(() => connect(file, 'read'), READERS, 1);
  // Of those who see some jobs only: views stand before the tables on these, and on no others.
  const narrowReaders = new ReaderPool(() => connect(file, 'read'), NARROW_READERS, 0);
  let queue: Promise<unknown> = Promise.resolve();
  const inTurn = <T>(work: () => Promise<T>): Promise<T> => {
    const result = queue.then(work);
    queue = result.catch(() => undefined);
    return result;
  };
  const books = (by: ReadBy): Database => ({
    file,
    narrowed: (jobs) => ({
      ...books(by),
      read: (work) =>
        narrowReaders.use(async (reader) => {
          await standBefore(reader);
          return inSnapshot(reader, (sql) => narrow(sql, jobs).then(() => work(sql)));
        }, by),
    }),
    askedBy: books,
    read: (work) => readers.use((reader) => inSnapshot(reader, work), by),
    preview: (work) => readers.use((reader) => inSnapshot(reader, (sql) => work(sql, (copies) => copyTables(sql, copies))), by),
    write: (work) =>
      inTurn(() => {
        if (statSync(file, { throwIfNoEntry: false })?.ino !== opened)
          throw Object.assign(new Error(`${file} was moved or deleted`), { code: 'SQLITE_CANTOPEN' });
        return inTransaction(writer, work);
      }),
    alone: inTurn,
    close: async () => {
      await queue;
      await Promise.all([closeConnection(writer), readers.close(), narrowReaders.close()]);
    },
  });
  return books(null);
}

/** All of it is saved, or none. On the one connection that writes: to open it anew for each transaction costs more than most of them. */
async function inTransaction<T>(writer: Connection, work: (sql: Sql) => Promise<T>): Promise<T> {
  const sql = sqlOn(writer);
  let open = true;
  // What still runs when the transaction has ended must not be saved by itself.
  const assertOpen = () => {
    if (!open) throw new Error('the transaction has ended');
  };
  await sql.run('BEGIN IMMEDIATE');
  try {
    const result = await work(sqlOn(writer, { assertOpen }));
    open = false;
    await sql.run('COMMIT');
    return result;
  } catch (error) {
    open = false;
    // Where the engine has undone it by itself, such as on a full disk, there is nothing to undo any more.
    await sql.run('ROLLBACK').catch(() => undefined);
    throw error;
  }
}

/** A deferred transaction in WAL sees the books as they were at its first read. It is always rolled back: a reader saves nothing. */
async function inSnapshot<T>(reader: Connection, work: (sql: Sql) => Promise<T>): Promise<T> {
  const sql = sqlOn(reader);
  await sql.run('BEGIN DEFERRED');
  try {
    return await work(sql);
  } finally {
    await sql.run('ROLLBACK');
  }
}

/** Temporary tables come before the real ones of the same name, and go with the transaction. */
async function copyTables(sql: Sql, copies: readonly TableCopy[]): Promise<void> {
  for (const { table, where, indexes = [] } of copies) {
    await sql.run(`CREATE TEMP TABLE ${table} AS SELECT * FROM main.${table}${where === null ? '' : ` WHERE ${where}`}`);
    for (const [i, columns] of indexes.entries()) await sql.run(`CREATE INDEX temp.${table}_copy_${i} ON ${table} (${columns})`);
  }
  await copyViews(sql);
}
