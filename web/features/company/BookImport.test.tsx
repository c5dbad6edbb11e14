/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import type { ImportPreview, ImportTotals } from '../../../wire/book';
import { openPage, type Replies } from '../../test/openPage';
import { BookImport } from './BookImport';

afterEach(cleanup);

const before: ImportTotals = {
  asOf: '2031-04-30',
  digits: 2,
  jobs: 2,
  contractSum: 5_000_000,
  cost: 412_550,
  earned: 600_000,
  billed: 380_000,
  ties: true,
};
const preview = (more: Partial<ImportPreview> = {}): ImportPreview => ({
  files: [{ name: 'costs', rows: 6, there: null }],
  faults: [],
  more: 0,
  before,
  after: { ...before, cost: 826_100 },
  identical: { count: 0, amount: 0, first: [] },
  ...more,
});
const open = (of: ImportPreview, more: Replies = {}) =>
  openPage(BookImport, '/set-up', '/set-up', { previewImport: of, ...more });
const choose = async () => {
  const input = await screen.findByLabelText('Import CSV files or a ZIP …');
  fireEvent.change(input, { target: { files: [new File(['dated\n'], 'costs.csv')] } });
  return screen.findByRole('region', { name: 'What the import would bring' });
};

test('what the books come to is shown before and after, and nothing is imported until it is taken', async () => {
  const { asked } = open(preview(), { importBook: { costs: 6 } });
  const seen = await choose();
  // 4,125.50 of cost before; the six rows of 4,135.50 more after.
  expect(within(seen).getByRole('row', { name: /Cost to date/ }).textContent).toBe('Cost to date4,125.508,261.00');
  expect(asked.filter((it) => it.call === 'importBook')).toEqual([]);
  fireEvent.click(within(seen).getByRole('button', { name: 'Import 6 rows' }));
  await waitFor(() => expect(asked.filter((it) => it.call === 'importBook').map((it) => it.query)).toEqual([{}]));
  await waitFor(() => expect(screen.queryByRole('region', { name: 'What the import would bring' })).toBeNull());
});

test('costs that are there word for word are named with what they come to, and can be left out', async () => {
  const first = [{ job: 'J1', reference: 'D7', party: 'PANEL', dated: '2031-02-11', amount: 100_000 }];
  const { asked } = open(preview({ identical: { count: 5, amount: 412_550, first } }), { importBook: { costs: 1 } });
  const seen = await choose();
  expect(within(seen).getByRole('alert').textContent).toBe(
    '5 costs, 4,125.50, identical to costs that already existJob J1, 11 Feb 2031, PANEL D7: 1,000.00and 4 more',
  );
  fireEvent.click(within(seen).getByRole('button', { name: 'Skip duplicates' }));
  await waitFor(() =>
    expect(asked.filter((it) => it.call === 'importBook').map((it) => it.query)).toEqual([{ identical: 'skip' }]),
  );
});

test('the same files again: the verdict stands first, what is not compared says so, and nothing can be taken', async () => {
  const files = [
    { name: 'customers', rows: 2, there: 2 },
    { name: 'receipts', rows: 9, there: null },
  ];
  open(preview({ files, faults: ['customers.csv:2: customer: duplicate key: HILL is already there'], more: 1, after: null }));
  const seen = await choose();
  expect(within(seen).getByRole('alert').textContent).toMatch(
    /^These rows already exist.*2 faults; nothing can be imported.*and 1 more\.$/,
  );
  expect(
    within(seen)
      .getAllByRole('row')
      .map((it) => it.textContent),
  ).toEqual(['FileRowsNewAlready there', 'customers202', 'receipts99not compared']);
  expect(
    within(seen)
      .getAllByRole('button')
      .map((it) => it.textContent),
  ).toEqual(['Close']);
  fireEvent.click(within(seen).getByRole('button', { name: 'Close' }));
  expect(screen.queryByRole('region')).toBeNull();
});

test('files that cannot be read are refused in words, and others can be chosen', async () => {
  open(preview(), { previewImport: { status: 400, body: { message: 'files: none of the files is a CSV file or a ZIP' } } });
  fireEvent.change(await screen.findByLabelText('Import CSV files or a ZIP …'), {
    target: { files: [new File(['x'], 'a.txt')] },
  });
  expect((await screen.findByRole('alert')).textContent).toContain('none of the files is a CSV file or a ZIP');
  expect(screen.getByLabelText<HTMLInputElement>('Import CSV files or a ZIP …').disabled).toBe(false);
});
