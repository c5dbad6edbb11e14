/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import type { Closing } from '../../../wire/ledger';
import { openPage } from '../../test/openPage';
import { type } from '../../test/typing';
import { ClosedBooks } from './ClosedBooks';

afterEach(cleanup);

const LAST: Closing = { closedTo: '2031-03-31', by: 'Ann Ash', at: '2031-04-05T10:00:00.000Z', reason: '' };
const open = (last: Closing | null) => openPage(ClosedBooks, '/', '/?as-of=2031-05', { closing: { last }, closeBooks: {} });

test('the end of the month before is proposed, and closed as it is typed', async () => {
  const { sent } = open(null);
  expect(await screen.findByText(/No day is closed/)).toBeTruthy();
  type('Note', 'reviewed with Ines');
  fireEvent.click(screen.getByRole('button', { name: 'Close up to 30 Apr 2031' }));
  await waitFor(() => expect(sent('closeBooks')).toEqual([{ to: '2031-04-30', reason: 'reviewed with Ines' }]));
});

test('an earlier day, or none, opens the books again and asks why', async () => {
  const { sent } = open(LAST);
  expect((await screen.findByText('31 Mar 2031')).parentElement?.textContent).toContain('Closed up to 31 Mar 2031 Ann Ash');
  type('Closed up to', '28 Feb 2031');
  expect(screen.getByRole('button', { name: 'Open from 1 Mar 2031' })).toBeTruthy();
  type('Closed up to', '');
  type('Reason for opening', 'an invoice was forgotten');
  fireEvent.click(screen.getByRole('button', { name: 'Open from the beginning' }));
  await waitFor(() => expect(sent('closeBooks')).toEqual([{ to: null, reason: 'an invoice was forgotten' }]));
});
