/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, expect, jest, test } from '@jest/globals';
import { cleanup, fireEvent, render, screen, within, waitFor } from '@testing-library/react';
import { displayExact } from '../../../core/money/display';
import { compareValues } from './compareValues';
import { asText, summaryOf } from './selection';
import { Figure } from '../Figure';
import { Table } from './Table';
import type { TableColumn } from './tableTypes';

interface Row {
  name: string;
  amount: number;
  hours: number | null;
}

const money = (cents: number) => displayExact(cents, 2);
const number = (value: number) => String(value);
const COLUMNS: TableColumn<Row>[] = [
  { key: 'name', title: 'Name', value: (it) => it.name, cell: (it) => it.name },
  { key: 'amount', title: 'Amount', value: (it) => it.amount, cell: (it) => money(it.amount), number: money },
  { key: 'hours', title: 'Hours', value: (it) => it.hours, cell: (it) => it.hours, number },
];
const ROWS: Row[] = [
  { name: 'Line 2', amount: 10_050, hours: 8 },
  { name: 'Line 10', amount: -50, hours: null },
  { name: 'Line 1', amount: 250, hours: 3 },
];

afterEach(cleanup);

function shown() {
  render(
    <Table
      label="Lines"
      columns={COLUMNS}
      rows={ROWS}
      rowKey={(it) => it.name}
      foot={{ label: 'Total', cells: { amount: '102.50' } }}
    />,
  );
  const names = () => [...document.querySelectorAll('tbody tr')].map((row) => row.querySelector('td')?.textContent);
  const cell = (text: string) => screen.getByText(text).closest('td')!;
  return { names, cell, box: screen.getByRole('region', { name: 'Lines' }) };
}

test('rows stand as given; a head sorts by it, text as people read numbers in it, and again the other way', () => {
  const { names } = shown();
  expect(names()).toEqual(['Line 2', 'Line 10', 'Line 1']);
  fireEvent.click(screen.getByRole('button', { name: 'Name' }));
  expect(names()).toEqual(['Line 1', 'Line 2', 'Line 10']);
  expect(screen.getByRole('columnheader', { name: /Name/ }).getAttribute('aria-sort')).toBe('ascending');
  fireEvent.click(screen.getByRole('button', { name: /Name/ }));
  expect(names()).toEqual(['Line 10', 'Line 2', 'Line 1']);
});

test('cells dragged over are added up in the foot and copied as a spreadsheet takes them', async () => {
  const { cell, box } = shown();
  fireEvent.mouseDown(cell('100.50'));
  fireEvent.mouseEnter(cell('2.50'));
  fireEvent.mouseUp(cell('2.50'));
  // 100.50 − 0.50 + 2.50 = 102.50 over three, 34.17 each.
  expect(within(box).getByText(/selected: sum/).textContent).toBe('3 selected: sum 102.50, average 34.17');
  const written = jest.fn<(text: string) => Promise<void>>(async () => undefined);
  Object.assign(navigator, { clipboard: { writeText: written } });
  fireEvent.keyDown(box, { key: 'c', ctrlKey: true });
  expect(written).toHaveBeenCalledWith('100.50\n−0.50\n2.50');
});

test('money and hours are not added up together, one figure alone is no sum, nothing comes last in a sort', () => {
  const at = (i: number, value: number) => ({ column: COLUMNS[i]!, value });
  expect(summaryOf([at(1, 100), at(2, 8)])).toBeNull();
  expect(summaryOf([at(1, 100)])).toBeNull();
  // 1.00 and 2.01: 3.01, on average 1.505, shown as 1.51.
  expect(summaryOf([at(1, 100), at(1, 201)])).toEqual({ count: 2, sum: '3.01', average: '1.51' });
  expect(
    asText([
      [
        { column: COLUMNS[0]!, value: 'Roof' },
        { column: COLUMNS[2]!, value: null },
      ],
    ]),
  ).toBe('Roof\t');
  expect([null, 'b', 3, 'A', 20].sort(compareValues)).toEqual([3, 20, 'A', 'b', null]);
});

test('groups fold under their sums, in the order they were given, however the rows are sorted', () => {
  const onFold = jest.fn();
  const groups = (folded: ReadonlySet<string>) => (
    <Table
      label="Lines"
      columns={COLUMNS}
      rows={ROWS}
      rowKey={(it) => it.name}
      groups={{
        of: (it) => (it.hours === null ? 'No hours' : 'Hours'),
        sums: (rows) => ({ amount: money(rows.reduce((sum, it) => sum + it.amount, 0)) }),
        folded,
        onFold,
      }}
    />
  );
  const { rerender } = render(groups(new Set()));
  const lines = () => screen.getAllByRole('row').map((it) => it.textContent);
  for (let i = 0; i < 2; i++) fireEvent.click(screen.getByRole('button', { name: /Amount/ }));
  // 100.50 + 2.50. Sorted from the least, −0.50 would come first; it stays in its group.
  expect(lines().slice(1)).toEqual([
    '–Hours 2103.00',
    'Line 12.503',
    'Line 2100.508',
    `–No hours 1${money(-50)}`,
    `Line 10${money(-50)}`,
  ]);
  fireEvent.click(screen.getByRole('button', { name: /No hours/ }));
  expect(onFold).toHaveBeenCalledWith('No hours');
  rerender(groups(new Set(['No hours'])));
  expect(lines()).toHaveLength(5);
});

