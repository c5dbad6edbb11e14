import type { Reader } from '../db/sql';
import type { BookFile } from './bookFile';

/** All rows of a file by the columns of the format, with their ids, in the order they were entered. For files that are short. */
export function rowsOfFile(sql: Reader, file: BookFile): Promise<Record<string, unknown>[]> {
  return sql.anyRows(`SELECT * FROM (${file.query}) ORDER BY id`);
}
