import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { partsBySovLine } from './servedLines';

test('a change order that names a line of its own takes its cost there', () => {
  // Budget 77,530.00 of line 6, and 19,900.00 by a change that brings line 10: of 97,430.00 each has its own.
  const served = [
    { sovLine: '6', amount: 7_753_000 },
    { sovLine: '10', amount: 1_990_000 },
  ];
  expect([...partsBySovLine(9_743_000, served)]).toEqual([
    ['6', 7_753_000],
    ['10', 1_990_000],
  ]);
  // 100.00 spent: 7753 / 9743 of it is 79.575…, 1990 / 9743 is 20.424…; the penny left goes to the larger rest.
  expect([...partsBySovLine(10_000, served).values()]).toEqual([7_958, 2_042]);
  expect([...partsBySovLine(10_000, [])]).toEqual([['', 10_000]]);
});

test('whatever the budgets, parts add up to the amount', () => {
  const served = fc.uniqueArray(fc.record({ sovLine: fc.string(), amount: fc.integer({ min: -1e9, max: 1e9 }) }), {
    selector: (it) => it.sovLine,
  });
  fc.assert(
    fc.property(fc.integer({ min: -1e9, max: 1e9 }), served, (amount, lines) => {
      expect([...partsBySovLine(amount, lines).values()].reduce((sum, it) => sum + it, 0)).toBe(amount);
    }),
  );
});
