import { createWriteStream, existsSync, mkdirSync, mkdtempSync, readdirSync, renameSync, rmSync, statSync } from 'node:fs';
import { basename, dirname, join, relative, resolve, sep } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { openPromise } from 'yauzl';
import { ZipFile } from 'yazl';
import { LedrinError } from '../../core/errors/ledrinError';
import type { Stores } from '../attachments/contents';
import { closeConnection, connect } from './connection';
import { sqlOn } from './sql';

/** The name of the database inside a backup. */
const DATABASE = 'ledrin.sqlite';

/** Writes the database as it is at one moment into a new file, while others read and write it. */
export async function copyDatabase(database: string, to: string): Promise<void> {
  mkdirSync(dirname(resolve(to)), { recursive: true });
  // What an interrupted copy left is in the way of this one.
  rmSync(`${to}.part`, { force: true });
  const reader = connect(database, 'read');
  try {
    await sqlOn(reader).run('VACUUM INTO $1', [`${to}.part`]);
  } catch (error) {
    rmSync(`${to}.part`, { force: true });
    throw error;
  } finally {
    await closeConnection(reader);
  }
  renameSync(`${to}.part`, to);
}

/**
 * Writes database, attachments and messages into one ZIP. The database is of one moment; what is attached and sent is only ever added
 * to, so all it names is there.
 */
export async function backUp(database: string, stores: Stores, to: string): Promise<void> {
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
    renameSync(join(folder, 'backup.zip'), to);
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

/** Puts a backup where there is no database yet, with its attachments and messages beside it. */
export async function restore(from: string, database: string, stores: Stores): Promise<void> {
  if (!existsSync(from)) throw new LedrinError('not-found', `There is no backup ${from}`);
  if (existsSync(database))
    throw new LedrinError('refused', `There is a database ${database} already; move it away, or restore under another name`);
  const zip = await openPromise(from).catch(() => {
    throw new LedrinError('bad-input', `${from} is not a backup of Ledrin: it cannot be read as a ZIP`);
  });
  const folder = mkdtempSync(join(dirname(resolve(database)), '.ledrin-restore-'));
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
    // The database last: until it is there, nothing was restored.
    renameSync(join(folder, DATABASE), database);
  } finally {
    zip.close();
    rmSync(folder, { recursive: true, force: true });
  }
}

/** Where copies of a database are kept: beside it. */
export function copiesFolder(database: string): string {
  return join(dirname(resolve(database)), 'backups');
}

/** How many nightly copies are kept. */
const NIGHTS = 7;

/** Makes the copy of a day, unless it is there, and removes those beyond the newest seven. True where one was made. */
export async function nightlyCopy(database: string, day: string): Promise<boolean> {
  const folder = copiesFolder(database);
  const nightly = new RegExp(`^${basename(database).replace(/[.*+?^${}()|[\]\\]/g, '\\$&')}\\.\\d{4}-\\d{2}-\\d{2}$`);
  const copy = join(folder, `${basename(database)}.${day}`);
  if (existsSync(copy)) return false;
  await copyDatabase(database, copy);
  const kept = readdirSync(folder)
    .filter((it) => nightly.test(it))
    .sort();
  for (const old of kept.slice(0, -NIGHTS)) rmSync(join(folder, old));
  return true;
}
