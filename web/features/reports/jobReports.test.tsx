/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, screen, within } from '@testing-library/react';
import { contractStatus } from '../../../core/progress/contractStatus';
import { openPage, type Replies } from '../../test/openPage';
import { JobStatusByMonth } from './JobStatusByMonth';
import { Quantities } from './Quantities';

afterEach(cleanup);

const rowOf = (text: string) => within(screen.getByText(text).closest('tr')!).getAllByRole('cell');
const textOf = (text: string) => rowOf(text).map((it) => it.textContent);

test('contract status month by month, the newest first; before the award it says so', async () => {
  const position = { originalSum: 1_000_000, originalCost: 610_000, changesPrice: 0, changesCost: 0, estimate: 610_000 };
  const replies: Replies = {
    contractStatus: [
      { on: '2031-02-28', ...contractStatus({ ...position, changesPrice: 100_000, changesCost: 40_000, estimate: 672_550 }) },
      { on: '2031-01-31', ...contractStatus(position) },
    ],
  };
  openPage(JobStatusByMonth, '/jobs/:number/status', '/jobs/J1/status', replies);
  await screen.findByText('28 Feb 2031');
  const [, ...months] = screen.getAllByRole('row');
  expect(months.map((it) => it.children[0]?.textContent)).toEqual(['28 Feb 2031', '31 Jan 2031']);
  // Overrun 6,725.50 − 6,500.00, profit 11,000.00 − 6,725.50.
  expect(textOf('28 Feb 2031').slice(-3)).toEqual(['225.50', '6,725.50', '4,274.50']);
  cleanup();
  openPage(JobStatusByMonth, '/jobs/:number/status', '/jobs/J1/status', { contractStatus: [] });
  expect(await screen.findByText('Not awarded to date')).toBeDefined();
});

test('quantities: what is left, the unit costs and the price effect; without a unit cost there is a dash', async () => {
  const line = { id: 1, section: 'A', costCode: '200', description: 'Panels', costType: 'material', unit: 'm2' };
  const numbers = { budgeted: 2_000_000, changes: 0, revised: 2_000_000, used: 2_500_000, left: -500_000 };
  const replies: Replies = {
    lineQuantities: [
      { ...line, ...numbers, budgetUnitCost: 125_000, unitCost: 140_000, priceEffect: 37_500 },
      {
        ...line,
        id: 2,
        description: 'Trims',
        ...numbers,
        used: 0,
        left: 2_000_000,
        budgetUnitCost: 125_000,
        unitCost: null,
        priceEffect: null,
      },
    ],
  };
  openPage(() => <Quantities job="J1" looked={null} />, '/', '/', replies);
  await screen.findByText(/Panels/);
  expect(textOf('A · 200 Panels · material').slice(-4)).toEqual(['−50', '12.5000', '14.0000', '375.00']);
  expect(textOf('A · 200 Trims · material').slice(-2)).toEqual(['–', '–']);
});
