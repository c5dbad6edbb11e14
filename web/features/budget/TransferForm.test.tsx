/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import type { EstimateLine } from '../../../wire/jobs';
import { openPage } from '../../test/openPage';
import { TransferForm } from './TransferForm';

afterEach(cleanup);

/** A line with a revised budget in pounds. */
const line = (costCode: string, costType: string, revised: number): EstimateLine => ({
  id: Number(costCode),
  section: 'Roof',
  costCode,
  description: '',
  costType,
  budgeted: true,
  basis: '',
  serves: [],
  original: revised * 100,
  changes: 0,
  transfers: 0,
  revised: revised * 100,
  actual: 0,
  committed: 0,
  estimate: revised * 100,
  toComplete: 0,
  variance: 0,
  hoursBudgeted: 0,
  hoursActual: 0,
});

const LISTS = { clients: [], vendors: [], costCodes: [], jobs: [], managers: [], commitments: [] } as never;
type Reply = { number: number } | { status: number; body: { message: string; faults: unknown[] } };

function open(reply: Reply = { number: 3 }) {
  let done = 0;
  const Page = () => <TransferForm job="2105" onDone={() => (done += 1)} />;
  const page = openPage(Page, '/', '/', {
    lists: LISTS,
    estimateVersusActual: {
      lines: [line('0320', 'material', 1000), line('0510', 'labour', 400)],
      revenue: [],
      unserved: { revised: 0, actual: 0, estimate: 0 },
    },
    transferBudget: reply,
  });
  return { ...page, done: () => done };
}

async function type(cells: Record<string, string>) {
  for (const [label, text] of Object.entries(cells)) {
    const cell = await screen.findByLabelText(label);
    fireEvent.focus(cell);
    fireEvent.change(cell, { target: { value: text } });
    fireEvent.blur(cell);
  }
}

const lineAt = (row: number, code: string, costType: string, amount: string) => ({
  [`Section, row ${row}`]: 'Roof',
  [`Cost code, row ${row}`]: code,
  [`Type, row ${row}`]: costType,
  [`In (+) / out (−), row ${row}`]: amount,
});
const button = () => screen.getByRole<HTMLButtonElement>('button', { name: /^Move / });

test('what leaves and arrives must net to zero before it can be moved; it is sent in minor units', async () => {
  const { sent, done } = open();
  await type(lineAt(1, '0320', 'material', '-250'));
  expect([screen.getByText(/unallocated/).textContent, button().disabled]).toEqual(['unallocated −250.00 GBP', true]);
  await type({ ...lineAt(2, '0510', 'labour', '250'), Reason: 'Crew instead of lifts' });
  expect(button().textContent).toBe('Move 250.00');
  fireEvent.click(button());
  await waitFor(() => expect(done()).toBe(1));
  expect(sent('transferBudget')).toEqual([
    {
      dated: '2031-04-30',
      reason: 'Crew instead of lifts',
      lines: [
        { section: 'Roof', costCode: '0320', costType: 'material', amount: -25_000, hours: null },
        { section: 'Roof', costCode: '0510', costType: 'labour', amount: 25_000, hours: null },
      ],
    },
  ]);
});

test('more than a line has is said before it is sent, and is not hindered: budgets may be taken below nothing on purpose', async () => {
  open();
  await type({ ...lineAt(1, '0510', 'labour', '-400.01'), ...lineAt(2, '0320', 'material', '400.01') });
  expect(screen.getByText('0510 labour: the revised budget would be below zero.')).toBeDefined();
  expect(button().disabled).toBe(false);
});

test('a refusal of the server stands in its cell, what was typed stays, and a reason is asked for before anything is sent', async () => {
  const message = 'there is no cost code 0999';
  const { sent, done } = open({ status: 400, body: { message, faults: [{ field: 'lines.0.costCode', message }] } });
  await type({ ...lineAt(1, '0999', 'material', '-1'), ...lineAt(2, '0510', 'labour', '1') });
  fireEvent.click(button());
  expect(await screen.findByText('Give the reason of the transfer; the log shows it')).toBeDefined();
  expect(sent('transferBudget')).toEqual([]);
  await type({ Reason: 'Moved' });
  fireEvent.click(button());
  const cell = await screen.findByRole<HTMLInputElement>('combobox', { name: 'Cost code, row 1' });
  await waitFor(() => expect(cell.getAttribute('aria-invalid')).toBe('true'));
  expect([cell.value, done()]).toEqual(['0999', 0]);
});
