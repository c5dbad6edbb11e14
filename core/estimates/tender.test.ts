import { book, buildUp, BUILD_UPS, component, ITEMS, line, part, priced, TENDER } from './tenderFixture';
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { COST_TYPES } from '../costs/costType';
import { buildUpFault, PriceList, unitCostOfShares, whereUsed } from '../prices/buildUp';
import { changedBy, extend, formatUnitCost, parseUnitCost } from '../prices/unitCost';
import { groupsBy, planAward, type AwardGroup } from './award';
import { compareEstimates } from './compare';
import { priceEstimate, profitForPrice, type Estimate, type EstimateLine } from './estimate';
import { LinePricer } from './linePricer';

describe('a tender worked by hand', () => {
  test('a build-up within a build-up, with waste and a markup of its own', () => {
    // BED: adhesive 0.35 kg + 5 % = 0.3675 × 6.40 = 2.352; crew 0.02 h × 32.50 = 0.65.
    expect(book.unitShares('BED').map((it) => [it.costType, it.markup, it.cost, it.hours])).toEqual([
      ['labour', null, 6_500, 200],
      ['material', 150_000, 23_520, 0],
    ]);
    // ROOF: membrane 1.08 × 14.25 = 15.39; fixings 4.5 × 0.1234 = 0.5553; bed 1.1 × (0.65 + 2.352) = 0.715 + 2.5872,
    // hours 0.022; crew 0.18 × 32.50 = 5.85. Labour 6.565 in 0.202 h; material 15.9453 and, at 15 %, 2.5872: 25.0975.
    expect(book.unitShares('ROOF').map((it) => [it.costType, it.markup, it.cost, it.hours])).toEqual([
      ['labour', null, 65_650, 2_020],
      ['material', null, 159_453, 0],
      ['material', 150_000, 25_872, 0],
    ]);
    expect(unitCostOfShares(book.unitShares('ROOF'))).toBe(250_975);
    expect(book.pricedComponents('ROOF').map((it) => [it.each, it.cost, it.hours])).toEqual([
      [142_500, 153_900, 0],
      [1_234, 5_553, 0],
      [30_020, 33_022, 220],
      [325_000, 58_500, 1_800],
    ]);
  });

  test('lines: cost by code and type, hours, and the markup of the line, the section, the item or the type', () => {
    // 1: 137.5 m2: labour 902.6875 → 902.69 in 27.775 h; material 2,192.47875 → 2,192.48, and 355.74 at its own 15 %.
    //    Markup 90.27 + 175.40 + 53.36 = 319.03.
    // 2: 1,200.00 at the line's 12.5 % = 150.00.
    // 3: 10 × 0.75 h × 32.50 = 243.75 in 7.5 h; 3 × 45.5555 = 136.6665 → 136.67; the section's 20 % of 380.42 = 76.08.
    expect(priced.lines[0]!.costs).toEqual([
      { costCode: '100', costType: 'labour', cost: 90_269, hours: 277_750 },
      { costCode: '200', costType: 'material', cost: 219_248 + 35_574, hours: 0 },
    ]);
    expect(priced.lines.map((it) => [it.cost, it.hours, it.markup, it.net, it.markupFrom])).toEqual([
      [345_091, 277_750, 31_903, 376_994, 'type'],
      [120_000, 0, 15_000, 135_000, 'line'],
      [38_042, 75_000, 7_608, 45_650, 'section'],
    ]);
  });

  test('totals: overhead on cost and markup, profit on that and overhead; margin and markup are two things', () => {
    // Cost 5,031.33, markup 545.11, together 5,576.44. Overhead 6 % = 334.59; profit 4.5 % of 5,911.03 = 266.00;
    // rounding −0.03: price 6,177.00. Gain 1,145.67: 18.5474 % of the price, 22.7707 % on the cost.
    expect(priced.totals).toEqual({
      byType: { labour: 114_644, material: 254_822, subcontract: 120_000, equipment: 13_667, other: 0 },
      cost: 503_133,
      hours: 352_750,
      markup: 54_511,
      net: 557_644,
      overhead: 33_459,
      profit: 26_600,
      rounding: -3,
      price: 617_700,
      profitAmount: 114_567,
      marginRate: 185_474,
      markupRate: 227_707,
    });
  });

  test('a target price is met to the penny by the profit, and what is unallocated by the rounding line', () => {
    // 6,000.00 − 5,911.03 = 88.97; of 5,911.03 that is 1.5052 %, which gives 88.97 again: nothing left to round.
    expect(profitForPrice(priced.totals, 600_000)).toEqual({ profit: 15_052, rounding: 0 });
    expect(profitForPrice({ ...priced.totals, net: 0, overhead: 0 }, 600_000)).toBeNull();
  });

  test('the award: overhead and profit, then the difference to the agreed price, are spread to the penny', () => {
    // 600.56 over 5,119.94 and 456.50: 551.3968 and 49.1632 → 551.40 and 49.16.
    // Agreed 6,150.00, 27.00 less: 24.7897 and 2.2103 → 24.79 and 2.21.
    const { sov, budget } = planAward(TENDER.lines, priced, groupsBy('section', TENDER.lines), 615_000);
    expect(sov.map((it) => [it.section, it.net, it.spread, it.difference, it.scheduledValue])).toEqual([
      ['A', 511_994, 55_140, -2_479, 564_655],
      ['B', 45_650, 4_916, -221, 50_345],
    ]);
    expect(budget.map((it) => [it.section, it.costCode, it.costType, it.sovLine, it.estimateLine, it.hours, it.amount])).toEqual([
      ['A', '100', 'labour', '1', '1', 277_750, 90_269],
      ['A', '200', 'material', '1', '1', null, 254_822],
      ['A', '300', 'subcontract', '1', '2', null, 120_000],
      ['B', '100', 'labour', '2', '3', 75_000, 24_375],
      ['B', '400', 'equipment', '2', '3', null, 13_667],
    ]);
  });

  test('the same by weights of the user’s own', () => {
    // 1 to 3: 600.56 → 150.14 and 450.42; −27.00 → −6.75 and −20.25.
    const groups = groupsBy('section', TENDER.lines).map((it, i): AwardGroup => ({ ...it, weight: i === 0 ? 1 : 3 }));
    expect(planAward(TENDER.lines, priced, groups, 615_000).sov.map((it) => [it.spread, it.difference])).toEqual([
      [15_014, -675],
      [45_042, -2_025],
    ]);
  });
});

