/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import type { JobBeginning } from '../../../../wire/jobs';
import { EMPTY_LISTS } from '../../../test/emptyLists';
import { openPage, type Asked, type Replies } from '../../../test/openPage';
import { choose, type } from '../../../test/typing';
import { NewJobPage, NewTenderPage } from './NewJobPage';

beforeEach(() => localStorage.clear());
afterEach(cleanup);

const USUAL: JobBeginning = {
  retention: { rate: 50_000, materialsRate: null, stepAt: null, stepTo: null, stepApplies: 'all', cap: null },
  taxRate: 200_000,
  termsDays: null,
  revenueMethod: 'cost-to-cost',
  checklist: [],
  department: '',
  workKind: '',
  payCode: '',
  last: null,
  kind: null,
};
/** The last job of MILL held 3 % and had 21 days; small works hold nothing, and have a checklist. */
const OF_MILL = {
  ...USUAL,
  retention: { ...USUAL.retention, rate: 30_000 },
  termsDays: 21,
  last: { number: '2098', name: 'Yard' },
};
const SMALL = { retention: { ...USUAL.retention, rate: 0 }, kind: 'Small works', checklist: [CHECK('Bond')] };
function CHECK(item: string) {
  return { item, person: '', dueOn: null, doneOn: null };
}

const REPLIES: Replies = {
  lists: {
    ...EMPTY_LISTS,
    clients: [
      { code: 'HILL', name: 'Hill Estates', termsDays: 30 },
      { code: 'MILL', name: 'Mill Trust', termsDays: 30 },
    ],
    kinds: [{ code: 'SMALL', name: 'Small works' }],
  },
  jobList: { jobs: [], totals: {} as never, drafts: [] },
  jobTemplates: [],
  jobBeginning: ({ query }: Asked) => ({
    ...(query.client === 'MILL' ? OF_MILL : USUAL),
    ...(query.kind === 'SMALL' ? SMALL : {}),
  }),
  createJob: { number: '1001' },
};
const open = () => openPage(NewJobPage, '/jobs/new', '/jobs/new', REPLIES);
const value = (label: string) => screen.getByLabelText<HTMLInputElement>(label).value;
const unfold = () => fireEvent.click(screen.getByRole('button', { name: /Dates, people, retention and terms/ }));

test('number, name and client set up a job: the rest is filled from the client’s last job and from the kind, and what was typed stays', async () => {
  const { sent } = open();
  await choose('Client', /MILL/);
  expect(await screen.findByText(/3 % retention, 20 % tax, 21 days.*the client's last job, 2098 Yard/)).toBeDefined();
  expect(screen.queryByLabelText('Retention %')).toBeNull();
  unfold();
  type('Terms, days', '10');
  await choose('Kind of job', /SMALL/);
  await waitFor(() => expect(value('Retention %')).toBe('0'));
  expect(value('Terms, days')).toBe('10');
  type('Name', 'Gate');
  fireEvent.click(screen.getByRole('button', { name: 'Set up job 1001' }));
  await waitFor(() =>
    expect(sent('createJob')).toEqual([
      expect.objectContaining({
        number: '1001',
        name: 'Gate',
        client: 'MILL',
        kind: 'SMALL',
        status: 'awarded',
        awardedOn: '2031-04-30',
        termsDays: 10,
        contractSum: 0,
        sov: [],
        budget: [],
        checklist: [CHECK('Bond')],
        retention: { ...USUAL.retention, rate: 0 },
      }),
    ]),
  );
});

test('what is typed survives a reload of the page, and another client fills only what nobody typed', async () => {
  open();
  await choose('Client', /MILL/);
  await screen.findByText(/21 days/);
  unfold();
  type('Cap % of contract', '4');
  type('Name', 'Gate');
  // What is typed is stored after a pause, or when the page is left.
  fireEvent(window, new Event('pagehide'));
  cleanup();
  open();
  await waitFor(() => expect(value('Name')).toBe('Gate'));
  unfold();
  await choose('Client', /HILL/);
  await waitFor(() => expect(value('Retention %')).toBe('5'));
  expect([value('Terms, days'), value('Cap % of contract')]).toEqual(['', '4']);
});

test('a tender is set up on a page of its own, with no day of award', async () => {
  const { sent } = openPage(NewTenderPage, '/tenders/new', '/tenders/new', REPLIES);
  await choose('Client', /MILL/);
  type('Name', 'Chapel');
  unfold();
  expect(screen.queryByLabelText('Awarded on')).toBeNull();
  fireEvent.click(screen.getByRole('button', { name: 'Set up tender 1001' }));
  await waitFor(() => expect(sent('createJob')).toEqual([expect.objectContaining({ status: 'tender', awardedOn: null })]));
});

test('a fault in a folded part opens it, and stands at its field', async () => {
  const { sent } = open();
  await choose('Client', /MILL/);
  type('Name', 'Gate');
  unfold();
  type('Reduces to %', '2');
  fireEvent.click(screen.getByRole('button', { name: /Dates, people/ }));
  fireEvent.click(screen.getByRole('button', { name: 'Set up job 1001' }));
  expect((await screen.findAllByText(/A step needs both its percentages/)).length).toBeGreaterThan(0);
  expect(sent('createJob')).toEqual([]);
});
