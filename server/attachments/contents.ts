import { createHash } from 'node:crypto';
import {
  closeSync,
  existsSync,
  fsyncSync,
  mkdirSync,
  openSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { basename, extname, join } from 'node:path';
import type { Stores } from '../db/stores';

export const LARGEST_FILE = 25 * 1024 * 1024;

/** SHA-256 of bytes, in hexadecimal. */
export function hashOf(content: Buffer): string {
  return createHash('sha256').update(content).digest('hex');
}

/** Puts bytes into `folder` under their hash, whole or not at all, and written through to the disk. What lies there damaged is replaced. */
export function keepContent(folder: string, hash: string, content: Buffer): void {
  mkdirSync(folder, { recursive: true });
  const path = join(folder, hash);
  if (isSound(path, hash)) return;
  try {
    writeThrough(`${path}.part`, 'w', content);
    renameSync(`${path}.part`, path);
    // The new name too: a folder is written through like a file.
    writeThrough(folder, 'r');
  } catch (error) {
    rmSync(`${path}.part`, { force: true });
    throw error;
  }
}

/** Writes a file, or what is pending of a folder, through to the disk. */
function writeThrough(path: string, flags: 'w' | 'r', content?: Buffer): void {
  const opened = openSync(path, flags);
  try {
    if (content) writeFileSync(opened, content);
    fsyncSync(opened);
  } finally {
    closeSync(opened);
  }
}

/** Whether the content of a hash lies at `path` as it was put there. */
export function isSound(path: string, hash: string): boolean {
  return existsSync(path) && statSync(path).size <= LARGEST_FILE && hashOf(readFileSync(path)) === hash;
}

/** The name of an attachment's content in a book: its hash, and its own ending, so that it opens. A CSV would be read as a part of the book. */
export function contentName(hash: string, name: string): string {
  const ending = extname(name).toLowerCase();
  return /^\.[a-z0-9]{1,5}$/.test(ending) && ending !== '.csv' ? `${hash}${ending}` : `${hash}.paper`;
}

/** The contents a folder holds, by their hash. */
export function contentsIn(folder: string): Map<string, string> {
  return new Map(
    readdirSync(folder)
      .filter((file) => /^[0-9a-f]{64}\.[a-z0-9]{1,5}$/.test(file))
      .map((file) => [file.slice(0, 64), join(folder, file)]),
  );
}

/** The bytes behind a hash: from the book's folder, else from the store. In words why not, where they cannot be had. */
export function contentOf(hash: string, inFolder: ReadonlyMap<string, string>, stores: Stores): Buffer | string {
  const path = inFolder.get(hash) ?? join(stores.files, hash);
  if (!existsSync(path))
    return `the folder has no file ${hash.slice(0, 12)}… with what the attachment says; put it there, or leave the row out`;
  if (statSync(path).size > LARGEST_FILE) return `${basename(path)} is larger than 25 MB`;
  const content = readFileSync(path);
  return hashOf(content) === hash ? content : `${basename(path)} is not what the hash was made of`;
}

/** A SHA-256 as it is written; nothing else may become the name of a file. */
export function isHash(text: string): boolean {
  return /^[0-9a-f]{64}$/.test(text);
}
