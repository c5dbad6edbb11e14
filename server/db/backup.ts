import {
  chmodSync,
  copyFileSync,
  createWriteStream,
  existsSync,
  mkdirSync,
  mkdtempSync,
  openSync,
  closeSync,
  readdirSync,
  readSync,
  renameSync,
  rmSync,
  statSync,
} from 'node:fs';
import { basename, dirname, join, relative, resolve, sep } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { openPromise } from 'yauzl';
import { ZipFile } from 'yazl';
import { LedrinError } from '../../core/errors/ledrinError';
import type { Stores } from './stores';
import { closeConnection, connect } from './connection';
import { decryptFile, encryptFile, isEncrypted } from './encryptedFile';
import { sqlOn } from './sql';

/** The name of the database inside a backup. */
const DATABASE = 'ledrin.sqlite';

/** Only whoever runs Ledrin reads its files: they hold everybody's pay, and what signs people in. */
export const OWN_ALONE = 0o600;

/** Writes the database as it is at one moment into a new file, while others read and write it; without sessions, which must not come to life again. */
export async function copyDatabase(database: string, to: string): Promise<void> {
  mkdirSync(dirname(resolve(to)), { recursive: true });
  // What an interrupted copy left is in the way of this one.
  rmSync(`${to}.part`, { force: true });
  const reader = connect(database, 'read');
  try {
    await sqlOn(reader).run('VACUUM INTO $1', [`${to}.part`]);
    chmodSync(`${to}.part`, OWN_ALONE);
  } catch (error) {
    rmSync(`${to}.part`, { force: true });
    throw error;
  } finally {
    await closeConnection(reader);
  }
  await forgetSessions(`${to}.part`);
  renameSync(`${to}.part`, to);
}

async function forgetSessions(copy: string): Promise<void> {
  const writer = connect(copy, 'write');
  try {
    const sql = sqlOn(writer);
    const [there] = await sql.anyRows(`SELECT 1 FROM sqlite_master WHERE name = 'session'`);
    // What is deleted is written over, and the copy is one file again.
    await sql.run('PRAGMA secure_delete = ON');
    if (there) await sql.run('DELETE FROM session');
    await sql.run('PRAGMA journal_mode = DELETE');
  } finally {
    await closeConnection(writer);
  }
}

/**
 * Writes database, attachments and messages into one ZIP. The database is of one moment; what is attached and sent is only ever added
 * to, so all it names is there.
 */
export async function backUp(database: string, stores: Stores, to: string, passphrase: string | null = null): Promise<void> {
  if (existsSync(to)) throw new LedrinError('refused', `There is a file ${to} already; choose another name for the backup`);
  mkdirSync(dirname(resolve(to)), { recursive: true });
  const folder = mkdtempSync(join(dirname(resolve(to)), '.ledrin-backup-'));
  try {
    const copy = join(folder, DATABASE);
    await copyDatabase(database, copy);
    const zip = new ZipFile();
    const failed = new Promise<never>((_done, fail) => zip.on('error', fail));
    zip.addFile(copy, DATABASE);
    for (const [name, store] of [
      ['files', stores.files],
      ['outbox', stores.outbox],
    ] as const)
      for (const file of filesIn(store)) zip.addFile(join(store, file), `${name}/${file}`);
    zip.end();
    await Promise.race([pipeline(zip.outputStream, createWriteStream(join(folder, 'backup.zip'))), failed]);
    const made = join(folder, 'backup.zip');
    if (passphrase !== null) await encryptFile(made, `${made}.sealed`, passphrase);
    renameSync(passphrase === null ? made : `${made}.sealed`, to);
    chmodSync(to, OWN_ALONE);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

function filesIn(folder: string): string[] {
  if (!existsSync(folder)) return [];
  return readdirSync(folder)
    .filter((it) => !it.endsWith('.part') && statSync(join(folder, it)).isFile())
    .sort();
}

/**
 * Puts a backup where there is no database yet, with its attachments and messages beside it; or a copy of the folder of copies, which is
 * the database alone. What was encrypted needs its passphrase.
 */
export async function restore(from: string, database: string, stores: Stores, passphrase: string | null = null): Promise<void> {
  if (!existsSync(from)) throw new LedrinError('not-found', `There is no backup ${from}`);
  if (existsSync(database))
    throw new LedrinError('refused', `There is a database ${database} already; move it away, or restore under another name`);
  mkdirSync(dirname(resolve(database)), { recursive: true });
  const folder = mkdtempSync(join(dirname(resolve(database)), '.ledrin-restore-'));
  try {
    const opened = isEncrypted(from) ? join(folder, 'opened') : from;
    if (opened !== from) await decryptFile(from, opened, passphrase);
    if (isDatabase(opened)) copyFileSync(opened, join(folder, DATABASE));
    else await unpackBackup(from, opened, folder, stores);
    chmodSync(join(folder, DATABASE), OWN_ALONE);
    // The database last: until it is there, nothing was restored.
    renameSync(join(folder, DATABASE), database);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

function isDatabase(path: string): boolean {
  const [file, head] = [openSync(path, 'r'), Buffer.alloc(15)];
  readSync(file, head, 0, head.length, 0);
  closeSync(file);
  return head.toString('latin1') === 'SQLite format 3';
}

async function unpackBackup(from: string, opened: string, folder: string, stores: Stores): Promise<void> {
  const zip = await openPromise(opened).catch(() => {
    throw new LedrinError('bad-input', `${from} is not a backup of Ledrin: it cannot be read as a ZIP`);
  });
  try {
    const names: string[] = [];
    for await (const entry of zip.eachEntry()) {
      const path = join(folder, entry.fileName);
      if (relative(folder, path).startsWith(`..${sep}`) || entry.fileName.endsWith('/')) continue;
      mkdirSync(dirname(path), { recursive: true });
      await pipeline(await zip.openReadStreamPromise(entry), createWriteStream(path));
      names.push(entry.fileName);
    }
    if (!names.includes(DATABASE)) throw new LedrinError('bad-input', `${from} is not a backup of Ledrin: it has no ${DATABASE}`);
    for (const name of names.filter((it) => it !== DATABASE)) {
      const store = name.startsWith('files/') ? stores.files : name.startsWith('outbox/') ? stores.outbox : null;
      if (store === null) continue;
      mkdirSync(store, { recursive: true });
      renameSync(join(folder, name), join(store, basename(name)));
    }
  } finally {
    zip.close();
  }
}

/** Where copies of a database are kept: beside it. */
export function copiesFolder(database: string): string {
  return join(dirname(resolve(database)), 'backups');
}
