/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { amount, tidyOf } from '../typed/codecs';
import { EntryGrid } from './EntryGrid';
import type { GridColumn, GridRow } from './gridTypes';

const COLUMNS: GridColumn[] = [
  {
    key: 'code',
    title: 'Code',
    width: 80,
    offers: () => [
      { value: '0340', label: 'Standing seam' },
      { value: '0350', label: 'Slating' },
    ],
  },
  { key: 'amount', title: 'Amount', width: 80, numeric: true, tidy: tidyOf(amount(2)) },
];
let kept: GridRow[] = [];

afterEach(cleanup);

function Sheet({ faults = new Map() }: { faults?: Map<string, string> }) {
  const [rows, setRows] = useState<GridRow[]>([{ code: '0350', amount: '1.00' }]);
  kept = rows;
  return <EntryGrid label="Lines" columns={COLUMNS} rows={rows} onRows={setRows} faults={faults} />;
}

const cell = (title: string, row: number) => screen.getByLabelText<HTMLInputElement>(`${title}, row ${row}`);
const type = (input: HTMLInputElement, text: string, key = 'Enter') => {
  fireEvent.focus(input);
  fireEvent.change(input, { target: { value: text } });
  fireEvent.keyDown(input, { key });
};

test('what is typed is tidied when the cell is left, Enter goes down, Ctrl Z takes it back', () => {
  render(<Sheet />);
  type(cell('Amount', 1), '1250');
  expect(kept).toEqual([{ code: '0350', amount: '1,250.00' }]);
  expect(document.activeElement).toBe(cell('Amount', 2));
  fireEvent.keyDown(cell('Amount', 2), { key: 'z', ctrlKey: true });
  expect(kept).toEqual([{ code: '0350', amount: '1.00' }]);
});

test('letters are completed to the first offer; what cannot be read stays as typed', () => {
  render(<Sheet />);
  type(cell('Code', 2), 'seam');
  type(cell('Amount', 2), 'twelve');
  expect(kept[1]).toEqual({ code: '0340', amount: 'twelve' });
});

test('a block pasted from a spreadsheet fills cells and makes rows; Alt ↓ fills a column down; a row is removed', () => {
  render(<Sheet />);
  fireEvent.paste(cell('Code', 1), { clipboardData: { getData: () => '0340\t2\n0350\t3.5\n' } });
  expect(kept).toEqual([
    { code: '0340', amount: '2.00' },
    { code: '0350', amount: '3.50' },
  ]);
  fireEvent.keyDown(cell('Code', 1), { key: 'ArrowDown', altKey: true });
  expect(kept.map((it) => it.code)).toEqual(['0340', '0340']);
  fireEvent.click(screen.getByRole('button', { name: 'Remove row 1' }));
  expect(kept).toEqual([{ code: '0340', amount: '3.50' }]);
});

test('a fault stands at its cell and is read out with it', () => {
  render(<Sheet faults={new Map([['0.amount', 'Too much']])} />);
  const input = cell('Amount', 1);
  expect(input.getAttribute('aria-invalid')).toBe('true');
  expect(document.getElementById(input.getAttribute('aria-describedby')!)?.textContent).toBe('Too much');
});
