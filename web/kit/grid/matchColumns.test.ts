import { expect, test } from '@jest/globals';
import type { GridColumn } from './gridTypes';
import { matchedRows, proposeMatching } from './matchColumns';
import { amount, tidyOf } from '../typed/codecs';

const COLUMNS: GridColumn[] = [
  { key: 'line', title: 'Line', width: 1 },
  { key: 'description', title: 'Description', width: 1 },
  { key: 'value', title: 'Scheduled value', width: 1, tidy: tidyOf(amount(2)) },
  { key: 'unit', title: 'Unit', width: 1 },
  { key: 'worked', title: 'Unit worked out', width: 1, show: () => null },
];

test('heads are matched by what they are, begin with or hold; each column once; what is remembered wins', () => {
  const heads = ['No', 'Unit price', 'Description of work', 'Line no.', 'VALUE', 'Unit'];
  expect(proposeMatching(COLUMNS, heads, null)).toEqual({ line: 3, description: 2, value: 4, unit: 5 });
  expect(proposeMatching(COLUMNS, ['', 'x'], null)).toEqual({ line: null, description: null, value: null, unit: null });
  expect(proposeMatching(COLUMNS, heads, { line: 0, description: 2, value: null, unit: null }).line).toBe(0);
});

test('rows come tidied, without the columns that are not matched and the rows that hold nothing', () => {
  const matching = { line: 1, description: null, value: 0, unit: null };
  expect(
    matchedRows(COLUMNS, matching, [
      ['12500', '1', 'x'],
      ['', '', 'note'],
      ['no amount', '2'],
    ]),
  ).toEqual([
    { line: '1', value: '12,500.00' },
    { line: '2', value: 'no amount' },
  ]);
});
