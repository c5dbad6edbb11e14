/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { NO_MORE } from '../../../core/masters/masters';
import type { MasterRow, MergePreview } from '../../../wire/masters';
import { anyUnsaved } from '../../kit/unsaved';
import { openPage, type Replies } from '../../test/openPage';
import { type } from '../../test/typing';
import { VendorsPage } from './MastersPage';

afterEach(cleanup);

const vendor = (code: string, name: string, more: Partial<MasterRow> = {}): MasterRow => ({
  ...NO_MORE,
  code,
  name,
  kind: 'supplier',
  termsDays: 30,
  closed: false,
  usedBy: ['2 prices'],
  seen: `seen ${code}`,
  ...more,
});
const ROWS = [
  vendor('BOLT', 'Bolt and Nut'),
  vendor('BOLTS', 'Bolt & Nut Ltd', { usedBy: [] }),
  vendor('OLD', 'Old Yard', { closed: true }),
];
const open = (more: Replies = {}) =>
  openPage(VendorsPage, '/set-up/vendors', '/set-up/vendors', { masters: ROWS, saveMaster: {}, ...more } as Replies);
const choose = async (code: string) => fireEvent.click(await screen.findByRole('button', { name: code }));

test('one is renamed and closed to new use with what it was opened as; only what nothing uses can be deleted', async () => {
  const { sent } = open();
  await choose('BOLT');
  expect(screen.queryByRole('button', { name: 'Delete BOLT' })).toBeNull();
  type('Code', 'B-N');
  fireEvent.click(screen.getByLabelText('Closed to new use'));
  expect(anyUnsaved()).toBe(true);
  fireEvent.click(screen.getByRole('button', { name: 'Save' }));
  await waitFor(() =>
    expect(sent('saveMaster')).toEqual([expect.objectContaining({ code: 'B-N', closed: true, seen: 'seen BOLT' })]),
  );
  await waitFor(() => expect(anyUnsaved()).toBe(false));
  await choose('BOLTS');
  expect(await screen.findByRole('button', { name: 'Delete BOLTS' })).toBeDefined();
});

test('a code that is taken is refused at its field, and what was typed stays', async () => {
  open({
    addMaster: { status: 400, body: { message: 'Refused', faults: [{ field: 'code', message: 'BOLT is already there' }] } },
  });
  await screen.findByRole('table', { name: 'Vendors' });
  fireEvent.click(screen.getByRole('button', { name: 'New vendor' }));
  expect(document.activeElement).toBe(screen.getByLabelText('Code'));
  type('Code', 'BOLT');
  type('Name', 'Bolt again');
  fireEvent.click(screen.getByRole('button', { name: 'Add vendor' }));
  expect((await screen.findByRole('alert')).textContent).toBe('BOLT is already there');
  expect(screen.getByLabelText<HTMLInputElement>('Name').value).toBe('Bolt again');
});

test('a merge shows what moves before it is done, at a second press, with what was shown; closed ones take none', async () => {
  const mergePreview: MergePreview = { moves: ['2 prices', '1 order'], refused: null, seen: 'moves' };
  const { sent } = open({ mergePreview, mergeMaster: {} } as Replies);
  await choose('BOLT');
  fireEvent.pointerDown(screen.getByRole('combobox', { name: 'Merge this vendor into' }), { button: 0 });
  const list = await screen.findByRole('listbox');
  expect(
    within(list)
      .getAllByRole('option')
      .map((it) => it.textContent),
  ).toEqual(['Choose', 'BOLTS Bolt & Nut Ltd']);
  fireEvent.click(within(list).getByRole('option', { name: /BOLTS/ }));
  expect(
    await screen.findByText('2 prices, 1 order will be of BOLTS, and BOLT is deleted. What is posted keeps its texts.'),
  ).toBeDefined();
  fireEvent.click(screen.getByRole('button', { name: 'Merge BOLT into BOLTS' }));
  expect(sent('mergeMaster')).toEqual([]);
  fireEvent.click(screen.getByRole('button', { name: 'Merge BOLT into BOLTS permanently?' }));
  await waitFor(() => expect(sent('mergeMaster')).toEqual([{ seen: 'moves' }]));
});
