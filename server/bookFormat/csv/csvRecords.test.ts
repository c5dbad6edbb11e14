import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { csvText } from '../../reportFiles/reportCsv';
import { CsvRecords, type Cells } from './csvRecords';

function readInPieces(text: string, cuts: readonly number[]): Cells[] {
  const records = new CsvRecords();
  const at = [...new Set(cuts.map((cut) => cut % (text.length + 1)))].sort((a, b) => a - b);
  const pieces = [0, ...at].map((start, i) => text.slice(start, at[i] ?? text.length));
  return [...pieces.flatMap((piece) => records.feed(piece)), ...records.end()];
}

describe('CSV records', () => {
  test('what is written is read back, however the text is cut', () => {
    const cell = fc.string({ unit: fc.constantFrom('a', ',', '"', '\n', '\r\n', ' ', 'é', '') });
    const row = fc.array(cell, { minLength: 2, maxLength: 4 });
    fc.assert(
      fc.property(fc.array(row, { minLength: 1, maxLength: 6 }), fc.array(fc.nat()), (rows, cuts) => {
        expect(readInPieces(csvText(rows), cuts)).toEqual(rows);
      }),
    );
  });

  test('empty lines are passed over, CRLF and LF both end a record, the last needs none', () => {
    expect(readInPieces('a,b\r\n\r\n\n1,2\n,\n3,"x\ny"', [])).toEqual([
      ['a', 'b'],
      ['1', '2'],
      ['', ''],
      ['3', 'x\ny'],
    ]);
  });

  test.each([
    ['a quote inside a bare cell', '1,he"llo\n2,b\n', [{ readable: ['1'] }, ['2', 'b']]],
    ['text after a closing quote', '1,"ab"c\n2,b\n', [{ readable: ['1'] }, ['2', 'b']]],
    ['text after a quote that closed on another line', '1,"a\nb"c\n2,b\n', [{ readable: ['1'] }, ['2', 'b']]],
    ['a quote left open to the end', '1,"ab\n2,b\n', [{ readable: ['1'] }, ['2', 'b']]],
  ])('%s spoils its own record only', (_, text, expected) => {
    expect(readInPieces(text, [])).toEqual(expected);
    expect(readInPieces(text, [3, 5, 8])).toEqual(expected);
  });
});
