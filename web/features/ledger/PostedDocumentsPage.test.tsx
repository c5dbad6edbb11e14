/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import type { PostingPage, PostingRow } from '../../../wire/ledger';
import { openPage, type Asked } from '../../test/openPage';
import { PostedDocumentsPage } from './PostedDocumentsPage';

afterEach(cleanup);

const document = (id: number): PostingRow => ({
  id,
  kind: 'receipt',
  kindName: 'Receipt',
  job: '2105',
  reference: `BACS ${id}`,
  dated: '2031-04-23',
  actor: 'accountant',
  recordedAt: '2031-04-23T10:00:00Z',
  total: 125_000,
  reverses: null,
  reversedBy: null,
});
const page = (ids: readonly number[], next: string | null): PostingPage => ({ postings: ids.map(document), count: 3, next });
const LISTS = { clients: [], vendors: [], costCodes: [], jobs: [], managers: [], commitments: [] } as never;

/** Two documents, then the third. */
const inPages = ({ query }: Asked) => (query.before === undefined ? page([9, 8], '2031-04-23_8') : page([7], null));

const open = (address = '/ledger/postings') =>
  openPage(PostedDocumentsPage, '/ledger/postings', address, { lists: LISTS, postings: inPages });
const lastQuery = (asked: readonly Asked[]) => asked.filter((it) => it.call === 'postings').at(-1)?.query;

test('older documents come a page at a time, and newer ones are found again', async () => {
  const { asked } = open();
  expect(await screen.findByText('BACS 9')).toBeDefined();
  fireEvent.click(screen.getByRole('button', { name: 'Older' }));
  expect(await screen.findByText('BACS 7')).toBeDefined();
  expect(lastQuery(asked)).toEqual({ asOf: '2031-04', before: '2031-04-23_8' });
  expect(screen.queryByRole('button', { name: 'Older' })).toBeNull();
  fireEvent.click(screen.getByRole('button', { name: 'Newer' }));
  expect(await screen.findByText('BACS 9')).toBeDefined();
});

test('the server sorts by amount, the largest first, and the other way round when the head is pressed again', async () => {
  const { asked, address } = open();
  const debits = await screen.findByRole('button', { name: 'Debits, GBP' });
  fireEvent.click(debits);
  await waitFor(() => expect(address()).toBe('/ledger/postings?sort=total'));
  // Pages of it are neither older nor newer.
  expect(await screen.findByRole('button', { name: 'More' })).toBeDefined();
  fireEvent.click(screen.getByRole('button', { name: 'Debits, GBP' }));
  await waitFor(() => expect(lastQuery(asked)).toEqual({ asOf: '2031-04', sort: 'total', ascending: 'yes' }));
  // What a page alone could be sorted by is no head to press.
  expect(screen.queryByRole('button', { name: 'Reference' })).toBeNull();
});

test('filters stand in the address and in what is asked: a day typed in short, an amount whatever its sign', async () => {
  const { asked, address } = open();
  const from = await screen.findByRole('textbox', { name: 'From' });
  fireEvent.change(from, { target: { value: '3' } });
  fireEvent.keyDown(from, { key: 'Enter' });
  await waitFor(() => expect(address()).toBe('/ledger/postings?from=2031-04-03'));
  const amount = screen.getByRole('textbox', { name: 'Amount, GBP' });
  fireEvent.change(amount, { target: { value: '-1,250.00' } });
  fireEvent.keyDown(amount, { key: 'Enter' });
  await waitFor(() => expect(lastQuery(asked)).toEqual({ asOf: '2031-04', from: '2031-04-03', total: '125000' }));
});

test('what is no day leaves the filter as it was, and is put back', async () => {
  const { address } = open('/ledger/postings?from=2031-04-03');
  const from = await screen.findByRole<HTMLInputElement>('textbox', { name: 'From' });
  fireEvent.change(from, { target: { value: '31 Feb' } });
  fireEvent.blur(from);
  expect([from.value, address()]).toEqual(['3 Apr 2031', '/ledger/postings?from=2031-04-03']);
  fireEvent.change(from, { target: { value: '' } });
  fireEvent.blur(from);
  await waitFor(() => expect(address()).toBe('/ledger/postings'));
});

test('a refusal is said in the words of the server, and asked again by hand', async () => {
  let refused = true;
  openPage(PostedDocumentsPage, '/ledger/postings', '/ledger/postings', {
    lists: LISTS,
    postings: (it) => (refused ? { status: 503, body: { message: 'The books are being written to; try again' } } : inPages(it)),
  });
  expect((await screen.findByRole('alert')).textContent).toContain('The books are being written to; try again');
  refused = false;
  fireEvent.click(screen.getByRole('button', { name: 'Try again' }));
  expect(await screen.findByText('BACS 9')).toBeDefined();
});
