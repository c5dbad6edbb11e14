import { act, reading } from '../test/act';
import { afterAll, beforeEach, describe, expect, test } from '@jest/globals';
import type { Database } from '../db/database';
import { estimateList } from '../estimates/estimateViews';
import { priceListView, priceHistory } from './priceList';
import { cleanUp, everything, faultsOf, temporaryDatabase, TENDER_BOOK, TESTER } from '../test/books';
import { previewPricedParts, savePricedParts } from './savePricedParts';
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

  test('what was priced on a line goes to the list as items and a build-up, shown first; an item keeps its vendor', async () => {
    const priced = { unit: 'nr', costType: 'material', costCode: '200', markup: null } as const;
    const of = (item: string, buildUp: string, quantity: number) => ({ item, buildUp, quantity, waste: 0 });
    const parts = {
      items: [
        { ...priced, code: 'FIXING', description: 'Fixing', unitCost: 1_500 },
        { ...priced, code: 'CLIP', description: 'Clip', unitCost: 2_000 },
      ],
      buildUp: {
        code: 'TRAY',
        description: 'Tray',
        unit: 'm2',
        components: [of('', 'BED', 10_000), of('FIXING', '', 45_000), of('CLIP', '', 50_000)],
      },
      on: '2031-04-01',
      reason: 'As priced',
    };
    const before = await everything(database);
    // ROOF: 4.5 × (0.15 − 0.1234) = 0.1197 dearer than 25.0975. TRAY: the bed 0.35 × 1.05 × 6.40 + 0.02 × 32.50 = 3.002, 4.5 × 0.15, 5 × 0.20.
    const { seen, ...changes } = await previewPricedParts(database, parts);
    const figures = (of: typeof changes.items) => of.map((it) => [it.code, it.before, it.after]);
    expect([figures(changes.items), figures(changes.buildUps)]).toEqual([
      [
        ['FIXING', 1_234, 1_500],
        ['CLIP', null, 2_000],
      ],
      [
        ['ROOF', 250_975, 252_172],
        ['TRAY', null, 46_770],
      ],
    ]);
    const save = (input: typeof parts, digest: string) => act(database, TESTER, savePricedParts, { ...input, seen: digest });
    await expect(save(parts, 'of before')).rejects.toThrow(/has changed since it was previewed/);
    const [fixing, clip] = [parts.items[0]!, parts.items[1]!];
    await expect(save({ ...parts, items: [fixing, { ...fixing, unitCost: 1 }] }, seen)).rejects.toMatchObject({
      faults: [{ field: 'items.1.code' }],
    });
    const circle = { ...parts.buildUp, code: 'BED', components: [of('', 'ROOF', 10_000)] };
    await expect(save({ ...parts, items: [clip], buildUp: circle }, seen)).rejects.toThrow('made of itself: BED → ROOF → BED');
    expect(await everything(database)).toBe(before);
    await save(parts, seen);
    const { items } = await priceListView(reading(database));
    expect(items.find((it) => it.code === 'FIXING')).toMatchObject({ unitCost: 1_500, vendor: 'PANEL', checkedOn: '2031-04-01' });
    expect((await priceHistory(reading(database), 'FIXING'))[0]).toMatchObject({ unitCost: 1_500, reason: 'As priced' });
    expect(await priceOf()).toBe(617_700);
    await expect(save(parts, seen)).rejects.toThrow(/nothing would change/);
    // Another unit alone is a change too, and said; the line's own words are none.
    const other = { ...parts, items: [{ ...clip, description: 'Clip, left side', unit: 'm' }], buildUp: null as never };
    expect((await previewPricedParts(database, other)).items.map((it) => [it.code, it.description, it.also])).toEqual([
      ['CLIP', 'Clip', 'unit'],
    ]);
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