describe('what must always hold', () => {
  const rate = fc.integer({ min: 0, max: 400_000 });
  const anyLine = fc.record({
    quantity: fc.integer({ min: 0, max: 50_000_000 }),
    section: fc.constantFrom('A', 'B', ''),
    buildUp: fc.constantFrom('', 'ROOF', 'BED'),
    markup: fc.option(rate, { nil: null }),
    parts: fc.array(
      fc.record({
        costType: fc.constantFrom(...COST_TYPES),
        costCode: fc.constantFrom('100', '200'),
        basis: fc.constantFrom('per-unit' as const, 'in-all' as const),
        quantity: fc.integer({ min: 0, max: 1_000_000 }),
        unitCost: fc.integer({ min: 0, max: 10_000_000 }),
        markup: fc.option(rate, { nil: null }),
      }),
      { maxLength: 3 },
    ),
  });
  const anyEstimate = fc
    .record({
      lines: fc.array(anyLine, { minLength: 1, maxLength: 8 }),
      overhead: rate,
      profit: rate,
      rounding: fc.integer({ min: -500, max: 500 }),
    })
    .map(({ lines, ...rest }): Estimate => ({
      ...TENDER,
      ...rest,
      lines: lines.map((it, i) => line(String(i + 1), { ...it, parts: it.parts.map((own) => part(own)) })),
    }));

  test('an awarded schedule comes to the agreed price, its budget to the cost and hours of the estimate, however it is grouped', () => {
    fc.assert(
      fc.property(
        anyEstimate,
        fc.integer({ min: 0, max: 99_999_999 }),
        fc.constantFrom('line' as const, 'section' as const),
        (estimate, agreed, by) => {
          const { lines, totals } = priceEstimate(estimate, 2);
          const { sov, budget } = planAward(estimate.lines, { lines, totals }, groupsBy(by, estimate.lines), agreed);
          const total = (values: readonly number[]) => values.reduce((a, b) => a + b, 0);
          expect(total(sov.map((it) => it.scheduledValue))).toBe(agreed);
          expect(total(budget.map((it) => it.amount))).toBe(totals.cost);
          expect(total(budget.map((it) => it.hours ?? 0))).toBe(totals.hours);
          expect(total(Object.values(totals.byType))).toBe(totals.cost);
          expect(totals.price).toBe(totals.cost + totals.markup + totals.overhead + totals.profit + totals.rounding);
        },
      ),
    );
  });

  test('priced again and again as it is typed, it comes to what it does priced whole', () => {
    fc.assert(
      fc.property(
        fc.array(anyEstimate, { minLength: 2, maxLength: 6 }),
        fc.array(fc.nat(7), { minLength: 6, maxLength: 6 }),
        (versions, swaps) => {
          const pricer = new LinePricer(2);
          let now = versions[0]!;
          versions.forEach((next, i) => {
            // One line changes, or markups and prices do, or all of it.
            const at = swaps[i]! % now.lines.length;
            now =
              i % 3 === 0
                ? { ...now, lines: now.lines.map((it, k) => (k === at ? { ...it, quantity: it.quantity + 1 } : it)) }
                : i % 3 === 1
                  ? { ...now, overhead: next.overhead, typeMarkups: { labour: next.overhead } }
                  : next;
            expect(pricer.price(now)).toEqual(priceEstimate(now, 2));
          });
        },
      ),
    );
  });

  test('a price worked back into profit and rounding is that price', () => {
    fc.assert(
      fc.property(anyEstimate, fc.integer({ min: 1, max: 999_999_999 }), (estimate, target) => {
        const worked = profitForPrice(priceEstimate(estimate, 2).totals, target);
        if (worked) expect(priceEstimate({ ...estimate, ...worked }, 2).totals.price).toBe(target);
      }),
    );
  });
});

