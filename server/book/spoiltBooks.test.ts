import { act } from '../test/act';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { parse } from 'csv-parse/sync';
import { stringify } from 'csv-stringify/sync';
import fc from 'fast-check';
import { BOOK_FILES } from './bookFiles';
import { BookRefused } from '../../core/errors/bookFaults';
import type { Database } from '../db/database';
import {
  besides,
  cleanUp,
  differences,
  everything,
  temporaryDatabase,
  TESTER,
  writeBookText,
  type BookText,
} from '../test/books';
import { exportedBook, wholeBook } from '../test/wholeBook';
import { importBook } from './importBook';
import { runs } from '../test/runs';

afterAll(cleanUp);

let whole: BookText;
let tables: [file: string, records: string[][]][];
beforeAll(async () => {
  whole = await wholeBook();
  const csv = Object.entries(whole).filter(([file]) => file.endsWith('.csv'));
  tables = csv.map(([file, text]) => [file, parse(text, { relaxColumnCount: true })]);
});

/** What is typed into cells by mistake, or on purpose. */
const SPOILT = [
  ...['', ' ', '0', '-1', '7.12345', '1e99', '99999999999999', '12,50', 'no such', '2031-02-30', '2031-04-30', '1999-01-01'],
  ...['yes', '=1+1', "'; DROP TABLE job; --", 'x'.repeat(3000), 'Ünïcode — “quoted”\n"lines"', '\u0000'],
];

test('the whole book has a row in every file of the format', () => {
  const empty = BOOK_FILES.map((it) => it.name).filter(
    (file) => (tables.find(([it]) => it === `${file}.csv`)?.[1].length ?? 0) < 2,
  );
  expect(empty).toEqual([]);
});

/** Imports a book; its faults, where it was refused. Anything else that goes wrong is thrown. */
async function refusals(database: Database, book: BookText) {
  try {
    await act(database, TESTER, importBook, writeBookText(book), besides(database));
    return null;
  } catch (error) {
    if (error instanceof BookRefused) return error.faults;
    throw error;
  }
}

describe('a book of which one cell is anything', () => {
  test('is refused with file and row and leaves nothing, or comes in, ties, and goes out and in again the same', async () => {
    let fresh = await temporaryDatabase();
    let untouched = await everything(fresh);
    let [refused, taken] = [0, 0];
    await fc.assert(
      fc.asyncProperty(fc.nat(), fc.nat(), fc.nat(), fc.constantFrom(...SPOILT), async (a, b, c, value) => {
        const [file, records] = tables[a % tables.length]!;
        const row = 1 + (b % (records.length - 1));
        const column = c % records[0]!.length;
        const spoilt = records.map((it, i) => (i === row ? it.map((cell, k) => (k === column ? value : cell)) : it));
        const faults = await refusals(fresh, { ...whole, [file]: stringify(spoilt) });
        if (faults) {
          refused += 1;
          expect(faults.length).toBeGreaterThan(0);
          for (const it of faults) {
            expect(BOOK_FILES.map((it) => it.name)).toContain(it.file.replace(/\.csv$/, ''));
            expect(it.row).toBeGreaterThan(0);
            expect(it.message.length).toBeGreaterThan(5);
          }
          expect(await everything(fresh)).toBe(untouched);
          return;
        }
        taken += 1;
        const one = fresh;
        fresh = await temporaryDatabase();
        untouched = await everything(fresh);
        expect(await differences(one, '2031-12-31')).toEqual(['0.00', '0.00', '0.00', '0.00', '0.00']);
        const [once, other] = [await exportedBook(one), await temporaryDatabase()];
        expect(await refusals(other, once)).toBeNull();
        expect(await exportedBook(other)).toEqual(once);
      }),
      { numRuns: runs(40) },
    );
    // Both ways were gone, else the test would say little.
    expect([refused > 0, taken > 0]).toEqual([true, true]);
  }, 900_000);
});