test('of many rows those in view are asked for, and one that is not here yet is a line of its own', async () => {
  const onView = jest.fn();
  render(
    <Table
      label="Entries"
      columns={COLUMNS}
      rows={ROWS}
      rowKey={(it) => it.name}
      height="window"
      many={{ count: 5000, rowAt: (i) => ROWS[i], onView }}
      order={{ key: 'amount', descending: true, onOrder: jest.fn() }}
    />,
  );
  await waitFor(() => expect(onView).toHaveBeenCalledWith(0, expect.any(Number)));
  expect(screen.getByRole('table').getAttribute('aria-rowcount')).toBe('5000');
  const cells = screen.getAllByRole('cell').map((it) => it.textContent);
  // As they were given: the order is somebody else's.
  expect(cells.slice(0, 10)).toEqual(['Line 2', '100.50', '8', 'Line 10', money(-50), '', 'Line 1', '2.50', '3', '…']);
  expect(screen.getByRole('columnheader', { name: /Amount/ }).getAttribute('aria-sort')).toBe('descending');
});

test('by the keyboard cells are reached by arrows, figures opened by Enter, rows picked by Space; none is a stop of Tab', () => {
  const opened = jest.fn();
  const picked = jest.fn();
  const columns: TableColumn<{ name: string; amount: number }>[] = [
    { key: 'name', title: 'Name', value: (it) => it.name, cell: (it) => it.name },
    {
      key: 'amount',
      title: 'Amount',
      value: (it) => it.amount,
      number: String,
      cell: (it) => (
        <Figure label={`Amount of ${it.name}`} onOpen={() => opened(it.name)}>
          {String(it.amount)}
        </Figure>
      ),
    },
  ];
  const rows = [
    { name: 'One', amount: 1 },
    { name: 'Two', amount: 2 },
  ];
  render(<Table label="Lines" columns={columns} rows={rows} rowKey={(it) => it.name} onPick={picked} />);
  const box = screen.getByRole('region', { name: 'Lines' });
  for (const key of ['ArrowDown', 'ArrowDown', 'ArrowRight', 'Enter']) fireEvent.keyDown(box, { key });
  expect(opened).toHaveBeenCalledWith('Two');
  fireEvent.keyDown(box, { key: ' ' });
  expect(picked).toHaveBeenCalledWith([rows[1]]);
  expect(screen.getByRole('button', { name: /Amount of One/ }).tabIndex).toBe(-1);
});

test('a long list is narrowed to the rows in which every word is found, and the foot is of these alone', () => {
  const kinds: TableColumn<{ name: string; dated: string; amount: number; share: number }>[] = [
    { key: 'name', title: 'Name', value: (it) => it.name, cell: (it) => it.name },
    { key: 'dated', title: 'Date', value: (it) => it.dated, cell: (it) => it.dated },
    { key: 'amount', title: 'Amount', value: (it) => it.amount, number: money, adds: true, cell: (it) => money(it.amount) },
    { key: 'share', title: '%', value: (it) => it.share, number: String, cell: (it) => String(it.share) },
  ];
  const rows = Array.from({ length: 10 }, (_, i) => ({
    name: `Line ${i}`,
    dated: i < 4 ? '2031-04-30' : '2031-05-01',
    amount: 100 * (i + 1),
    share: i,
  }));
  const table = (of: typeof rows) => (
    <Table
      label="Lines"
      columns={kinds}
      rows={of}
      rowKey={(it) => it.name}
      foot={{ label: '10 lines', cells: { amount: '55.00', share: '45' } }}
    />
  );
  const { rerender } = render(table(rows));
  const find = screen.getByRole('searchbox', { name: 'Find in Lines' });
  const foot = () =>
    within(screen.getAllByRole('rowgroup').at(-1)!)
      .getAllByRole('cell')
      .map((it) => it.textContent);
  expect(foot()).toEqual(['10 lines', '55.00', '45']);
  // Lines 0 to 3 are of April: 1.00 + 2.00 + 3.00 + 4.00; a share does not add up.
  fireEvent.change(find, { target: { value: 'apr LINE' } });
  expect(foot()).toEqual(['4 of 10 found', '10.00', '']);
  fireEvent.change(find, { target: { value: 'apr 4.00' } });
  expect(foot()).toEqual(['1 of 10 found', '4.00', '']);
  fireEvent.change(find, { target: { value: 'nobody' } });
  expect(screen.getByText('Nothing in the list matches.')).toBeTruthy();
  fireEvent.keyDown(find, { key: 'Escape' });
  expect(foot()).toEqual(['10 lines', '55.00', '45']);
  rerender(table(rows.slice(0, 8)));
  expect(screen.queryByRole('searchbox')).toBeNull();
});
