import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { GridRow } from '../grid/gridTypes';
import { pasteBlock, pastedOver } from '../grid/pasteBlock';
import { readDate } from './readDate';
import { amount, tidyOf } from './codecs';
import { readAmount } from './readAmount';

test.each([
  ['30', '2031-04-30'],
  ['5/3', '2031-03-05'],
  ['5 Mar', '2031-03-05'],
  ['5.3.32', '2032-03-05'],
  ['5 March 2032', '2032-03-05'],
  ['2030-12-01', '2030-12-01'],
  [' 1 ', '2031-04-01'],
  ['31', null],
  ['0', null],
  ['5/13', null],
  ['x', null],
  ['', null],
  ['29 Feb', null],
  ['5 Foo', null],
])('%j is %s in April 2031', (typed, date) => expect(readDate(typed, '2031-04')).toBe(date));

test.each([
  ['12,500', 1_250_000],
  ['12 500.50', 1_250_050],
  ['(40.50)', -4050],
  ['−3', -300],
  ['£1,000', 100_000],
  ['-1,234,567.89', -123_456_789],
  ['1 234 567', 123_456_700],
  // A comma that groups nothing is no thousands separator: 12500,50 is not twelve hundred thousand.
  ['12500,50', null],
  ['12,50', null],
  ['1,2345', null],
  ['1,,000', null],
  ['1.005', null],
  ['12x', null],
  ['', null],
  ['1e3', null],
])('%j is %s pence', (typed, cents) => expect(readAmount(typed, 2)).toBe(cents));

test('an amount shown is read back as it was', () => {
  fc.assert(
    fc.property(fc.integer({ min: -1e12, max: 1e12 }), fc.integer({ min: 0, max: 3 }), (cents, digits) => {
      expect(readAmount(tidyOf(amount(digits))((cents / 10 ** digits).toFixed(digits)), digits)! + 0).toBe(cents + 0);
    }),
  );
  expect(tidyOf(amount(2))('not yet')).toBe('not yet');
});

describe('a pasted block', () => {
  const columns = ['a', 'b', 'worked', 'c'].map((key) => ({
    key,
    title: key,
    width: 80,
    ...(key === 'worked' && { show: () => '' }),
  }));
  const paste = (rows: GridRow[], text: string, column: number, grows: boolean) =>
    pasteBlock(rows, text, 0, pastedOver(columns, columns, column, text), grows);

  test('lands from its cell on, passes over what is worked out, and makes rows', () => {
    expect(paste([{ a: '1', b: '2' }], '5\t6\n7\t8\n', 1, true)).toEqual([
      { a: '1', b: '5', c: '6' },
      { b: '7', c: '8' },
    ]);
  });

  test('never goes beyond the last column, nor past the last row where rows are given', () => {
    expect(paste([{}], '1\t2\t3\t4\t5\r\n6', 0, false)).toEqual([{ a: '1', b: '2', c: '3' }]);
  });

  test('cells in quotes keep their tabs and line breaks', () => {
    expect(pasteBlock([], '"x\ty"\t"say ""hi"""\n"two\nlines"\tz', 0, ['a', 'b'], true)).toEqual([
      { a: 'x\ty', b: 'say "hi"' },
      { a: 'two\nlines', b: 'z' },
    ]);
  });
});
