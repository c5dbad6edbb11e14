import { act, reading } from '../test/act';
import { afterAll, beforeEach, describe, expect, test } from '@jest/globals';
import type { Database } from '../db/database';
import { estimateList } from '../estimates/estimateViews';
import { priceListView, priceHistory } from './priceList';
import { cleanUp, everything, faultsOf, temporaryDatabase, TENDER_BOOK, TESTER } from '../test/books';
import { movePrices, previewPriceMove, removeBuildUp, saveBuildUp, savePriceItems } from './prices';

afterAll(cleanUp);

let database: Database;
beforeEach(async () => {
  database = await temporaryDatabase();
  expect(await faultsOf(database, TENDER_BOOK)).toEqual([]);
});

const priceOf = async (number = 1) => (await estimateList(reading(database), 'J2')).find((it) => it.number === number)!.price;

const move = { by: 100_000, vendor: 'PANEL', costType: null, costCode: '', on: '2031-04-01', reason: 'Spring list' };

describe('the price list', () => {
  test('a move of prices is shown before it is made, down to the build-ups, and leaves a history', async () => {
    // 10 % on PANEL: membrane 15.675, fixing 0.13574 → 0.1357. ROOF: 1.08 × 15.675 = 16.929, 4.5 × 0.1357 = 0.61065 → 0.6107;
    // 25.0975 − 15.39 − 0.5553 + 16.929 + 0.6107 = 26.6919. The bed has nothing of PANEL.
    const moves = await previewPriceMove(database, move);
    expect(moves.items.map((it) => [it.code, it.before, it.after])).toEqual([
      ['FIXING', 1_234, 1_357],
      ['MEMBRANE', 142_500, 156_750],
    ]);
    expect(moves.buildUps.map((it) => [it.code, it.before, it.after])).toEqual([['ROOF', 250_975, 266_919]]);
    expect(await act(database, TESTER, movePrices, { ...move, seen: moves.seen })).toBe(2);
    // What was shown would move other prices by now.
    await expect(act(database, TESTER, movePrices, { ...move, seen: moves.seen })).rejects.toThrow(
      /has changed since it was previewed/,
    );
    expect((await priceHistory(reading(database), 'MEMBRANE')).map((it) => [it.dated, it.unitCost, it.reason])).toEqual([
      ['2031-04-01', 156_750, 'Spring list'],
      ['2031-02-01', 142_500, 'Spring list'],
      ['2030-06-01', 139_000, ''],
    ]);
    await expect(act(database, TESTER, movePrices, { ...move, by: 0, seen: '' })).rejects.toThrow(/No price would move/);
  });

  test('an item saved again at the same cost makes no history; unknown code and vendor are named by row', async () => {
    const { items } = await priceListView(reading(database));
    await act(database, TESTER, savePriceItems, {
      items: [{ ...items[3]!, description: 'Membrane, grey' }],
      removed: [],
      on: '2031-04-01',
      reason: '',
    });
    expect(await priceHistory(reading(database), 'MEMBRANE')).toHaveLength(2);
    await expect(
      act(database, TESTER, savePriceItems, {
        items: [items[0]!, { ...items[1]!, costCode: '999', vendor: 'NOBODY' }],
        removed: [],
        on: '2031-04-01',
        reason: '',
      }),
    ).rejects.toMatchObject({ faults: [{ field: 'items.1.costCode' }, { field: 'items.1.vendor' }] });
  });

  test('a circle of build-ups is refused with its way; what is used is not removed, and where is told', async () => {
    const before = await everything(database);
    const bed = (await priceListView(reading(database))).buildUps.find((it) => it.code === 'BED')!;
    const circle = { ...bed, components: [...bed.components, { item: '', buildUp: 'ROOF', quantity: 10_000, waste: 0 }] };
    await expect(act(database, TESTER, saveBuildUp, circle)).rejects.toThrow(
      'A build-up cannot be made of itself: BED → ROOF → BED',
    );
    // What changed beside it is not saved either.
    const first = (await priceListView(reading(database))).items.find((it) => it.code === 'FIXING');
    const asked = { items: [{ ...first!, unitCost: 1 }], removed: ['ADHESIVE'], on: '2031-04-01', reason: '' };
    await expect(act(database, TESTER, savePriceItems, asked)).rejects.toThrow(/part of BED/);
    await expect(act(database, TESTER, removeBuildUp, 'BED')).rejects.toThrow(/part of ROOF/);
    expect(await everything(database)).toBe(before);
    await act(database, TESTER, removeBuildUp, 'ROOF');
    await act(database, TESTER, removeBuildUp, 'BED');
    await act(database, TESTER, savePriceItems, asked);
    expect((await priceListView(reading(database))).items.map((it) => it.code)).not.toContain('ADHESIVE');
    // What was priced with them keeps its price.
    expect(await priceOf()).toBe(617_700);
  });
});
