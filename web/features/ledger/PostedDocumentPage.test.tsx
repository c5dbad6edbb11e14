/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import type { CostRow } from '../../../wire/costs';
import type { PostingView } from '../../../wire/ledger';
import { UNPOSTED_COSTS } from '../../ground/unpostedCosts';
import { readDraft } from '../../kit/draft/storedDraft';
import { ROW_KEY } from '../../kit/grid/gridTypes';
import { openPage, type Replies } from '../../test/openPage';
import { PostedDocumentPage } from './PostedDocumentPage';

beforeEach(() => localStorage.clear());
afterEach(cleanup);

const posting = (more: Partial<PostingView> = {}): PostingView => ({
  id: 12,
  kind: 'cost-batch',
  kindName: 'Costs',
  job: '2105',
  reference: 'TS-1',
  dated: '2031-04-23',
  actor: 'accountant',
  recordedAt: '2031-04-23T10:00:00Z',
  total: 125_000,
  reverses: null,
  reversedBy: null,
  note: '',
  journals: [],
  entryCount: 1,
  weekSheets: [{ sheet: '12', dated: '2031-04-07' }],
  fixed: null,
  corrects: [],
  correctedBy: [],
  previous: 11,
  next: null,
  client: null,
  receivedOn: null,
  ...more,
});
const reversed = posting({ reversedBy: 13, fixed: 'It was reversed by document 13' });
const entry: CostRow = {
  id: 1,
  postingId: 12,
  dated: '2031-04-23',
  postedOn: '2031-04-30',
  job: '2105',
  section: 'A',
  costCode: '100',
  costType: 'labour',
  reference: 'TS-1',
  party: 'Crew',
  description: 'Framing',
  quantity: null,
  hours: 505_000,
  amount: 125_000,
  commitment: 'PO-1',
  commitmentLine: 'PO-1/2',
  uninstalled: false,
  installedOn: null,
  reverses: null,
  reversedBy: 13,
  replaces: null,
  moved: false,
  worked: null,
  notInstalled: 0,
};
const open = (of: PostingView, more: Replies = {}) =>
  openPage(PostedDocumentPage, '/ledger/postings/:id', '/ledger/postings/12', { posting: of, ...more });

test('the lines of a reversed document are laid out as they were typed; where they cannot be read, that is said', async () => {
  let refused = true;
  const { address } = open(reversed, {
    costPage: () =>
      refused ? { status: 503, body: { message: 'The books are busy; try again' } } : { rows: [entry], next: null },
  });
  const button = await screen.findByRole('button', { name: 'Enter its lines again …' });
  fireEvent.click(button);
  expect((await screen.findByRole('alert')).textContent).toContain('The books are busy; try again');
  expect(screen.getByRole('link', { name: 'sheet 12' }).getAttribute('href')).toBe('/costs/time/sheets/12?on=2031-04-07');
  const unposted = () => (readDraft(UNPOSTED_COSTS)?.rows ?? []).map(({ [ROW_KEY]: _, ...row }) => row);
  expect(unposted()).toEqual([]);
  refused = false;
  fireEvent.click(button);
  await waitFor(() => expect(address()).toContain('/costs'));
  expect(unposted()).toEqual([
    {
      dated: '23 Apr 2031',
      postedOn: '30 Apr 2031',
      job: '2105',
      section: 'A',
      costCode: '100',
      costType: 'labour',
      party: 'Crew',
      reference: 'TS-1',
      commitment: 'PO-1/2',
      description: 'Framing',
      hours: '50.5',
      quantity: '',
      amount: '1,250.00',
      uninstalled: '',
    },
  ]);
});

test('Esc closes the list of ways to reverse, then the form', async () => {
  open(posting());
  fireEvent.click(await screen.findByRole('button', { name: 'Reverse this document …' }));
  fireEvent.pointerDown(await screen.findByRole('combobox', { name: 'Reversed' }), { button: 0 });
  const list = await screen.findByRole('listbox');
  fireEvent.keyDown(list, { key: 'Escape' });
  await waitFor(() => expect(screen.queryByRole('listbox')).toBeNull());
  fireEvent.keyDown(screen.getByRole('textbox', { name: 'Reason' }), { key: 'Escape' });
  // The way to it has the focus again.
  const button = await screen.findByRole('button', { name: 'Reverse this document …' });
  await waitFor(() => expect(document.activeElement).toBe(button));
});

test('a receipt names the client and what the money came in on, and leads there', async () => {
  const { unmount } = open(
    posting({ kind: 'receipt', entryCount: 0, client: 'Hill Estates', receivedOn: { kind: 'application', reference: '4' } }),
  );
  expect(await screen.findByText('Hill Estates')).toBeDefined();
  expect(screen.getByRole('link', { name: 'Application 4' }).getAttribute('href')).toBe('/jobs/2105/billing/4');
  unmount();
  open(posting({ kind: 'receipt', entryCount: 0, receivedOn: { kind: 'release', reference: 'RR-1' } }));
  expect((await screen.findByRole('link', { name: 'Retention release RR-1' })).getAttribute('href')).toBe('/jobs/2105/billing');
});
