/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import type { EstimateListRow } from '../../../wire/estimates';
import { EMPTY_LISTS } from '../../test/emptyLists';
import { openPage, type Replies } from '../../test/openPage';
import { type } from '../../test/typing';
import { EstimatesPage } from './EstimatesPage';

afterEach(cleanup);

const row = (number: number, name: string) =>
  ({
    number,
    name,
    status: 'draft',
    chosen: false,
    lines: 3,
    hours: 0,
    cost: 0,
    price: 0,
    marginRate: 0,
    markupRate: 0,
    savedAt: '2031-04-01T09:00:00Z',
    sentOn: null,
    acceptedOn: null,
    refused: { choose: null },
  }) as unknown as EstimateListRow;
const open = (more: Replies = {}) =>
  openPage(EstimatesPage, '/jobs/:number/estimates', '/jobs/2119/estimates', {
    estimateList: ({ path }) => (path.includes('2104') ? [row(7, 'Podium')] : [row(1, 'As measured')]),
    estimatePatterns: [{ name: 'Usual roof', lines: 12, savedAt: '2031-04-01' }],
    lists: { ...EMPTY_LISTS, jobs: [{ number: '2104', name: 'Mill', status: 'on-site', locked: false, sections: [] }] },
    startEstimate: { number: 2 },
    saveEstimatePattern: {},
    ...more,
  });
const elsewhere = async () => fireEvent.click(await screen.findByRole('button', { name: 'From elsewhere …' }));

test('an estimate is begun from one of another job, or from a pattern, at the prices of today where that is wanted', async () => {
  const { sent, address } = open();
  await elsewhere();
  await screen.findByLabelText('Job');
  type('Job', '2104');
  fireEvent.click(await screen.findByRole('button', { name: 'Begin from estimate 7 of 2104, 3 lines' }));
  const body = { name: 'Podium', copyOf: { job: '2104', estimate: 7 }, pattern: null, reprice: false };
  await waitFor(() => expect(sent('startEstimate')).toEqual([body]));
  await waitFor(() => expect(address()).toContain('/estimates/2'));
  cleanup();
  const again = open();
  await elsewhere();
  fireEvent.click(await screen.findByLabelText(/Priced with the price list of today/));
  fireEvent.click(await screen.findByRole('button', { name: 'Usual roof, 12 lines' }));
  await waitFor(() =>
    expect(again.sent('startEstimate')).toEqual([{ name: 'Usual roof', copyOf: null, pattern: 'Usual roof', reprice: true }]),
  );
});

test('an estimate is saved as a pattern under a name', async () => {
  const { sent } = open();
  fireEvent.click(await screen.findByRole('button', { name: 'Save as pattern …' }));
  await screen.findByLabelText('Name of the pattern');
  type('Name of the pattern', 'Flat roof');
  fireEvent.click(screen.getByRole('button', { name: 'Save pattern' }));
  await waitFor(() => expect(sent('saveEstimatePattern')).toEqual([{ name: 'Flat roof', job: '2119', estimate: 1 }]));
});
