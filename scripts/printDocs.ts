/** Prints what docs/ take from the code: the table of docs/book.md. */
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { BOOK_FILES } from '../server/book/bookFiles';
import { withTable } from '../server/book/bookTables';

const page = join(import.meta.dirname, '../docs/book.md');
writeFileSync(page, withTable(readFileSync(page, 'utf8'), BOOK_FILES));
