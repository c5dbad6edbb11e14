/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import type { CostRow } from '../../../wire/costs';
import { openPage, type Replies } from '../../test/openPage';
import { choose } from '../../test/typing';
import { CostLedgerPage } from './CostLedgerPage';

afterEach(cleanup);

const entry = (id: number, more: Partial<CostRow> = {}): CostRow => ({
  id,
  postingId: 170,
  dated: '2031-04-26',
  postedOn: '2031-04-26',
  job: '2114',
  section: 'Block A',
  costCode: '0350',
  costType: 'labour',
  reference: `TS-${id}`,
  party: 'Crew Castell',
  description: 'Slating',
  quantity: null,
  hours: 80_000,
  amount: 25_824,
  commitment: null,
  uninstalled: false,
  installedOn: null,
  commitmentLine: null,
  reverses: null,
  reversedBy: null,
  replaces: null,
  moved: false,
  worked: null,
  notInstalled: more.uninstalled ? 25_824 : 0,
  ...more,
});
const ROWS = [
  entry(1),
  entry(2, {
    dated: '2031-03-30',
    postedOn: '2031-04-01',
    party: 'E1',
    worked: { name: 'Ann Ash', wageClass: 'roofer', rate: 320_000, sheet: '31' },
  }),
  entry(3, { costType: 'material', hours: null, uninstalled: true }),
];
const LISTS = {
  clients: [],
  vendors: [],
  managers: [],
  commitments: [],
  costCodes: [{ code: '0350', description: 'Slating', unit: 'm2' }],
  jobs: [{ number: '2114', name: 'Saltmarsh school', status: 'on-site', locked: false, sections: [] }],
} as never;

const open = (replies: Replies = {}, address = '/costs/ledger') =>
  openPage(CostLedgerPage, '/costs/ledger', address, {
    lists: LISTS,
    costPage: { rows: ROWS, next: null },
    costTotals: { count: 3, amount: 77_472, hours: 160_000 },
    ...replies,
  });
const asked = (of: ReturnType<typeof open>) => of.asked.filter((it) => it.call === 'costPage').at(-1)?.query;

test('entries stand at their accounting date, with their own beside where it is another; stored material says so', async () => {
  const page = open();
  await screen.findByText('TS-1');
  expect(asked(page)).toEqual({ asOf: '2031-04', sort: 'dated', descending: 'yes', limit: '200' });
  expect(screen.getByRole('link', { name: 'Ann Ash' }).getAttribute('href')).toBe('/costs/time/person?employee=E1&on=2031-03-30');
  expect(screen.getByText('TS-2, dated 30 Mar 2031').closest('tr')?.textContent).toMatch(/^1 Apr 2031/);
  // An hour leads to its week sheet.
  expect(screen.getByText('TS-2, dated 30 Mar 2031').getAttribute('href')).toBe('/costs/time/sheets/31?on=2031-03-30');
  expect(screen.getByText(/not installed yet/).closest('tr')?.textContent).toContain('TS-3');
  // 3 × 258.24, and twice 8 hours.
  expect(screen.getByText('3 entries').closest('tr')?.textContent).toBe('3 entries16774.72');
});

test('narrowed by job, code, type and day, all in the address; Show all takes every one of them away', async () => {
  const page = open();
  await choose('Job', '2114 Saltmarsh school');
  await choose('Code', '0350 Slating');
  await choose('Type', 'labour');
  const from = screen.getByRole('textbox', { name: 'From the day' });
  fireEvent.change(from, { target: { value: '15' } });
  fireEvent.blur(from);
  await waitFor(() => expect(page.address()).toBe('/costs/ledger?job=2114&code=0350&type=labour&from=2031-04-15'));
  await waitFor(() =>
    expect(asked(page)).toMatchObject({ job: '2114', costCode: '0350', costType: 'labour', from: '2031-04-15' }),
  );
  expect(screen.getByRole('link', { name: 'Download CSV' }).getAttribute('href')).toContain('job=2114&costCode=0350');
  fireEvent.click(screen.getByRole('button', { name: 'Show all' }));
  await waitFor(() => expect(page.address()).toBe('/costs/ledger'));
});

test('the server sorts by the head that is pressed, the other way round when it is pressed again', async () => {
  const page = open();
  await screen.findByText('TS-1');
  fireEvent.click(screen.getByRole('button', { name: 'Amount' }));
  await waitFor(() => expect(asked(page)).toMatchObject({ sort: 'amount' }));
  fireEvent.click(await screen.findByRole('button', { name: /^Amount/ }));
  await waitFor(() => expect(asked(page)).toMatchObject({ sort: 'amount', descending: 'yes' }));
});

test('nothing found is said, and what the server refuses is said and asked again by hand', async () => {
  open({ costPage: { rows: [], next: null }, costTotals: { count: 0, amount: 0, hours: 0 } }, '/costs/ledger?q=nothing');
  expect(await screen.findByText('No matching entries to date.')).toBeDefined();
  cleanup();
  let refused = true;
  const totals = { count: 3, amount: 77_472, hours: 160_000 };
  open({ costTotals: () => (refused ? { status: 400, body: { message: 'asOf: expected a month or a day' } } : totals) });
  expect((await screen.findByRole('alert')).textContent).toContain('expected a month or a day');
  refused = false;
  fireEvent.click(screen.getByRole('button', { name: 'Try again' }));
  expect(await screen.findByText('3 entries')).toBeDefined();
});
