import type { BookContents } from '../bookFormat/bookSave';
import { copyFileSync, existsSync, mkdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { contentOf, contentsIn, isHash, keepContent } from '../attachments/contents';
import type { Stores } from '../db/stores';
import { jobPapers } from '../jobFile/bookFiles';
import { messages } from '../offers/bookFiles';
import type { BookCheck } from '../bookFormat/bookCheck';

/** Looks for what the rows of a book name; an attachment whose content is missing or another is a fault. */
export function bookContents(book: BookCheck, folder: string, stores: Stores): BookContents {
  const inFolder = contentsIn(folder);
  const sizes = new Map<string, number>();
  for (const row of book.rowsOf(jobPapers)) {
    const { sha256 } = row;
    if (!sha256 || !isHash(sha256)) continue;
    const content = contentOf(sha256, inFolder, stores);
    if (typeof content === 'string') book.fault(jobPapers, row, 'sha256', content);
    else sizes.set(sha256, content.length);
  }
  const outboxNames = new Map<string, string>();
  const given = new Set<string>();
  for (const file of new Set(book.rowsOf(messages).map((it) => it.file))) {
    if (!file) continue;
    const name = freeName(file, folder, stores, given);
    given.add(name);
    outboxNames.set(file, name);
  }
  return {
    sizes,
    outboxNames,
    store: () => {
      for (const hash of sizes.keys()) keepContent(stores.files, hash, contentOf(hash, inFolder, stores) as Buffer);
      if (outboxNames.size > 0) mkdirSync(stores.outbox, { recursive: true });
      for (const [file, name] of outboxNames) {
        const [from, to] = [join(folder, file), join(stores.outbox, name)];
        // A message that is not in the folder is shown without its file, as one that was removed is.
        if (existsSync(from) && !existsSync(to)) copyFileSync(from, to);
      }
    },
  };
}

/** The name of a message, or one beside it where the outbox has another message of that name, or this book gave it already. */
function freeName(file: string, folder: string, { outbox }: Stores, given: ReadonlySet<string>): string {
  const stem = file.slice(0, -'.eml'.length);
  for (let count = 1; ; count++) {
    const name = count === 1 ? file : `${stem}-${count}.eml`;
    const [from, to] = [join(folder, file), join(outbox, name)];
    if (given.has(name)) continue;
    if (!existsSync(to) || (existsSync(from) && readFileSync(from).equals(readFileSync(to)))) return name;
  }
}