test('two estimates beside each other: lines of one only, and what differs', () => {
  const dearer = new PriceList(
    ITEMS.map((it) => ({ ...it, unitCost: changedBy(it.unitCost, 20_000) })),
    BUILD_UPS,
  );
  const [one, two] = TENDER.lines as [EstimateLine, EstimateLine];
  const other: Estimate = {
    ...TENDER,
    lines: [one, { ...two, quantity: 20_000 }, line('4', {})],
    prices: new Map([['ROOF', dearer.unitShares('ROOF')]]),
  };
  expect(compareEstimates(TENDER, other, 2).map((it) => [it.line, it.left?.cost, it.right?.cost, it.differs])).toEqual([
    // 2 % more: crew 33.15, membrane 14.535, fixing 0.1259, adhesive 6.528; BED 0.663 + 2.3990; ROOF labour 0.18 × 33.15 = 5.967
    // + 1.1 × 0.663 = 0.7293: 6.6963; material 15.6978 + 0.5666 = 16.2644, and 2.6389. × 137.5: 920.74 + 2,236.36 (2,236.355) + 362.85 (362.84875).
    ['1', 345_091, 92_074 + 223_636 + 36_285, ['unit cost']],
    ['2', 120_000, 120_000, ['quantity']],
    ['3', 38_042, undefined, []],
    ['4', undefined, 0, []],
  ]);
});

test('build-ups in a circle, too deep, or taking too much in one are refused with their way, however many', () => {
  const circle = ['A', 'B', 'C'].map((code, i, all) => buildUp(code, component({ buildUp: all[(i + 1) % 3]! }, 10_000)));
  expect(buildUpFault(circle)?.message).toBe('A build-up cannot be made of itself: A → B → C → A');
  const roof = buildUp('X', component({ buildUp: 'ROOF' }, 1), component({ buildUp: 'X' }, 1));
  expect(buildUpFault([...BUILD_UPS, roof])).toMatchObject({ code: 'X', component: 'X' });
  expect(buildUpFault(BUILD_UPS)).toBeNull();

  const chain = (levels: number, each: number) =>
    Array.from({ length: levels }, (_, i) =>
      buildUp(`L${i}`, component(i + 1 < levels ? { buildUp: `L${i + 1}` } : { item: 'CREW' }, each)),
    );
  expect(buildUpFault(chain(40, 10_000))).toBeNull();
  // The innermost is L4999; the 41st level from there is L4959.
  expect(buildUpFault(chain(5_000, 10_000))?.message).toMatch(/^A build-up more than 40 levels deep, L4959:/);
  // A thousand in each of three levels is 1,000,000,000, which may be; in four it is a thousand times that.
  expect(buildUpFault(chain(3, 10_000_000))).toBeNull();
  expect(buildUpFault(chain(4, 10_000_000))?.message).toMatch(
    /^A build-up taking more than 1,000,000,000 units of price items for one, L0:/,
  );
  expect(whereUsed(BUILD_UPS, { item: 'CREW' }).map((it) => it.code)).toEqual(['BED', 'ROOF']);
  expect(whereUsed(BUILD_UPS, { buildUp: 'BED' }).map((it) => it.code)).toEqual(['ROOF']);
});

test('unit costs have four decimals whatever the currency', () => {
  expect(parseUnitCost('12.3456')).toEqual({ ok: true, value: 123_456 });
  expect([formatUnitCost(123_456, 2), formatUnitCost(120_000, 2), formatUnitCost(120_000, 0), formatUnitCost(1_230, 2)]).toEqual([
    '12.3456',
    '12.00',
    '12',
    '0.123',
  ]);
  // 2.5 × 12.3456 = 30.864: 30.86 in pence, 31 in a currency without minor unit, 30.864 in one with three decimals.
  expect([2, 0, 3].map((digits) => extend(25_000, 123_456, digits))).toEqual([3_086, 31, 30_864]);
});
