/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import type { ApplicationRow, BillingRegister } from '../../../wire/billing';
import { openPage } from '../../test/openPage';
import { BillingPage } from './BillingPage';
import { EMPTY_LISTS } from '../../test/emptyLists';

afterEach(cleanup);

const application = (job: string, number: number, client: string, more: Partial<ApplicationRow> = {}): ApplicationRow => ({
  job,
  jobName: `Job ${job}`,
  client,
  number,
  dated: '2031-04-22',
  status: 'certified',
  certifiedOn: '2031-04-28',
  gross: 1_000_000,
  retention: 50_000,
  due: 100_000,
  payable: 120_000,
  received: 0,
  dueOn: '2031-05-28',
  daysLate: 0,
  ...more,
});
const LISTS = {
  ...EMPTY_LISTS,
  clients: [
    { code: 'HILL', name: 'Hill Estates', termsDays: 30 },
    { code: 'MILL', name: 'Mill Trust', termsDays: 30 },
  ],
};
const open = (register: Partial<BillingRegister>) =>
  openPage(BillingPage, '/billing', '/billing?as-of=2031-04', {
    billingRegister: { applications: [], releases: [], unbilled: [], ...register },
    lists: LISTS,
  });
const texts = (table: HTMLElement) =>
  within(table)
    .getAllByRole('row')
    .slice(1)
    .map((row) => row.textContent);

test('what each client owes stands over its applications, and folds; drafts and submitted ones stand apart', async () => {
  const late = { received: 20_000, daysLate: 3, dueOn: '2031-04-27' };
  open({
    applications: [
      application('1', 3, 'HILL'),
      application('2', 5, 'HILL', late),
      application('3', 1, 'MILL'),
      application('1', 4, 'HILL', { status: 'draft', certifiedOn: null, dueOn: null }),
    ],
  });
  const table = await screen.findByRole('table', { name: 'Certified: unpaid, or dated this month' });
  await waitFor(() => expect(texts(table)[0]).toContain('Hill Estates'));
  // Due 1,000.00 twice, payable 1,200.00 twice, 200.00 received: 2,200.00 outstanding.
  expect(texts(table)).toEqual([
    expect.stringMatching(/Hill Estates 22,000\.002,400\.00200\.002,200\.00$/),
    expect.stringMatching(/^1 Job 13.*1,200\.0028 May 2031/),
    expect.stringMatching(/^2 Job 25.*1,000\.0027 Apr 2031 overdue 3 days/),
    expect.stringMatching(/Mill Trust 11,000\.001,200\.000\.001,200\.00$/),
    expect.stringMatching(/^3 Job 31/),
    expect.stringMatching(/^3 applications3,000\.003,600\.00200\.003,400\.00$/),
  ]);
  fireEvent.click(within(table).getByRole('button', { name: /Hill Estates/ }));
  await waitFor(() => expect(texts(table)).toHaveLength(4));
  const drafts = screen.getByRole('table', { name: 'Drafted or submitted' });
  // Nothing is outstanding of what is not certified.
  expect(texts(drafts).at(-1)).toBe('1 application1,000.001,200.000.000.00');
});

test('jobs without an application lead to it, as of the day that is looked at; with all of them billed it says so', async () => {
  const unbilled = [
    { job: '7', name: 'Weir', client: 'MILL', lastNumber: null, underbilled: 50_000, overbilled: 0, bySchedule: 735_600 },
  ];
  const { unmount } = open({ unbilled });
  const row = await screen.findByRole('row', { name: /7 Weir/ });
  await waitFor(() => expect(row.textContent).toMatch(/Mill Trustnone.*500\.00.*7,356\.00/));
  expect(within(row).getByRole('link', { name: 'Start application' }).getAttribute('href')).toBe('/jobs/7/billing?as-of=2031-04');
  unmount();
  open({});
  expect(await screen.findByText('Every live job has one.')).toBeDefined();
  expect(screen.getAllByText('None.')).toHaveLength(2);
});
