import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { EstimateLine } from '../../../wire/jobs';
import { estimateLine } from '../../test/costLines';
import { filtered, grouped, WORDS, wordsOf, type Wording } from './lineLook';

const line = (more: Partial<EstimateLine>) => estimateLine({ description: 'Framing', actual: 0, ...more });

test('conditions all hold: words in any case, figures at least and at most', () => {
  const lines = [
    line({ id: 1, actual: 500, serves: ['1'] }),
    line({ id: 2, section: 'B', actual: 900, variance: -1 }),
    line({ id: 3, section: '', costType: 'material', actual: 900, budgeted: false }),
  ];
  const ids = (...conditions: Parameters<typeof filtered>[1]) => filtered(lines, conditions).map((it) => it.id);
  expect(ids({ column: 'code', is: 'holds', value: 'FRAM' })).toEqual([1, 2, 3]);
  expect(ids({ column: 'state', is: 'holds', value: 'over' })).toEqual([2]);
  expect(ids({ column: 'section', is: 'holds', value: 'no section' })).toEqual([3]);
  expect(ids({ column: 'sov', is: 'holds', value: '1' })).toEqual([1]);
  expect(ids({ column: 'actual', is: 'at-least', value: 900 }, { column: 'type', is: 'holds', value: 'labour' })).toEqual([2]);
  expect(ids({ column: 'actual', is: 'at-most', value: 500 })).toEqual([1]);
});

test('however they are grouped, no line is lost and those of a group stand together', () => {
  const lines = fc.array(
    fc
      .record({
        section: fc.constantFrom('', 'A', 'B'),
        costCode: fc.constantFrom('100', '200'),
        actual: fc.integer(),
        budgeted: fc.boolean(),
      })
      .map(line),
  );
  fc.assert(
    fc.property(lines, fc.constantFrom(...(Object.keys(WORDS) as Wording[]), 'none' as const), (all, by) => {
      const lines = grouped(all, by);
      expect(new Set(lines)).toEqual(new Set(all));
      if (by === 'none') return;
      const changes = lines.filter((it, i) => i > 0 && wordsOf(it, by) !== wordsOf(lines[i - 1]!, by)).length;
      expect(changes).toBe(Math.max(0, new Set(all.map((it) => wordsOf(it, by))).size - 1));
    }),
  );
});
