import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { filledBeside, isFilled } from './filledRow';

const blank = fc.constantFrom('', ' ', '\t', '  \n');
const cells = fc.dictionary(fc.constantFrom('line', 'description', 'amount', 'id'), blank);

test('a row of blanks and spaces is not filled, whatever its columns; one sign anywhere fills it', () => {
  fc.assert(
    fc.property(cells, fc.constantFrom('line', 'description', 'amount'), (row, key) => {
      expect(isFilled(row)).toBe(false);
      expect(isFilled({ ...row, [key]: ' 0' })).toBe(true);
    }),
  );
});

test('what the page itself fills does not count as typed, and all else does', () => {
  const typed = filledBeside('id', 'was');
  expect([typed({ id: 'r1', was: '100', line: ' ' }), typed({ id: 'r1', line: '1' }), typed({})]).toEqual([false, true, false]);
  expect(isFilled({ id: 'r1' })).toBe(true);
});
