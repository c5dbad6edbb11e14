import type { BookFile } from '../bookFormat/bookFile';
import type { Column } from '../bookFormat/columns';

/** What stands before and after the table in docs/book.md. */
export const TABLE_BEGINS = '<!-- printed from the registry by `npm run docs` -->';
export const TABLE_ENDS = '<!-- end of what is printed -->';

/** The table of docs/book.md: every file of the book with its columns and its key. */
export function bookTable(files: readonly BookFile[]): string {
  const rows = files.map((file) => `| ${file.name}.csv | ${columnsOf(file)} | ${keyOf(file)} |`);
  return ['| file | columns | key |', '|---|---|---|', ...rows].join('\n');
}

function columnsOf({ columns }: BookFile): string {
  return Object.entries(columns)
    .map(([name, column]) => `${name}${column.required ? '*' : ''}${saidOf(column)}`)
    .join(', ');
}

function saidOf({ values, note, kind }: Column<unknown>): string {
  const list = kind === 'boolean' ? ['`yes`, `no`'] : values ? [values.map((it) => `\`${it}\``).join(', ')] : [];
  const notes = [...list, ...(note === undefined ? [] : [note])];
  return notes.length > 0 ? ` (${notes.join('; ')})` : '';
}

function keyOf({ key, keyNote }: BookFile): string {
  return keyNote ?? (key.length > 0 ? key.join(', ') : 'none');
}

/** `text` with the table between its marks. Throws where they are not there. */
export function withTable(text: string, files: readonly BookFile[]): string {
  const [before, rest] = text.split(TABLE_BEGINS);
  const after = rest?.split(TABLE_ENDS)[1];
  if (before === undefined || after === undefined) throw new Error(`Expected ${TABLE_BEGINS} and ${TABLE_ENDS}`);
  return `${before}${TABLE_BEGINS}\n\n${bookTable(files)}\n\n${TABLE_ENDS}${after}`;
}
