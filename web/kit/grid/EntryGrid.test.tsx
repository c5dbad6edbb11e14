/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, expect, jest, test } from '@jest/globals';
import { act, cleanup, fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { amount } from '../typed/codecs';
import { EntryGrid } from './EntryGrid';
import type { GridColumn, GridRow } from './gridTypes';
import { typedBy } from './rowCodecs';

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
  { key: 'amount', title: 'Amount', width: 80, ...typedBy(amount(2)) },
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

test('a selected cell is replaced by the first key, however often it is pressed; F2, Enter and a double click edit it', () => {
  render(<Sheet />);
  const input = cell('Amount', 1);
  const whole = () => [input.selectionStart, input.selectionEnd];
  act(() => input.focus());
  // A press puts a caret: let go, all of it is selected again.
  input.setSelectionRange(1, 1);
  fireEvent.mouseUp(input);
  expect(whole()).toEqual([0, 4]);
  for (const edit of [
    () => fireEvent.keyDown(input, { key: 'F2' }),
    () => fireEvent.keyDown(input, { key: 'Enter' }),
    () => fireEvent.doubleClick(input),
  ]) {
    edit();
    input.setSelectionRange(4, 4);
    fireEvent.mouseUp(input);
    expect(whole()).toEqual([4, 4]);
    fireEvent.keyDown(input, { key: 'Escape' });
    fireEvent.mouseUp(input);
    expect(whole()).toEqual([0, 4]);
  }
});

test('Home and End go to the ends of the row, with Ctrl of the grid; Enter after Tabs goes to where the row began', () => {
  render(<Sheet />);
  const at = (title: string, row: number) => expect(document.activeElement).toBe(cell(title, row));
  act(() => cell('Code', 1).focus());
  fireEvent.keyDown(cell('Code', 1), { key: 'End' });
  at('Amount', 1);
  fireEvent.keyDown(cell('Amount', 1), { key: 'Home' });
  at('Code', 1);
  fireEvent.keyDown(cell('Code', 1), { key: 'Tab' });
  act(() => cell('Amount', 1).focus());
  fireEvent.keyDown(cell('Amount', 1), { key: 'Enter' });
  at('Code', 2);
  fireEvent.keyDown(cell('Code', 2), { key: 'Home', ctrlKey: true });
  at('Code', 1);
});

test('a simple sum is worked out when the cell is left', () => {
  render(<Sheet />);
  type(cell('Amount', 1), '=12*3');
  expect(kept[0]?.amount).toBe('36.00');
  type(cell('Amount', 2), '=100/3');
  expect(kept[1]?.amount).toBe('33.33');
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

test('dragging selects cells and moves nothing; what is selected is added up, copied, emptied, and taken back and forth', () => {
  render(<Sheet />);
  type(cell('Amount', 2), '2.50');
  const td = (title: string, row: number) => cell(title, row).closest('td')!;
  fireEvent.mouseDown(td('Code', 1));
  // The text of a cell is never dragged out of it.
  expect(fireEvent.dragStart(cell('Code', 1))).toBe(false);
  fireEvent.mouseEnter(td('Amount', 2));
  fireEvent.mouseUp(window);
  expect(document.querySelectorAll('td[data-selected]')).toHaveLength(4);
  // 1.00 + 2.50 = 3.50, 1.75 each.
  expect(screen.getByText(/selected: sum/).textContent).toBe('2 selected: sum 3.50, average 1.75');
  const setData = jest.fn();
  fireEvent.copy(cell('Code', 1), { clipboardData: { setData } });
  expect(setData).toHaveBeenCalledWith('text/plain', '0350\t1.00\n\t2.50');
  fireEvent.keyDown(cell('Code', 1), { key: 'Delete' });
  expect(kept).toEqual([
    { code: '', amount: '' },
    { code: '', amount: '' },
  ]);
  fireEvent.keyDown(cell('Code', 1), { key: 'z', ctrlKey: true });
  expect(kept).toEqual([{ code: '0350', amount: '1.00' }, { amount: '2.50' }]);
  fireEvent.keyDown(cell('Code', 1), { key: 'y', ctrlKey: true });
  expect(kept[0]).toEqual({ code: '', amount: '' });
});

test('Shift and arrows select, Ctrl D fills down from the first, the handle repeats what it is dragged over', () => {
  render(<Sheet />);
  act(() => cell('Amount', 1).focus());
  for (let i = 0; i < 2; i++) fireEvent.keyDown(cell('Amount', 1), { key: 'ArrowDown', shiftKey: true });
  fireEvent.keyDown(cell('Amount', 1), { key: 'd', ctrlKey: true });
  expect(kept.map((it) => it.amount)).toEqual(['1.00', '1.00']);
  act(() => cell('Code', 1).focus());
  const handle = cell('Code', 1).closest('td')!.querySelector('.fill-handle')!;
  fireEvent.mouseDown(handle);
  fireEvent.mouseEnter(cell('Code', 2).closest('td')!);
  fireEvent.mouseUp(window);
  expect(kept.map((it) => it.code)).toEqual(['0350', '0350']);
});

test('Esc takes back what is typed, then the selection, then leaves the cell; an arrow comes back', () => {
  render(<Sheet />);
  act(() => cell('Amount', 1).focus());
  fireEvent.change(cell('Amount', 1), { target: { value: '9' } });
  fireEvent.keyDown(cell('Amount', 1), { key: 'Escape' });
  expect(cell('Amount', 1).value).toBe('1.00');
  fireEvent.keyDown(cell('Amount', 1), { key: 'Escape' });
  const box = document.activeElement!;
  expect(box.contains(cell('Amount', 1))).toBe(true);
  fireEvent.keyDown(box, { key: 'ArrowDown' });
  expect(document.activeElement).toBe(cell('Amount', 1));
});

test('a block with the heads of its columns goes where they say, in whatever order, and the heads are no row', () => {
  render(<Sheet />);
  fireEvent.paste(cell('Code', 2), { clipboardData: { getData: () => 'Amount GBP\tCode\n2\t0340\n3.5\t0350\n' } });
  expect(kept).toEqual([
    { code: '0350', amount: '1.00' },
    { code: '0340', amount: '2.00' },
    { code: '0350', amount: '3.50' },
  ]);
});

const WITH_NOTE: GridColumn[] = [...COLUMNS.slice(0, 1), { key: 'note', title: 'Note', width: 80 }, ...COLUMNS.slice(1)];
const NOTE_HIDDEN = new Set(['note']);

test('a block pasted goes into what is shown; one that is wider fills the hidden columns too, and none is moved over', () => {
  const { container } = render(
    <EntryGrid
      label="Lines"
      columns={WITH_NOTE}
      hidden={NOTE_HIDDEN}
      rows={[]}
      onRows={(rows) => (kept = rows)}
      faults={new Map()}
    />,
  );
  expect(container.querySelectorAll('thead th')).toHaveLength(4);
  const paste = (text: string) => fireEvent.paste(cell('Code', 1), { clipboardData: { getData: () => text } });
  paste('0340\t5\n');
  expect(kept).toEqual([{ code: '0340', amount: '5.00' }]);
  paste('0340\tWet\t5\n');
  expect(kept).toEqual([{ code: '0340', note: 'Wet', amount: '5.00' }]);
});
