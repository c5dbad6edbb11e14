/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import type { OutputOf } from '../../../wire/call';
import type { CALLS } from '../../../wire/calls';
import { openPage, type Replies } from '../../test/openPage';
import { type } from '../../test/typing';
import { ApprovalPage } from './ApprovalPage';

afterEach(cleanup);

const nothing = { decide: false, withdraw: false, carryOut: false, acknowledge: false };
const approval: OutputOf<typeof CALLS.approval> = {
  id: 4,
  job: 'J1',
  jobName: 'Roof',
  kind: 'transfer',
  document: '',
  amount: 250_000,
  role: 'accountant',
  facts: [['From', 'A 200 material']],
  state: 'asked',
  askedBy: 'Max Ash',
  askedAt: '2031-05-02T09:00:00.000Z',
  reason: 'Panels are dearer',
  decidedBy: '',
  decidedFor: '',
  decidedAt: '',
  decision: '',
  can: nothing,
  request: null,
};
const open = (more: Partial<typeof approval>, replies: Replies = {}) =>
  openPage(ApprovalPage, '/approvals/:approval', '/approvals/4', { approval: { ...approval, ...more }, ...replies });
const buttons = () => screen.getAllByRole('button').map((it) => it.textContent);

test('whoever may decide sees what it is about, gives or refuses it with a note; refused by the server, the note stays', async () => {
  const message = 'only one that waits can be decided; reload the page';
  let refuse = true;
  const { sent } = open(
    { can: { ...nothing, decide: true } },
    { decideApproval: () => (refuse ? { status: 409, body: { message } } : {}) },
  );
  await screen.findByRole('form', { name: 'Decide' });
  expect(screen.getByText('A 200 material')).toBeTruthy();
  expect(screen.getByText(/Panels are dearer/)).toBeTruthy();
  type('Note, or why it is refused', 'Take it from section B');
  fireEvent.click(screen.getByRole('button', { name: 'Refuse' }));
  expect(await screen.findByText(message)).toBeTruthy();
  refuse = false;
  fireEvent.click(screen.getByRole('button', { name: 'Give approval' }));
  await waitFor(() =>
    expect(sent('decideApproval')).toEqual([false, true].map((give) => ({ give, note: 'Take it from section B' }))),
  );
});

test('it offers what may be done with it and nothing else: carried out as it was asked for, read, withdrawn', async () => {
  const request = { method: 'POST' as const, url: '/jobs/J1/transfers', body: { dated: '2031-05-02' } };
  const { sent } = open(
    { state: 'given', request, can: { ...nothing, carryOut: true, withdraw: true } },
    { transferBudget: { number: 3 }, withdrawApproval: {} },
  );
  await screen.findByRole('button', { name: 'Carry it out' });
  expect(buttons()).toEqual(['Carry it out', 'Withdraw']);
  fireEvent.click(screen.getByRole('button', { name: 'Carry it out' }));
  await waitFor(() => expect(sent('transferBudget')).toEqual([{ dated: '2031-05-02' }]));
});

test('one that was refused is read by whoever asked', async () => {
  const { asked } = open({ state: 'refused', can: { ...nothing, acknowledge: true } }, { acknowledgeApproval: {} });
  fireEvent.click(await screen.findByRole('button', { name: 'I have read it' }));
  expect(buttons()).toEqual(['I have read it']);
  await waitFor(() => expect(asked.filter((it) => it.call === 'acknowledgeApproval')).toHaveLength(1));
});

test('an approval of time leads to its week sheet, one of payroll to the hand-over', async () => {
  open({ kind: 'post-time', job: null, jobName: null, document: '12' });
  expect((await screen.findByRole('link', { name: 'Week sheet 12' })).getAttribute('href')).toMatch(/^\/costs\/time\/sheets\/12/);
  cleanup();
  open({ kind: 'hand-over', job: null, jobName: null });
  expect((await screen.findByRole('link', { name: 'Payroll hand-over' })).getAttribute('href')).toMatch(/^\/costs\/payroll/);
});
