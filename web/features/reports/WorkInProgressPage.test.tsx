/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, within } from '@testing-library/react';
import { STATUS_FIGURE_NAMES, STATUS_FIGURES } from '../../../core/progress/contractStatus';
import { PROGRESS_FIGURES, REPORT_FIGURES, type ProgressFigure } from '../../../core/progress/figures';
import type { ReportReply } from '../../../wire/reports';
import { EMPTY_LISTS } from '../../test/emptyLists';
import { openPage } from '../../test/openPage';
import { WorkInProgressPage } from './WorkInProgressPage';

// A window wide enough for all columns.
beforeEach(() => {
  localStorage.clear();
  window.innerWidth = 1280;
});
afterEach(cleanup);

type Row = ReportReply['rows'][number];
const COLUMNS = REPORT_FIGURES.map(({ figure, column, title, unit }) => ({
  key: column,
  title,
  figure,
  kind: unit === 'percent' ? ('percent' as const) : ('amount' as const),
}));
/** A row of the schedule, figures in pounds and whole per cents, the others nothing. */
function row(job: string, figures: Partial<Record<ProgressFigure, number>>): Row {
  const cells = REPORT_FIGURES.map(({ figure, column, unit }) => [
    column,
    (figures[figure] ?? 0) * (unit === 'percent' ? 10_000 : 100),
  ]);
  return { job, name: `Job ${job}`, ...Object.fromEntries(cells) };
}

const ROWS = [
  row('2101', { contractSum: 1000, estimatedProfit: 200, margin: 20, overbilled: 50 }),
  row('2102', { contractSum: 400, estimatedProfit: -40, margin: -10, underbilled: 30, lossProvision: 15 }),
];
const TOTAL = row('TOTAL', { contractSum: 1400, estimatedProfit: 160, overbilled: 50, underbilled: 30, lossProvision: 15 });
/** Overrun alone is looked at: 30.00 on the second job. */
const STATUS = ['2101', '2102', 'TOTAL'].map((job) => ({
  job,
  name: '',
  ...Object.fromEntries(STATUS_FIGURE_NAMES.map((it) => [STATUS_FIGURES[it].column, 0])),
  overrun: job === '2101' ? 0 : 3000,
}));
const open = (rows: Row[]) =>
  openPage(WorkInProgressPage, '/', '/', {
    lists: EMPTY_LISTS,
    report: ({ path }) =>
      path.endsWith('/contract-status')
        ? { name: 'contract-status', title: '', columns: [], rows: STATUS, hasTotal: true }
        : { name: 'wip', title: '', columns: COLUMNS, rows, hasTotal: true },
  });
const rowOf = (text: string) => within(screen.getByText(text).closest('tr')!);
const heads = () => screen.getAllByRole('columnheader').map((it) => it.textContent?.replace(/[↑↓]/g, '').trim());

test('every figure of the registry has its column, over- and underbilled sharing one; a loss is marked on profit and provision', async () => {
  open([...ROWS, TOTAL]);
  await screen.findByText('2101');
  const titles = Object.values(PROGRESS_FIGURES)
    .map(({ title }) => title)
    .filter((it) => it !== 'Underbilled');
  expect(heads()).toEqual(['Job', 'under | over', ...titles.map((it) => (it === 'Overbilled' ? 'Over / under billed' : it))]);
  expect(rowOf('2102').getAllByTitle('loss')).toHaveLength(2);
  expect(rowOf('2101').queryAllByTitle('loss')).toHaveLength(0);
  expect(screen.getByText('2 jobs, GBP').closest('tr')?.textContent).toContain('1,400.00');
});

test('a column that is hidden stays hidden when the page is opened again, the button says so, and all are shown again', async () => {
  open([...ROWS, TOTAL]);
  await screen.findByText('2101');
  const before = heads().length;
  fireEvent.click(screen.getByRole('button', { name: /^Columns/ }));
  fireEvent.click(await screen.findByRole('checkbox', { name: 'Backlog' }));
  expect(heads()).not.toContain('Backlog');
  cleanup();
  open([...ROWS, TOTAL]);
  await screen.findByText('2101');
  const hidden = before - heads().length;
  // The columns of the contract status are hidden from the start.
  expect(await screen.findByRole('button', { name: `Columns (${hidden + 7} hidden)` })).toBeDefined();
  fireEvent.click(screen.getByRole('button', { name: /^Columns/ }));
  fireEvent.click(await screen.findByRole('button', { name: 'Show all' }));
  expect(heads()).toContain('Backlog');
});

test('what the contract status has beside is chosen: hidden at first, each job with its own', async () => {
  open([...ROWS, TOTAL]);
  await screen.findByText('2101');
  const choose = await screen.findByRole('button', { name: 'Columns (7 hidden)' });
  expect(heads()).not.toContain('Overrun');
  fireEvent.click(choose);
  fireEvent.click(await screen.findByRole('checkbox', { name: 'Overrun' }));
  const place = heads().indexOf('Overrun');
  const cellOf = (text: string) => screen.getByText(text).closest('tr')!.children[place]?.textContent;
  expect([cellOf('2101'), cellOf('2102'), cellOf('2 jobs, GBP')]).toEqual(['–', '30.00', '30.00']);
});

test('no job awarded yet is said in words', async () => {
  open([TOTAL]);
  expect(await screen.findByText('No jobs awarded to date.')).toBeDefined();
});

test('grouped by department, each group stands under its name with what it comes to, and the address says so', async () => {
  const asked: Record<string, string>[] = [];
  const grouped = [
    { ...ROWS[0], group: 'CLAD' },
    { ...ROWS[1], group: '' },
  ] as Row[];
  const groups = [
    { code: 'CLAD', name: 'CLAD Cladding', total: ROWS[0]! },
    { code: '', name: 'No department', total: ROWS[1]! },
  ];
  openPage(WorkInProgressPage, '/', '/?by=department&department=CLAD', {
    lists: { ...EMPTY_LISTS, departments: [{ code: 'CLAD', name: 'Cladding' }] },
    report: ({ path, query }) => {
      asked.push(query);
      const rows = path.endsWith('/contract-status') ? STATUS : [...grouped, TOTAL];
      return { name: 'wip', title: '', columns: COLUMNS, rows, hasTotal: true, groups };
    },
  });
  const head = (await screen.findByRole('button', { name: /No department/ })).closest('tr')!;
  expect(head.textContent).toContain('400.00');
  expect(asked[0]).toMatchObject({ by: 'department', department: 'CLAD' });
  const files = screen.getAllByRole('link', { name: 'CSV' }).map((it) => it.getAttribute('href'));
  expect(files.every((it) => it?.includes('by=department') && it.includes('department=CLAD'))).toBe(true);
  fireEvent.click(screen.getByRole('button', { name: /CLAD Cladding/ }));
  expect(screen.queryByText('2101')).toBeNull();
});
