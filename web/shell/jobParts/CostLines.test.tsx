/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import type { LabourTaskRow } from '../../../wire/labour';
import { estimateLine, forecastLine } from '../../test/costLines';
import { openPage, type Replies } from '../../test/openPage';
import { cell, choose, put } from '../../test/typing';
import { CostLines } from './CostLines';

afterEach(() => {
  cleanup();
  localStorage.clear();
});

const progress = {
  budgeted: 2_000_000,
  used: 500_000,
  percentUsed: 250_000,
  percentDone: 250_000,
  toFinish: 1_500_000,
  atCompletion: 2_000_000,
  over: 0,
};
const task: LabourTaskRow = {
  ...progress,
  id: 1,
  section: 'North',
  costCode: '100',
  description: 'Decks',
  job: 'J1',
  jobName: 'Sheds',
  inBudget: true,
  doneUnknown: false,
  quantity: null,
  unit: '',
  installed: null,
  perUnit: { planned: null, achieved: null },
};
const LINES = [
  { id: 1, section: 'North', costCode: '100' },
  { id: 2, section: 'North', costCode: '200', costType: 'material' as const },
  { id: 3, section: 'South', costCode: '300', costType: 'material' as const },
];
const open = (more: Replies = {}) =>
  openPage(CostLines, '/jobs/:number/budget', '/jobs/J1/budget?as-of=2031-04', {
    estimateVersusActual: {
      lines: LINES.map(estimateLine),
      revenue: [],
      unserved: { revised: 0, actual: 0, estimate: 0 },
    },
    forecast: {
      seen: 'as read',
      on: '2031-04-30',
      contractSum: 4_000_000,
      contractSumLastMonth: 4_000_000,
      closed: null,
      finished: false,
      lines: LINES.map(forecastLine),
    },
    labourOfJob: { tasks: [task], total: progress },
    lineQuantities: [],
    jobSetup: { frozen: true } as never,
    transfers: [],
    approvals: [],
    ...more,
  });
const go = (view: string | RegExp) => fireEvent.click(screen.getByRole('button', { name: view }));

test('the lines are looked at in one way in every view, and a forecast typed stays while another view is shown', async () => {
  const { sent } = open({ saveForecast: {} } as Replies);
  const budget = await screen.findByRole('table', { name: 'Estimate versus actual' });
  expect(within(budget).getByRole('button', { name: /South/ })).toBeDefined();
  await choose('Grouped by', 'Cost type');
  go('Forecast');
  const grid = await screen.findByRole('grid', { name: 'Forecast by cost line' });
  const heading = (name: RegExp) => within(grid).getByRole('button', { name }).closest('tr')!;
  // Two lines of material at 10,000.00 each; the second of them is the third of the job.
  expect(within(heading(/material 2/)).getAllByText('20,000.00').length).toBeGreaterThan(0);
  await put('Cost to complete', 3, '9000');
  expect(within(heading(/material 2/)).getAllByText('23,000.00')).toHaveLength(1);
  // Folded, the faulty line is out of sight, and is counted.
  await put('% done', 3, '120');
  fireEvent.click(within(grid).getByRole('button', { name: /material 2/ }));
  expect(await screen.findByText('1 entry to be corrected on lines that are folded or left out.')).toBeDefined();
  fireEvent.click(within(grid).getByRole('button', { name: /material 2/ }));
  await put('Cost to complete', 3, '9000');
  go('Hours');
  expect(await screen.findByText(/forecast is typed and not saved/)).toBeDefined();
  expect(screen.queryByRole('button', { name: /^Set % done/ })).toBeNull();
  go('Forecast, not saved');
  expect((await cell('Cost to complete', 3)).value).toBe('9,000.00');
  fireEvent.click(screen.getByRole('button', { name: 'Save forecast' }));
  const said = { section: 'South', costCode: '300', costType: 'material', method: 'to-complete', value: 900_000, note: '' };
  await waitFor(() => expect(sent('saveForecast')).toEqual([{ seen: 'as read', on: '2031-04-30', lines: [said] }]));
});

test('what is done of a task is set in the hours; views the owner took from a role are not offered', async () => {
  const { sent } = open({ saveForecast: {} } as Replies);
  await screen.findByRole('table', { name: 'Estimate versus actual' });
  go('Hours');
  fireEvent.click(await screen.findByRole('button', { name: 'Set % done of North · 100 Decks' }));
  const done = screen.getByLabelText('% done of North · 100 Decks');
  fireEvent.change(done, { target: { value: '60' } });
  fireEvent.submit(done.closest('form')!);
  await waitFor(() => expect(sent('saveForecast')).toMatchObject([{ lines: [{ costCode: '100', value: 600_000 }] }]));
  go('Quantities');
  expect(await screen.findByText('No cost line has a quantity yet')).toBeDefined();
  cleanup();
  const user = { name: 'Mo Reeve', email: 'm@x.example', role: 'manager' as const, secondFactor: false };
  const company = { name: 'X', currency: 'GBP', digits: 2 };
  const session = {
    user: { ...user, narrowed: ['report:estimate-vs-actual', 'report:quantities'] },
    needsOwner: false,
    demo: [],
    company,
  };
  open({
    session: { ...session, newestMonth: '2031-04', closedTo: null, today: '2031-05-12', jobCount: 1, troubles: [] } as never,
  });
  expect(await screen.findByRole('table', { name: 'Hours by task' })).toBeDefined();
  const views = within(screen.getByRole('group', { name: 'View of the cost lines' })).getAllByRole('button');
  expect(views.map((it) => it.textContent)).toEqual(['Hours']);
});
