import { expect, test } from '@jest/globals';
import { doubledHours } from './doubledHours';

const at = (employee: string, hours: number, more = {}) => ({
  employee,
  dated: '2031-11-10',
  job: '101',
  section: 'Roof',
  costCode: '100',
  hours: hours * 10_000,
  ...more,
});

test('the same person, day and task on another sheet is told once a sheet; another task, day or person is not', () => {
  const lines = [at('E1', 9), at('E1', 1), at('E2', 8), at('E3', 0)];
  const elsewhere = [
    { ...at('E1', 5), sheet: '1' },
    { ...at('E1', 4), sheet: '1' },
    { ...at('E1', 2), sheet: '3' },
    { ...at('E2', 8, { section: 'Wall' }), sheet: '1' },
    { ...at('E2', 8, { dated: '2031-11-11' }), sheet: '1' },
    { ...at('E3', 8), sheet: '1' },
  ];
  expect(doubledHours(lines, elsewhere).map((it) => [it.line, it.sheet, it.hours])).toEqual([
    [lines[0], '1', 90_000],
    [lines[0], '3', 20_000],
  ]);
  // Corrected there: what was reversed nets to zero.
  expect(
    doubledHours(
      [at('E1', 9)],
      [
        { ...at('E1', 9), sheet: '1' },
        { ...at('E1', -9), sheet: '1' },
      ],
    ),
  ).toEqual([]);
});
