import { expect, test } from '@jest/globals';
import { repeatRows } from './repeatRows';

test('a section once more for each name: its rows alone, with numbers that are free, and no hidden identity', () => {
  const rows = [
    { id: 'a', line: '1', section: 'Lot 1', description: 'Roof' },
    { id: 'b', line: '2', section: 'Other', description: 'x' },
    { id: 'c', line: '1-2', section: 'Other', description: 'taken' },
  ];
  expect(repeatRows(rows, 'Lot 1', ['Lot 2', 'Lot 3'], 'line')).toEqual([
    { line: '1-3', section: 'Lot 2', description: 'Roof' },
    { line: '1-4', section: 'Lot 3', description: 'Roof' },
  ]);
  expect(repeatRows([{ section: 'A', code: '100' }], 'A', ['B'], null)).toEqual([{ section: 'B', code: '100' }]);
});
