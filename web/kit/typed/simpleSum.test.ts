import { expect, test } from '@jest/globals';
import { simpleSum, summed } from './simpleSum';

test.each([
  ['=12*3', '36'],
  ['=1,200.50+80', '1280.5'],
  ['=(3+4)*2.5', '17.5'],
  ['=10/4-1', '1.5'],
  ['=-5+2', '-3'],
  ['=0.1+0.2', '0.3'],
  ['=100/3', '33.3333'],
  ['=7 × 8 − 6 ÷ 2', '53'],
  ['=1000*10', '10000'],
])('%s is %s', (typed, value) => expect(simpleSum(typed)).toBe(value));

test.each(['12*3', '=', '=12*', '=a1+2', '=1/0', '=(1+2', '=1..2'])('%s is none', (typed) => expect(simpleSum(typed)).toBeNull());

test('a column of pence rounds half away from zero, one of whole units too; what it cannot read stays as typed', () => {
  const decimals = (most: number) => (text: string) => (text.split('.')[1] ?? '').length <= most;
  expect([summed('=100/3', decimals(2)), summed('=1.005*1', decimals(2)), summed('=5/2', decimals(0))]).toEqual([
    '33.33',
    '1.01',
    '3',
  ]);
  expect([summed('=5/2', () => false), summed('18,900', decimals(2))]).toEqual(['2.5', '18,900']);
});
