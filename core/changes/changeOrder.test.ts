import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { agreedLines, spentOnPending } from './changeOrder';

test('a change agreed for less is spread as it was asked, to the penny', () => {
  // 1,000.00 asked as 600.00, 300.00 and 100.00; 750.01 agreed: 450.006, 225.003 and 75.001 → the first has the larger remainder.
  expect(agreedLines([60_000, 30_000, 10_000], 75_001)).toEqual([45_001, 22_500, 7_500]);
  // Plus 500.00 and minus 200.00, agreed at 240.00 of 300.00: 400.00 and −160.00.
  expect(agreedLines([50_000, -20_000], 24_000)).toEqual([40_000, -16_000]);
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: -1e9, max: 1e9 }), { minLength: 1, maxLength: 9 }),
      fc.integer({ min: -1e10, max: 1e10 }),
      (asked, agreed) => {
        expect(agreedLines(asked, agreed).reduce((a, b) => a + b, 0)).toBe(agreed);
      },
    ),
  );
});

test('cost on changes not approved: beyond the budget of their lines, at most their own, the first raised first', () => {
  // Line 7 is 900 beyond its budget, line 8 is within. The first change expects 500 on 7 and 300 on 8: 500. The second 600 on 7: the 400 left.
  const spent = spentOnPending(
    [
      {
        id: 1,
        lines: [
          { costLineId: 7, amount: 500 },
          { costLineId: 8, amount: 300 },
        ],
      },
      { id: 2, lines: [{ costLineId: 7, amount: 600 }] },
      { id: 3, lines: [{ costLineId: 7, amount: -100 }] },
    ],
    new Map([
      [7, 900],
      [8, -50],
    ]),
  );
  expect([...spent]).toEqual([
    [1, 500],
    [2, 400],
    [3, 0],
  ]);
});
