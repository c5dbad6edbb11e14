/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import type { OpenPayroll } from '../../../wire/payroll';
import { openPage, type Replies } from '../../test/openPage';
import { PayrollHandOverPage } from './PayrollPages';

afterEach(cleanup);

const row = (employee: string, name: string, amount: number) => ({
  employee,
  name,
  payrollNumber: '',
  payCode: 'regular',
  hours: 80_000,
  units: 0,
  topUp: 0,
  amount,
});
/** 180.00 and 144.00 are open; 1,000.00 went before. */
const OPEN: OpenPayroll = {
  seen: 's',
  rows: [row('E1', 'Ann Ash', 18_000), row('E2', 'Ben Birch', 14_400)],
  earlier: 1,
  lines: 3,
  proof: {
    posted: { hours: 660_000, amount: 132_400 },
    handedOver: { hours: 500_000, amount: 100_000 },
    left: { hours: 160_000, amount: 32_400 },
    ledger: 132_400,
  },
} as OpenPayroll;
const open = (replies: Replies = {}) =>
  openPage(PayrollHandOverPage, '/', '/?as-of=2031-04', {
    openPayroll: OPEN,
    payrollRuns: { runs: [] },
    payrollSetting: { seen: 'p', columns: [], declaration: '' },
    ...replies,
  });

test('what is open goes with its proof; without some people, the others alone go', async () => {
  const { sent, asked, address } = open({ handOver: { run: 7 } });
  await screen.findByRole('button', { name: 'Hand over 324.00' });
  expect(asked.find((it) => it.call === 'openPayroll')?.query).toEqual({ from: '2031-04-01', to: '2031-04-30' });
  // 1,324.00 in the ledger less 1,000.00 less 324.00 is nothing.
  expect(screen.getByRole('region', { name: 'Proof' }).textContent).toContain('Ties');
  expect(screen.getByText(/1 line was worked before 1 Apr 2031/)).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'All people' }));
  fireEvent.click(await screen.findByRole('checkbox', { name: 'E2 Ben Birch' }));
  fireEvent.click(await screen.findByRole('button', { name: 'Hand over 180.00', hidden: true }));
  await waitFor(() => expect(sent('handOver')).toEqual([{ from: '2031-04-01', to: '2031-04-30', seen: 's', employees: ['E1'] }]));
  await waitFor(() => expect(address()).toMatch(/^\/costs\/payroll\/7/));
});

test('a day that is none asks for one and reads nothing; a refusal is shown and the page stays', async () => {
  const { asked } = open({ handOver: { status: 409, body: { message: 'Time was posted since; look at it again' } } });
  await screen.findByRole('button', { name: 'Hand over 324.00' });
  const reads = asked.filter((it) => it.call === 'openPayroll').length;
  fireEvent.change(screen.getByRole('textbox', { name: 'to' }), { target: { value: '31/4' } });
  expect(await screen.findByText('Enter a date, e.g. 1 Apr 2031')).toBeTruthy();
  expect(asked.filter((it) => it.call === 'openPayroll')).toHaveLength(reads);
  fireEvent.change(screen.getByRole('textbox', { name: 'to' }), { target: { value: '30 Apr 2031' } });
  fireEvent.click(await screen.findByRole('button', { name: 'Hand over 324.00' }));
  expect((await screen.findByRole('alert')).textContent).toContain('Time was posted since');
});

test('a difference to the ledger is said, and nothing open says so', async () => {
  open({ openPayroll: { ...OPEN, proof: { ...OPEN.proof, ledger: 132_401 } } });
  expect((await screen.findByRole('region', { name: 'Proof' })).textContent).toMatch(/Does not tie.*0\.01/);
  cleanup();
  open({ openPayroll: { ...OPEN, rows: [] } });
  expect(await screen.findByText('All posted time until 30 Apr 2031 is handed over.')).toBeTruthy();
});
