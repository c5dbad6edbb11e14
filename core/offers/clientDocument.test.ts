import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { EstimateLine, PricedEstimate, PricedLine } from '../estimates/estimate';
import { clientLines, paymentAmounts, PRESENTATIONS } from './clientDocument';

const line = (number: string, section: string, quantity: number): EstimateLine => ({
  line: number,
  section,
  description: `Line ${number}`,
  quantity,
  unit: 'm2',
  buildUp: '',
  markup: null,
  parts: [],
});
const priced = (nets: readonly number[], price: number): PricedEstimate => ({
  lines: nets.map((net): PricedLine => ({ costs: [], cost: 0, hours: 0, markup: 0, net, markupFrom: 'type' })),
  totals: {
    byType: { labour: 0, material: 0, subcontract: 0, equipment: 0, other: 0 },
    cost: 0,
    hours: 0,
    markup: 0,
    net: nets.reduce((a, b) => a + b, 0),
    overhead: 0,
    profit: 0,
    rounding: 0,
    price,
    profitAmount: 0,
    marginRate: 0,
    markupRate: 0,
  },
});

describe('what a client sees of an estimate', () => {
  const lines = [line('1', 'A', 1_375_000), line('2', 'A', 10_000), line('3', 'B', 100_000)];
  // The tender of core/estimating/tender.test.ts: 3,769.94, 1,350.00 and 456.50 make 6,177.00 with 600.56 on them.
  const tender = priced([376_994, 135_000, 45_650], 617_700);

  test('by line: overhead and profit are inside, the unit price has four decimals', () => {
    // 600.56 × 3,769.94 ÷ 5,576.44 = 406.0066, × 1,350 = 145.3895, × 456.50 = 49.1632 (49.1639 less the rest): 406.01 takes no penny,
    // 145.39 has the largest rest. 4,175.95 ÷ 137.5 = 30.3705 a m2.
    const shown = clientLines(lines, tender, { presentation: 'line', quantities: true, unitPrices: true }, 2);
    expect(shown.map((it) => it.amount)).toEqual([417_595, 149_539, 50_566]);
    expect(shown[0]).toMatchObject({ quantity: 1_375_000, unit: 'm2', unitPrice: 303_705 });
  });

  test('by section, and in one sum', () => {
    expect(
      clientLines(lines, tender, { presentation: 'section', quantities: true, unitPrices: true }, 2).map((it) => [
        it.description,
        it.amount,
        it.quantity,
      ]),
    ).toEqual([
      ['A', 567_134, null],
      ['B', 50_566, null],
    ]);
    expect(
      clientLines(lines, tender, { presentation: 'lump-sum', quantities: false, unitPrices: true }, 2).map((it) => [
        it.amount,
        it.quantity,
        it.unitPrice,
      ]),
    ).toEqual([
      [null, null, null],
      [null, null, null],
      [null, null, null],
    ]);
  });

  test('the lines come to the price to the penny, whatever is shown', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 9_999_999 }), { minLength: 1, maxLength: 9 }),
        fc.integer({ min: 0, max: 99_999_999 }),
        fc.constantFrom(...PRESENTATIONS),
        (nets, price, presentation) => {
          const many = nets.map((_, i) => line(String(i + 1), i % 2 ? 'A' : 'B', 10_000));
          const shown = clientLines(many, priced(nets, price), { presentation, quantities: true, unitPrices: true }, 2);
          if (presentation === 'lump-sum') expect(shown.every((it) => it.amount === null)).toBe(true);
          else expect(shown.reduce((total, it) => total + it.amount!, 0)).toBe(price);
        },
      ),
    );
  });
});

test('a payment schedule: per cents of the whole split it to the penny, amounts beside them must leave nothing', () => {
  const part = (percent: number | null, amount: number | null = null) => ({
    rate: percent === null ? null : percent * 10_000,
    amount,
  });
  // 100.00 in thirds of 33.3333, 33.3333 and 33.3334 %: 33.33, 33.33 and 33.34 (33.3333 rounded leaves a penny to the largest rest).
  expect(paymentAmounts(10_000, [part(33.3333), part(33.3333), part(33.3334)])).toEqual({
    amounts: [3_333, 3_333, 3_334],
    difference: 0,
  });
  expect(paymentAmounts(617_700, [part(30), part(null, 400_000)])).toEqual({ amounts: [185_310, 400_000], difference: 32_390 });
  expect(paymentAmounts(617_700, [])).toEqual({ amounts: [], difference: 617_700 });
});
