/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import type { UninstalledRow, UninstalledView } from '../../../../wire/corrections';
import { anyUnsaved } from '../../../kit/unsaved';
import { openPage, type Replies } from '../../../test/openPage';
import { choose, type } from '../../../test/typing';
import { MaterialOnSitePage } from './MaterialOnSitePage';
import { EMPTY_LISTS } from '../../../test/emptyLists';

afterEach(cleanup);

const delivered = (entry: number, more: Partial<UninstalledRow> = {}): UninstalledRow => ({
  entry,
  job: '2110',
  jobName: 'Civic offices',
  section: 'Atrium',
  costCode: '0440',
  codeName: 'Glass',
  age: 16,
  postedOn: '2031-04-14',
  reference: `DN-${entry}`,
  party: 'GLIMMER',
  description: '',
  amount: 1_000_000,
  quantity: 500_000,
  unit: 'm2',
  left: 1_000_000,
  open: 1_000_000,
  openQuantity: 500_000,
  ...more,
});
const LISTS = {
  ...EMPTY_LISTS,
  vendors: [{ code: 'GLIMMER', name: 'Glimmerstone Glass', kind: 'supplier' }],
};
const open = (view: Partial<UninstalledView>, more: Replies = {}, address = '/costs/material-on-site?as-of=2031-04') =>
  openPage(MaterialOnSitePage, '/costs/material-on-site', address, {
    uninstalled: { rows: [], installations: [], ...view },
    lists: LISTS,
    install: { amount: 400_000 } as never,
    ...more,
  });

test('what lies there stands by job with its age and supplier; what is picked is installed whole, on a day', async () => {
  const { sent } = open({ rows: [delivered(1), delivered(2, { left: 500_050, open: 500_050 })] });
  // 10,000.00 and 5,000.50
  expect((await screen.findByRole('row', { name: /^2 entries/ })).textContent).toBe('2 entries15,000.50');
  await waitFor(() =>
    expect(screen.getByRole('row', { name: /DN-1/ }).textContent).toContain('16Atrium0440 GlassGlimmerstone Glass'),
  );
  fireEvent.click(screen.getByLabelText('Pick DN-1, 0440'));
  fireEvent.click(screen.getByLabelText('Pick DN-2, 0440'));
  type('Installed on', '28');
  fireEvent.click(await screen.findByRole('button', { name: 'Install 2 entries, 15,000.50' }));
  const whole = { amount: null, quantity: null };
  await waitFor(() =>
    expect(sent('install')).toEqual([
      {
        on: '2031-04-28',
        parts: [
          { entry: 1, ...whole },
          { entry: 2, ...whole },
        ],
      },
    ]),
  );
  // The form is empty again, and nothing is left to be asked about.
  await waitFor(() => expect(screen.queryByLabelText('Installed on')).toBeNull());
  expect(anyUnsaved()).toBe(false);
});

test('of one delivery a part is installed by amount or quantity; more than is left is refused where it was typed, which stays', async () => {
  const fault = { field: 'parts.0.quantity', message: 'only 50 m2 are left' };
  const { sent } = open(
    { rows: [delivered(1)] },
    { install: { status: 400, body: { message: 'Refused', faults: [fault] } } },
    '/costs/material-on-site?as-of=2031-04&entries=1',
  );
  await choose('What', /a quantity/);
  expect(screen.getByText('of 50 m2')).toBeDefined();
  type('Quantity installed', '51');
  fireEvent.click(screen.getByRole('button', { name: 'Install a part' }));
  expect((await screen.findByRole('alert')).textContent).toBe('only 50 m2 are left');
  expect(screen.getByLabelText<HTMLInputElement>('Quantity installed').value).toBe('51');
  // By the keyboard too: the list opens with an arrow.
  fireEvent.keyDown(screen.getByRole('combobox', { name: 'What' }), { key: 'ArrowDown' });
  fireEvent.keyDown(await screen.findByRole('option', { name: /an amount/ }), { key: 'Enter' });
  type('Amount installed', '4000');
  fireEvent.click(screen.getByRole('button', { name: 'Install a part' }));
  await waitFor(() => expect(sent('install').at(-1)).toMatchObject({ parts: [{ entry: 1, amount: 400_000, quantity: null }] }));
});

test('what was installed can be undone; a refusal is said; with nothing on site the page says where it would come from', async () => {
  const installed = { id: 9, entry: 1, job: '2110', reference: 'DN-1', party: 'GLIMMER', description: '', costCode: '0440' };
  const { asked } = open(
    { installations: [{ ...installed, installedOn: '2031-04-08', amount: 400_000, quantity: null }] },
    { undoInstallation: { status: 409, body: { message: 'Job 2110 is locked' } } },
  );
  expect(await screen.findByText('Nothing lies uninstalled')).toBeDefined();
  const row = within(screen.getByRole('table', { name: 'Installed' })).getByRole('row', { name: /DN-1/ });
  fireEvent.click(within(row).getByRole('button', { name: /^Undo/ }));
  expect((await screen.findByRole('alert')).textContent).toContain('Job 2110 is locked');
  expect(asked.some((it) => it.call === 'undoInstallation')).toBe(true);
});
