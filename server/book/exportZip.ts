import { createWriteStream, mkdirSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { ZipFile } from 'yazl';
import type { Stores } from '../db/stores';
import { closeConnection, connect } from '../db/connection';
import { sqlOn } from '../db/sql';
import { writeBook } from './writeBook';

/**
 * Writes the book of a database as one ZIP in a temporary folder, read on a connection of its own and from one snapshot. Gives
 * back the file and its folder, which whoever sends it removes.
 */
export async function exportZip(database: string, stores: Stores): Promise<{ path: string; temporaryFolder: string }> {
  const temporaryFolder = mkdtempSync(join(tmpdir(), 'ledrin-export-'));
  const reader = connect(database, 'read');
  try {
    const book = join(temporaryFolder, 'book');
    mkdirSync(book);
    const sql = sqlOn(reader);
    await sql.run('BEGIN DEFERRED');
    await writeBook(sql, book, stores);
    const path = join(temporaryFolder, 'book.zip');
    await zipFolder(book, path);
    return { path, temporaryFolder };
  } catch (error) {
    rmSync(temporaryFolder, { recursive: true, force: true });
    throw error;
  } finally {
    await closeConnection(reader);
  }
}

async function zipFolder(folder: string, path: string): Promise<void> {
  const zip = new ZipFile();
  const failed = new Promise<never>((_done, fail) => zip.on('error', fail));
  // One file is opened at a time, when its turn comes.
  for (const file of readdirSync(folder).sort()) zip.addFile(join(folder, file), file);
  zip.end();
  await Promise.race([pipeline(zip.outputStream, createWriteStream(path)), failed]);
}
