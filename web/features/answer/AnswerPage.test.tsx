/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import type { AnswerView } from '../../../wire/quotations';
import { openPage, type Replies } from '../../test/openPage';
import { type } from '../../test/typing';
import { AnswerPage } from './AnswerPage';

afterEach(cleanup);

const view = (more: Partial<AnswerView> = {}): AnswerView => ({
  status: 'open',
  answeredAt: null,
  answeredBy: '',
  seal: '',
  hash: 'h',
  closed: null,
  accepted: null,
  questions: [],
  document: {
    kind: 'quotation',
    title: 'Quotation 1',
    reference: '1',
    dated: '2031-04-12',
    currency: 'GBP',
    digits: 2,
    company: { name: 'Brackenfell Envelope Ltd', address: '' },
    client: { name: 'Hill Estates', contact: '' },
    job: { number: 'J1', name: 'Mill roof', site: '' },
    introduction: '',
    lines: [],
    total: 1_000_000,
    exclusions: [],
    payments: [],
    days: null,
    validUntil: null,
    terms: '',
    alternates: [
      { name: 'Slate in place of felt', amount: 250_050 },
      { name: 'Leave the hoist out', amount: -100_000 },
    ],
  },
  ...more,
});
const open = (of: AnswerView, more: Replies = {}) =>
  openPage(AnswerPage, '/answer/:token', '/answer/abc', { answer: of, ...more });
const accept = () => screen.findByRole<HTMLButtonElement>('button', { name: 'Accept the quotation as it is written' });

test('options chosen change the price and go with the answer; a signature is typed by whoever cannot draw', async () => {
  let answered = false;
  const accepted = { options: ['Slate in place of felt', 'Leave the hoist out'], total: 1_150_050 };
  const { sent } = open(view(), {
    answer: () =>
      answered ? view({ status: 'accepted', answeredAt: '2031-04-20T09:00:00Z', answeredBy: 'Una Vale', accepted }) : view(),
    acceptOffer: (() => ((answered = true), {})) as never,
  });
  expect((await accept()).disabled).toBe(true);
  fireEvent.click(screen.getByLabelText(/Slate in place of felt/));
  fireEvent.click(screen.getByLabelText(/Leave the hoist out/));
  // 10,000.00 + 2,500.50 - 1,000.00
  expect(screen.getByRole('status').textContent).toBe('You accept 11,500.50 GBP before tax.');
  type('Your full name', 'Una Vale');
  expect((await accept()).disabled).toBe(true);
  fireEvent.click(screen.getByRole('button', { name: 'Type it instead' }));
  expect(screen.getByLabelText<HTMLInputElement>('Signature: type your name as you sign').value).toBe('Una Vale');
  fireEvent.click(await accept());
  await waitFor(() => expect(sent('acceptOffer')).toEqual([{ name: 'Una Vale', signature: 'typed: Una Vale', options: [1, 2] }]));
  const state = await screen.findByText(/Accepted by Una Vale on 20 Apr 2031/);
  expect(state.textContent).toContain('With Slate in place of felt, Leave the hoist out: 11,500.50 GBP before tax.');
  // Whoever answered is led to where it is said.
  await waitFor(() => expect(document.activeElement?.contains(state)).toBe(true));
  expect(screen.queryByRole('region', { name: 'Your answer' })).toBeNull();
});

test('it is declined with a name and a reason; a refusal leaves what was typed', async () => {
  const { sent } = open(view(), { declineOffer: { status: 409, body: { message: 'It was answered already' } } });
  await accept();
  const decline = screen.getByRole<HTMLButtonElement>('button', { name: 'Decline' });
  type('Your full name', 'Una Vale');
  expect(decline.disabled).toBe(true);
  type('Reason for declining', 'Too late');
  fireEvent.click(decline);
  expect((await screen.findByRole('alert')).textContent).toContain('It was answered already');
  expect([sent('declineOffer'), screen.getByLabelText<HTMLInputElement>('Reason for declining').value]).toEqual([
    [{ name: 'Una Vale', reason: 'Too late' }],
    'Too late',
  ]);
});

test('a question keeps the name for the next; past its day the document takes neither question nor answer', async () => {
  const { sent, unmount } = open(view(), { askAboutOffer: {} } as Replies);
  await accept();
  type('Your name', 'Una Vale');
  type('What would you like to know?', 'Is the scaffold in?');
  fireEvent.click(screen.getByRole('button', { name: 'Ask' }));
  await waitFor(() => expect(sent('askAboutOffer')).toEqual([{ name: 'Una Vale', question: 'Is the scaffold in?' }]));
  await waitFor(() => expect(screen.getByLabelText<HTMLInputElement>('What would you like to know?').value).toBe(''));
  expect(screen.getByLabelText<HTMLInputElement>('Your name').value).toBe('Una Vale');
  unmount();
  open(view({ closed: 'It was valid until 30 Apr 2031' }));
  expect(await screen.findByText('It was valid until 30 Apr 2031.')).toBeDefined();
  expect([screen.queryByRole('button', { name: 'Ask' }), screen.queryByRole('button', { name: /^Accept/ })]).toEqual([
    null,
    null,
  ]);
});

test('a link that leads nowhere says so and names no company', async () => {
  open(view(), { answer: { status: 404, body: { message: 'This link is not valid' } } });
  expect((await screen.findByRole('alert')).textContent).toContain('This link is not valid');
  expect(screen.getByRole('heading', { level: 1 }).textContent).toBe('You have received a document');
});
