import { expect, test } from '@jest/globals';
import { ROW_KEY } from './gridTypes';
import { repeatRows } from './repeatRows';

test('a section once more for each name: its rows alone, with numbers that are free, and no hidden identity', () => {
  const rows = [
    { [ROW_KEY]: 'a', line: '1', section: 'Lot 1', description: 'Roof' },
    { [ROW_KEY]: 'b', line: '2', section: 'Other', description: 'x' },
    { [ROW_KEY]: 'c', line: '1-2', section: 'Other', description: 'taken' },
  ];
  expect(repeatRows(rows, 'Lot 1', ['Lot 2', 'Lot 3'], 'line')).toEqual([
    { line: '1-3', section: 'Lot 2', description: 'Roof' },
    { line: '1-4', section: 'Lot 3', description: 'Roof' },
  ]);
  expect(repeatRows([{ section: 'A', code: '100' }], 'A', ['B'], null)).toEqual([{ section: 'B', code: '100' }]);
});
