/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import type { PriceMoves } from '../../../wire/prices';
import { openPage, type Replies } from '../../test/openPage';
import { MovePrices } from './MovePrices';

afterEach(cleanup);

const LISTS = { vendors: [{ code: 'SLATE', name: 'Slatewright Supplies', kind: 'supplier' }], costCodes: [] } as never;

// 12.50 and 10 % more is 13.75; a build-up of two of them 25.00 and 27.50.
const MOVES: PriceMoves = {
  seen: 'as-shown',
  items: [{ code: 'SLATE-20', description: 'Slate 500 × 250', unit: 'no', before: 125_000, after: 137_500, also: '' }],
  buildUps: [{ code: 'SLATED', description: 'Slated roof', unit: 'm2', before: 250_000, after: 275_000, also: '' }],
};

function open(replies: Replies = {}) {
  let done = 0;
  const Page = () => <MovePrices lists={LISTS} onDone={() => (done += 1)} />;
  return { ...openPage(Page, '/', '/', { previewPriceMove: MOVES, movePrices: { count: 1 }, ...replies }), done: () => done };
}
const by = async (text: string) => fireEvent.change(await screen.findByLabelText('By %'), { target: { value: text } });
const press = (name: RegExp) => fireEvent.click(screen.getByRole('button', { name }));

test('what moves is shown before anything does, and the move carries what was shown', async () => {
  const { sent, done } = open();
  await by('+10 %');
  const vendor = screen.getByLabelText('Of vendor');
  fireEvent.pointerDown(vendor, { button: 0 });
  fireEvent.keyDown(await screen.findByRole('option', { name: 'Slatewright Supplies' }), { key: 'Enter' });
  press(/Show what moves/);
  expect(await screen.findByText(/^13\.75/)).toBeDefined();
  expect(screen.getByText(/^27\.50/)).toBeDefined();
  expect(sent('movePrices')).toEqual([]);
  press(/^Adjust 1 price by 10 %/);
  await waitFor(() => expect(done()).toBe(1));
  const move = { by: 100_000, vendor: 'SLATE', costType: null, costCode: '', on: '2031-05-12', reason: '' };
  expect(sent('movePrices')).toEqual([{ ...move, seen: 'as-shown' }]);
});

test('a change of what is asked takes the old preview away, so that nothing moves unseen', async () => {
  open();
  await by('10');
  press(/Show what moves/);
  await screen.findByText(/^13\.75/);
  await by('20');
  expect([screen.queryByText(/^13\.75/), screen.queryByRole('button', { name: /^Adjust/ })]).toEqual([null, null]);
});

test('no percentage asks for one and sends nothing; prices that moved meanwhile are refused, and what was typed stays', async () => {
  const message = 'Prices changed since they were shown; look again';
  const { sent, done } = open({ movePrices: { status: 409, body: { message } } });
  await by('ten');
  press(/Show what moves/);
  expect((await screen.findByRole('alert')).textContent).toContain('Expected a percentage such as 4.5 or -2');
  expect(sent('previewPriceMove')).toEqual([]);
  await by('10');
  press(/Show what moves/);
  await screen.findByText(/^13\.75/);
  press(/^Adjust/);
  await waitFor(() => expect(screen.getByRole('alert').textContent).toContain(message));
  expect([done(), screen.getByLabelText<HTMLInputElement>('By %').value]).toEqual([0, '10']);
});
