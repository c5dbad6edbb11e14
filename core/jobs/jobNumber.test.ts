import { expect, test } from '@jest/globals';
import { isJobNumberPattern, nextJobNumber } from './jobNumber';

test('a job gets the next number by the company’s pattern, each year by itself', () => {
  const inUse = ['YY', '31-014', '31-009', '30-099', 'R31-500', '2107'];
  expect(nextJobNumber('YY-###', inUse, 2031)).toBe('31-015');
  expect(nextJobNumber('YY-###', inUse, 2032)).toBe('32-001');
  expect(nextJobNumber('J####/N', ['J0999/N', 'J10000/N'], 2031)).toBe('J10001/N');
  expect(nextJobNumber('', ['2107', '0998', 'X9999'], 2031)).toBe('2108');
  expect(nextJobNumber('', [], 2031)).toBe('1001');
  expect(['YY-###', '#', 'plain', '#-#', ''].map(isJobNumberPattern)).toEqual([true, true, false, false, false]);
});
