/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import type { PriceListView, PriceItemInput } from '../../../wire/prices';
import { anyUnsaved } from '../../kit/unsaved';
import { openPage, type Replies } from '../../test/openPage';
import { cell, put } from '../../test/typing';
import { BuildUpsPage } from './BuildUpsPage';

afterEach(cleanup);

const item = (code: string, unit: string, costType: PriceItemInput['costType'], unitCost: number): PriceItemInput => ({
  code,
  description: code.toLowerCase(),
  unit,
  costType,
  costCode: '0340',
  wageClass: '',
  unitCost,
  markup: null,
  vendor: '',
  checkedOn: null,
});
// Four decimals: 20.00 a m2, 34.50 an hour.
const BOOK: PriceListView = {
  items: [item('SLATE', 'm2', 'material', 200_000), item('ROOFER', 'h', 'labour', 345_000)],
  buildUps: [
    {
      code: 'ROOF',
      description: 'Slating',
      unit: 'm2',
      components: [
        { item: 'SLATE', buildUp: '', quantity: 10_000, waste: 50_000 },
        { item: 'ROOFER', buildUp: '', quantity: 5_000, waste: 0 },
      ],
    },
    {
      code: 'RIDGE',
      description: 'Ridge',
      unit: 'm',
      components: [{ item: '', buildUp: 'ROOF', quantity: 2_000, waste: 0 }],
    },
  ],
};
const open = (more: Replies = {}) =>
  openPage(BuildUpsPage, '/tenders/build-ups', '/tenders/build-ups?of=ROOF', {
    priceList: BOOK,
    achieved: [],
    saveBuildUp: {} as never,
    ...more,
  });
const save = () => screen.findByRole<HTMLButtonElement>('button', { name: /^(Save|No changes)/ });

test('what one unit costs follows as it is typed, and what it is part of follows too; it is saved as typed', async () => {
  const { sent } = open();
  // 20.00 with 5 % waste is 21.00, half an hour of 34.50 is 17.25.
  expect((await screen.findByRole('row', { name: /^One m2/ })).textContent).toBe('One m2, GBP38.2500');
  expect(screen.getByText('Part of RIDGE, which follows when this one changes.')).toBeDefined();
  // A fifth of it: 7.65.
  expect(screen.getByRole('row', { name: /RIDGE Ridge/ }).textContent).toContain('7.6500');
  expect((await save()).disabled).toBe(true);
  await put('Quantity per m2', 2, '0.6');
  // 0.6 h are 20.70.
  expect((await save()).textContent).toBe('Save ROOF, 41.70 a m2');
  fireEvent.click(await save());
  await waitFor(() => expect(sent('saveBuildUp')).toHaveLength(1));
  expect(sent('saveBuildUp')[0]).toMatchObject({
    code: 'ROOF',
    components: [{ item: 'SLATE', waste: 50_000 }, { quantity: 6_000 }],
  });
});

test('a circle is refused with its way before it is sent; another build-up does not take the place of one that is typed in unasked', async () => {
  const { address } = open();
  await put('Item or build-up', 3, 'RIDGE');
  await put('Quantity per m2', 3, '1');
  expect((await screen.findByRole('alert')).textContent).toMatch(/ROOF.*RIDGE/);
  expect((await save()).disabled).toBe(true);
  expect(anyUnsaved()).toBe(true);
  fireEvent.click(within(screen.getByRole('table', { name: 'Build-ups' })).getByRole('button', { name: /RIDGE/ }));
  expect([address(), (await cell('Item or build-up', 3)).value]).toEqual(['/tenders/build-ups?of=ROOF', 'RIDGE']);
});

test('without a priced item there is nothing to make one of, and the page leads to the price list', async () => {
  open({ priceList: { items: [], buildUps: [] } });
  expect((await screen.findByRole('link', { name: 'Type or import prices' })).getAttribute('href')).toBe('/tenders/prices');
});
