import { expect, test } from '@jest/globals';
import { amount, quantity, words } from '../typed/codecs';
import type { GridColumn } from './gridTypes';
import { fillRange, holds, rangeSummary, rangeText, type Range } from './range';
import { columnsOf } from './rowCodecs';

const COLUMNS: GridColumn[] = columnsOf({ name: words(), hours: quantity, cost: amount(2), fee: amount(2) }, [
  { key: 'name', title: 'Name', width: 80 },
  { key: 'hours', title: 'Hours', width: 80 },
  { key: 'cost', title: 'Cost', width: 80 },
  { key: 'sum', title: 'Sum', width: 80, show: (row) => `${row.cost} and ${row.fee}` },
  { key: 'fee', title: 'Fee', width: 80 },
]);
const ROWS = [
  { name: 'A\tB', hours: '8', cost: '1,250.00', fee: '0.50' },
  { name: 'C', hours: '', cost: 'soon', fee: '(0.25)' },
];
const range = (top: number, left: number, bottom: number, right: number): Range => ({
  from: { row: bottom, at: left },
  to: { row: top, at: right },
});

test('a range is the cells between two corners, whichever came first', () => {
  const chosen = range(1, 1, 3, 2);
  expect([holds(chosen, { row: 2, at: 1 }), holds(chosen, { row: 0, at: 1 }), holds(chosen, { row: 2, at: 3 })]).toEqual([
    true,
    false,
    false,
  ]);
});

test('it is copied as a spreadsheet takes it, worked-out cells as they show', () => {
  expect(rangeText(COLUMNS, ROWS, range(0, 0, 1, 3))).toBe('"A\tB"\t8\t1,250.00\t1,250.00 and 0.50\nC\t\tsoon\tsoon and (0.25)');
});

test('amounts of several columns add up, what cannot be read is passed over; hours and amounts do not add up', () => {
  // 1,250.00 + 0.50 − 0.25 = 1,250.25 over three: 416.75 each.
  expect(rangeSummary(COLUMNS, ROWS, range(0, 2, 1, 4))).toEqual({ count: 3, sum: '1,250.25', average: '416.75' });
  expect(rangeSummary(COLUMNS, ROWS, range(0, 1, 0, 2))).toBeNull();
  expect(rangeSummary(COLUMNS, ROWS, range(0, 0, 1, 0))).toBeNull();
});

test('filled beyond the last row it makes rows; cells that are worked out stay so, and rows beside it are the same objects', () => {
  const filled = fillRange(COLUMNS, ROWS, range(1, 2, 2, 4), (key, down) => `${key} ${down}`);
  expect(filled).toEqual([ROWS[0], { ...ROWS[1], cost: 'cost 0', fee: 'fee 0' }, { cost: 'cost 1', fee: 'fee 1' }]);
  expect(filled[0]).toBe(ROWS[0]);
});
