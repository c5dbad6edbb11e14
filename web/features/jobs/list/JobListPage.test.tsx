/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { MINUS } from '../../../../core/money/display';
import type { ListedJob } from '../../../../wire/jobs';
import { openPage } from '../../../test/openPage';
import { JobListPage } from './JobListPage';

afterEach(cleanup);
window.innerWidth = 1280;

/** A job on site: contract and cost in pounds, earned by cost to cost. */
function jobOf(number: string, manager: string, contract: number, estimate: number): ListedJob {
  const [contractSum, at] = [contract * 100, estimate * 100];
  return {
    number,
    name: `Job ${number}`,
    client: 'NORTH',
    clientName: 'Northbeck Estates',
    manager,
    kind: '',
    department: '',
    status: 'on-site',
    locked: false,
    restricted: false,
    inSchedule: contract > 0,
    contractSum,
    estimate: at,
    estimatedProfit: contractSum - at,
    margin: contract === 0 ? 0 : Math.round(((contractSum - at) / contractSum) * 1_000_000),
    cost: at / 2,
    toComplete: at / 2,
    uninstalled: 0,
    complete: 500_000,
    earned: contractSum / 2,
    profitToDate: (contractSum - at) / 2,
    billed: contractSum / 2,
    overbilled: 0,
    underbilled: 0,
    backlog: contractSum / 2,
    lossProvision: 0,
    dayworkCost: 0,
    // A fifth of the contract was to be earned by the end of last month.
    before:
      contract === 0
        ? null
        : { contractSum, estimate: contractSum * 0.8, earned: contractSum / 5, billed: 0, received: 0, cost: 0 },
    received: 0,
    pendingChanges: 0,
  };
}

const JOBS = [jobOf('2101', 'Ines', 1000, 800), jobOf('2102', 'Piotr', 400, 440), jobOf('2103', 'Ines', 0, 0)];
const open = (jobs: readonly ListedJob[], address = '/jobs') =>
  openPage(JobListPage, '/jobs', address, { jobList: { jobs: [...jobs], totals: {} as never, drafts: [] } });

const numbers = () => screen.getAllByRole('row').flatMap((row) => /^21\d\d/.exec(row.textContent ?? '')?.[0] ?? []);
const foot = () =>
  within(screen.getAllByRole('rowgroup').at(-1)!)
    .getAllByRole('cell')
    .map((it) => it.textContent?.trim());

test('totals are those of the jobs in the schedule, and a loss is marked by its sign', async () => {
  open(JOBS);
  await screen.findByText('Job 2101');
  // 1,000 + 400 and 800 + 440 pounds; (1,400 − 1,240) / 1,400 = 11.43 %.
  expect(foot().slice(0, 8)).toEqual(['2 jobs in the schedule', '', '', '', '', '1,400.00', '1,240.00', '11.4']);
  expect(within(screen.getByText('Job 2102').closest('tr')!).getByTitle('loss')).toBeDefined();
  // 20 % by the end of March: the one is where it was, the other lost 30 points; together 11.43 − 20.
  expect(screen.getByText('Job 2101').closest('tr')!.textContent).toContain('20.0–');
  expect([foot()[8], screen.getByText('Job 2102').closest('tr')!.textContent]).toEqual([
    `${MINUS}8.6`,
    expect.stringContaining(`${MINUS}30.0`),
  ]);
  // Why it moved is a press away.
  expect(screen.getAllByRole('button', { name: /^Margin since last month: .*show its workings/ })).toHaveLength(1);
});

test('narrowed to a manager the list and its totals are his alone, and the address says so', async () => {
  const { address } = open(JOBS);
  const manager = await screen.findByRole('combobox', { name: 'Manager' });
  fireEvent.pointerDown(manager, { button: 0 });
  fireEvent.keyDown(await screen.findByRole('option', { name: 'Piotr' }), { key: 'Enter' });
  await waitFor(() => expect(address()).toBe('/jobs?manager=Piotr'));
  expect(numbers()).toEqual(['2102']);
  // 400 − 440: a loss of a tenth.
  expect(foot().slice(5, 8)).toEqual(['400.00', '440.00', `${MINUS}10.0`]);
});

test('sorted by a figure, a job without a price comes last either way', async () => {
  open(JOBS, '/jobs?sort=margin');
  await screen.findByText('Job 2101');
  expect(numbers()).toEqual(['2102', '2101', '2103']);
  fireEvent.click(screen.getByRole('button', { name: /Margin %/ }));
  expect(numbers()).toEqual(['2101', '2102', '2103']);
});

test('no job yet: the two ways to the first one', async () => {
  open([]);
  expect(await screen.findByText('No job yet')).toBeDefined();
  expect(screen.getAllByRole('link').map((it) => it.getAttribute('href'))).toEqual(['/jobs/new', '/jobs/new', '/set-up']);
});
