import type { Stores } from '../db/stores';
import { openDatabase } from '../db/database';
import { runCommand, type Asked } from '../acts/command';
import { unpackZips } from './unpackZips';
import { importBook, type ImportCounts } from './importBook';

/** Imports a book on a connection of its own, for a thread beside the server, which meanwhile answers everybody else. */
export async function importBookAlone(
  database: string,
  asked: Asked,
  folder: string,
  stores: Stores,
  skipIdentical = false,
): Promise<ImportCounts> {
  await unpackZips(folder);
  const opened = await openDatabase(database);
  try {
    return await runCommand(opened, asked, (command) => importBook(command, folder, stores, { skipIdentical }));
  } finally {
    await opened.close();
  }
}
