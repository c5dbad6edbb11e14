import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { ForecastLine } from '../../../wire/forecasts';
import type { LookedLines } from '../../ground/costLines/useLookedLines';
import type { GridRow } from '../../kit/grid/gridTypes';
import { faultsShown, laidBack, shownLines } from './shownLines';

const line = (id: number) => ({ id }) as ForecastLine;
/** A look at some of the lines, grouped by their last digit, of which some groups are folded. */
const looked = (ids: readonly number[], whole: boolean, folded: readonly string[]) =>
  ({
    lines: ids.map((id) => ({ id })),
    whole,
    groupOf: (id: number) => String(id % 3),
    folded: new Set(folded),
  }) as unknown as LookedLines;

test('however lines are grouped, folded and left out: what is typed in a row goes to its line, and to no other', () => {
  const ids = fc.uniqueArray(fc.integer({ min: 1, max: 30 }), { minLength: 1, maxLength: 12 });
  const cases = ids.chain((all) =>
    fc.record({
      all: fc.constant(all),
      seen: fc.shuffledSubarray(all),
      folded: fc.subarray(['0', '1', '2']),
    }),
  );
  fc.assert(
    fc.property(cases, ({ all, seen, folded }) => {
      const lines = all.map(line);
      const shown = shownLines(lines, looked(seen, false, folded));
      const inSight = shown.places.map((place) => all[place]!);
      expect([...inSight].sort()).toEqual(seen.filter((id) => !folded.includes(String(id % 3))).sort());
      const before: GridRow[] = all.map((id) => ({ note: `was ${id}` }));
      const after = laidBack(
        inSight.map((id) => ({ note: `now ${id}` })),
        shown,
        before,
      );
      expect(after).toEqual(all.map((id) => ({ note: `${inSight.includes(id) ? 'now' : 'was'} ${id}` })));
      // Each name stands above the first of its rows, or where they would be.
      for (const [row, groups] of shown.above)
        for (const { name, lines: own, folded: isFolded } of groups)
          if (!isFolded) expect([name, shown.places[row]]).toEqual([String(all[own[0]!]! % 3), own[0]]);
    }),
  );
});

test('a line that came since the others were read stands last; faults go with their lines, those out of sight are counted', () => {
  const lines = [line(4), line(5), line(9)];
  // Groups 1, then 2; line 9 is not among the lines that are looked at yet, and of group 0.
  const shown = shownLines(lines, looked([5, 4], true, ['1']));
  expect([shown.places, [...shown.above].map(([row, groups]) => [row, groups.map((it) => it.name)])]).toEqual([
    [1, 2],
    [
      [0, ['2']],
      [1, ['1', '0']],
    ],
  ]);
  const { shown: faults, hidden } = faultsShown(
    new Map([
      ['0.note', 'a'],
      ['1.percent', 'b'],
      ['2.hours', 'c'],
    ]),
    shown,
  );
  expect([[...faults], hidden]).toEqual([
    [
      ['0.percent', 'b'],
      ['1.hours', 'c'],
    ],
    1,
  ]);
});
