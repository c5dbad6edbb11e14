import { present } from '../../core/errors/known';
import { ATTACHED_FILES, MESSAGE_FILES, LEFT_OUT } from './queries';
import { copyFileSync, existsSync, mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { contentName } from '../attachments/contents';
import type { Stores } from '../db/stores';
import { loadDigits } from '../company/company';
import type { Reader } from '../db/sql';
import { BOOK_FILES } from './bookFiles';
import { writeFile } from './writeFile';

/**
 * Writes the whole book into `folder`, which is made where it is missing, with the contents of attachments and the messages beside
 * it. Files with nothing in them are left out. Gives back, in words, what the database has that is not in the book.
 */
export async function writeBook(sql: Reader, folder: string, stores: Stores): Promise<string[]> {
  const digits = await loadDigits(sql);
  mkdirSync(folder, { recursive: true });
  for (const file of BOOK_FILES) await writeFile(sql, folder, file, digits);
  return [...(await writeContents(sql, folder, stores)), ...(await leftOut(sql))];
}

/** Copies what is saved beside the database into the book's folder; what is gone from there is shown. */
async function writeContents(sql: Reader, folder: string, { files, outbox }: Stores): Promise<string[]> {
  const attachments = await sql.all(ATTACHED_FILES);
  const messages = await sql.all(MESSAGE_FILES);
  const gone = [
    ...attachments
      .filter((it) => !copied(join(files, it.hash), join(folder, contentName(it.hash, it.name))))
      .map((it) => it.name),
    ...messages.filter((it) => !copied(join(outbox, it.file), join(folder, it.file))).map((it) => it.file),
  ];
  return gone.map((it) => `the content of ${it}, which is not in its folder any more`);
}

function copied(from: string, to: string): boolean {
  if (!existsSync(from)) return false;
  copyFileSync(from, to);
  return true;
}

/** What a book has no file for, as far as there is any of it. */
async function leftOut(sql: Reader): Promise<string[]> {
  const counts = present(await sql.get(LEFT_OUT));
  return Object.entries(counts).flatMap(([what, count]) => (count > 0 ? [`${what} (${count})`] : []));
}
