/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { useState } from 'react';
import type { EstimateLine, Part } from '../../../../core/estimates/estimate';
import { ROW_KEY, type GridRow } from '../../../kit/grid/gridTypes';
import { openPage, type Replies } from '../../../test/openPage';
import { type } from '../../../test/typing';
import { SavePrices } from './SavePrices';

afterEach(cleanup);

const part = (description: string, more: Partial<Part> = {}): Part => ({
  item: '',
  description,
  costCode: '200',
  costType: 'material',
  basis: 'per-unit',
  quantity: 45_000,
  unit: 'nr',
  unitCost: 1_500,
  markup: null,
  ...more,
});
const LINE: EstimateLine = {
  line: '7',
  section: '',
  description: 'Tray',
  quantity: 10_000,
  unit: 'm2',
  buildUp: 'BED',
  markup: null,
  parts: [part('Fixing', { item: 'FIXING' }), part('Clip'), part('Crane', { basis: 'in-all' })],
};
// An empty row stands between the first and the second part.
const ROWS: GridRow[] = [
  { [ROW_KEY]: 'a', item: 'FIXING', description: 'Fixing' },
  { [ROW_KEY]: 'b', description: '' },
  { [ROW_KEY]: 'c', description: 'Clip' },
  { [ROW_KEY]: 'd', description: 'Crane' },
];
const CHANGES = {
  seen: 'as-shown',
  items: [{ code: 'CLIP', description: 'Clip', unit: 'nr', before: null, after: 1_500, also: '' }],
  buildUps: [{ code: 'TRAY', description: 'Tray', unit: 'm2', before: null, after: 43_520, also: '' }],
};

function open(replies: Replies = {}) {
  let now: readonly GridRow[] = ROWS;
  const Page = () => {
    const [rows, setRows] = useState(ROWS);
    now = rows;
    return <SavePrices line={LINE} rows={rows} onRows={setRows} faulty={false} />;
  };
  return { ...openPage(Page, '/', '/', { previewPricedParts: CHANGES, savePricedParts: {}, ...replies }), rows: () => now };
}
const press = async (name: string) => fireEvent.click(await screen.findByRole('button', { name }));

test('parts with a code become price items, those for each unit a build-up; the rows they stand in name their items', async () => {
  const { sent, rows } = open();
  await press('Save to the price list …');
  await screen.findByLabelText('Code of a build-up');
  type('Code of a build-up', 'TRAY');
  // Closed by the way, it has what was typed when it opens again.
  fireEvent.keyDown(screen.getByLabelText('Code of a build-up'), { key: 'Escape' });
  await waitFor(() => expect(screen.queryByLabelText('Code of a build-up')).toBeNull());
  await press('Save to the price list …');
  expect(((await screen.findByLabelText('Code of a build-up')) as HTMLInputElement).value).toBe('TRAY');
  await press('Show what changes');
  // The clip has no code yet; what is for the whole line needs none.
  expect((await screen.findByRole('alert')).textContent).toContain('Expected a code');
  expect(sent('previewPricedParts')).toEqual([]);
  type('Code of Clip', 'CLIP');
  await press('Show what changes');
  await press('Save 1 price item, 1 build-up');
  const priced = { unit: 'nr', costType: 'material', costCode: '200', unitCost: 1_500, markup: null };
  const of = (item: string, buildUp: string, quantity: number) => ({ item, buildUp, quantity, waste: 0 });
  await waitFor(() =>
    expect(sent('savePricedParts')).toEqual([
      {
        items: [
          { ...priced, code: 'FIXING', description: 'Fixing' },
          { ...priced, code: 'CLIP', description: 'Clip' },
        ],
        buildUp: {
          code: 'TRAY',
          description: 'Tray',
          unit: 'm2',
          components: [of('', 'BED', 10_000), of('FIXING', '', 45_000), of('CLIP', '', 45_000)],
        },
        on: '2031-05-12',
        reason: '',
        seen: 'as-shown',
      },
    ]),
  );
  await waitFor(() => expect(rows().map((it) => it.item ?? '')).toEqual(['FIXING', '', 'CLIP', '']));
});

test('what the server refuses stands at its part, and what was typed stays; a change takes the preview away', async () => {
  const refusal = {
    message: 'There is no cost code 200',
    faults: [{ field: 'items.1.costCode', message: 'There is no cost code 200' }],
  };
  let refused = true;
  open({ previewPricedParts: () => (refused ? { status: 400, body: refusal } : CHANGES) });
  await press('Save to the price list …');
  await screen.findByLabelText('Code of Clip');
  type('Code of Clip', 'CLIP');
  await press('Show what changes');
  await waitFor(() => expect(screen.getByLabelText('Code of Clip').getAttribute('aria-invalid')).toBe('true'));
  refused = false;
  await press('Show what changes');
  await screen.findByRole('button', { name: /^Save 1 price item/ });
  type('Code of Clip', 'CLIP-2');
  expect(screen.queryByRole('button', { name: /^Save 1 price item/ })).toBeNull();
});
