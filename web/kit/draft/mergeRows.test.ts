import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { ROW_KEY } from '../grid/gridTypes';
import { mergeRows, sameRows, withKeys } from './mergeRows';

const row = (key: string, amount: string, more: Record<string, string> = {}) => ({ [ROW_KEY]: key, amount, ...more });

describe('rows typed here and elsewhere', () => {
  test('a line that comes in between moves no amount: rows are held by key', () => {
    const base = [row('1', '100'), row('2', '200')];
    const mine = [row('1', '100'), row('2', '1,600.00')];
    const theirs = [row('1', '100'), row('X', ''), row('2', '200')];
    expect(mergeRows(base, mine, theirs)).toEqual({
      rows: [row('1', '100'), row('X', ''), row('2', '1,600.00')],
      taken: [],
      clashes: [],
    });
  });

  test('cell by cell where both changed a row, and as a whole where cells follow from one another; what is typed here stands', () => {
    const base = [row('1', '100', { note: 'a' })];
    const [mine, theirs] = [[row('1', '150', { note: 'a' })], [row('1', '120', { note: 'b' })]];
    expect(mergeRows(base, mine, theirs)).toEqual({ rows: [row('1', '150', { note: 'b' })], taken: [], clashes: ['1'] });
    expect(mergeRows(base, [row('1', '150', { note: 'a' })], [row('1', '100', { note: 'b' })])).toMatchObject({ clashes: [] });
    expect(mergeRows(base, mine, theirs, true)).toEqual({ rows: mine, taken: [], clashes: ['1'] });
  });

  test('a row removed elsewhere goes, unless it was changed here; one removed here goes, unless it was changed elsewhere', () => {
    const base = [row('1', '100'), row('2', '200')];
    expect(mergeRows(base, base, [row('1', '100')]).rows).toEqual([row('1', '100')]);
    expect(mergeRows(base, [row('1', '100'), row('2', '5')], [row('1', '100')])).toEqual({
      rows: [row('1', '100'), row('2', '5')],
      taken: [],
      clashes: ['2'],
    });
    expect(mergeRows(base, [row('1', '100')], [row('1', '100'), row('2', '7')])).toEqual({
      rows: [row('1', '100'), row('2', '7')],
      taken: [],
      clashes: ['2'],
    });
  });

  test('lines of two windows stand one after another', () => {
    expect(mergeRows([], [row('a', '1')], [row('b', '2')]).rows.map((it) => it.amount)).toEqual(['1', '2']);
  });
});

test('a copied row gets a key of its own; a blank one has none', () => {
  const [first, copy, blank] = withKeys([row('1', '5'), row('1', '5'), {}]);
  expect([first?.[ROW_KEY], copy?.[ROW_KEY] === '1', blank]).toEqual(['1', false, {}]);
});

test('what one side did not touch is as the other has it, and no row that was typed is lost', () => {
  const key = fc.constantFrom('a', 'b', 'c', 'd', 'e');
  const rows = fc.uniqueArray(fc.record({ [ROW_KEY]: key, amount: fc.constantFrom('1', '2', '3') }), {
    selector: (it) => it[ROW_KEY] as string,
  }) as fc.Arbitrary<Record<string, string>[]>;
  fc.assert(
    fc.property(rows, rows, rows, (base, mine, theirs) => {
      expect(sameRows(mergeRows(base, base, theirs).rows, theirs)).toBe(true);
      const kept = mergeRows(base, mine, base).rows;
      expect(kept.map((it) => it[ROW_KEY]).sort()).toEqual(mine.map((it) => it[ROW_KEY]).sort());
      const merged = new Map(mergeRows(base, mine, theirs).rows.map((it) => [it[ROW_KEY], it.amount]));
      for (const it of mine) {
        const was = base.find((other) => other[ROW_KEY] === it[ROW_KEY]);
        if (was?.amount !== it.amount) expect(merged.get(it[ROW_KEY])).toBe(it.amount);
      }
    }),
  );
});
