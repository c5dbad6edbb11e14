import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from '@jest/globals';
import { BOOK_FILES } from './bookFiles';
import { withTable } from './bookTables';
import { partsOf } from '../bookFormat/bookFile';

test('every file comes after those it refers to, by columns that both have', () => {
  BOOK_FILES.forEach((file, place) => {
    const columns = Object.keys(file.columns);
    for (const [column, reference] of Object.entries(file.refers ?? {})) {
      if (!reference) continue;
      const parts = partsOf(column, reference);
      const key = reference.head ? reference.to.head?.by : reference.to.key;
      expect(`${file.name} after ${reference.to.name}`).toBe(
        BOOK_FILES.indexOf(reference.to) <= place ? `${file.name} after ${reference.to.name}` : 'before it',
      );
      expect([file.name, column, parts.length]).toEqual([file.name, column, key?.length]);
      expect(columns).toEqual(expect.arrayContaining([column, ...parts]));
    }
    expect(columns).toEqual(expect.arrayContaining([...file.key]));
  });
});

test('docs/book.md says of every file what the code does; `npm run docs` prints it', () => {
  const page = readFileSync(join(import.meta.dirname, '../../docs/book.md'), 'utf8');
  expect(withTable(page, BOOK_FILES)).toBe(page);
});
