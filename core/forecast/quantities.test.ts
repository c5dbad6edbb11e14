import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { lineQuantities, unitOf, type QuantityRow } from './quantities';

const row = (quantity: number | null, unit: string, isChange = false): QuantityRow => ({ quantity, unit, isChange });

test('a line worked by hand: what is over by quantity, and what is dear', () => {
  // 200 m2 for 2,500.00 and a change of 20 m2 for 400.00: 220 m2 for 2,900.00 is 13.1818 each. 150 m2 were used for 2,100.00: 14.00 each.
  // At the budget's 150 × 2,900 ÷ 220 = 1,977.27: 122.73 dearer. 70 m2 are left.
  const rows = [row(2_000_000, 'm2'), row(200_000, 'M 2', true)];
  expect(lineQuantities(rows, { quantity: 1_500_000, cost: 210_000 }, 290_000, 2)).toEqual({
    unit: 'm2',
    budgeted: 2_000_000,
    changes: 200_000,
    revised: 2_200_000,
    used: 1_500_000,
    left: 700_000,
    budgetUnitCost: 131_818,
    unitCost: 140_000,
    priceEffect: 12_273,
  });
  // In a currency without decimals a unit costs as much.
  expect(lineQuantities(rows, { quantity: 1_500_000, cost: 2_100 }, 2_900, 0)).toMatchObject({
    budgetUnitCost: 131_818,
    unitCost: 140_000,
    priceEffect: 123,
  });
});

test('a unit is that of the rows with a quantity, as the first has it; with several a line has none', () => {
  expect(unitOf([row(null, 'kg'), row(0, 't'), row(10_000, ''), row(5_000, 'm'), row(5_000, ' M')])).toBe('m');
  expect(unitOf([row(10_000, 'm'), row(10_000, 'm2')])).toBeNull();
  expect(unitOf([row(10_000, ''), row(null, 'm')])).toBeNull();
  expect(lineQuantities([row(10_000, 'm'), row(10_000, 'm2')], { quantity: 1, cost: 1 }, 100, 2)).toBeNull();
});

test('where a divisor is 0 there is no unit cost, and no price effect', () => {
  const none = lineQuantities([row(10_000, 'm'), row(-10_000, 'm', true)], { quantity: 20_000, cost: 500 }, 700, 2);
  expect(none).toMatchObject({ revised: 0, left: -20_000, budgetUnitCost: null, unitCost: 25_000, priceEffect: null });
  expect(lineQuantities([row(10_000, 'm')], { quantity: 0, cost: 0 }, 700, 2)).toMatchObject({
    unitCost: null,
    priceEffect: null,
  });
});

test('left and used make up the revised quantity; used at the budget has no price effect', () => {
  const quantity = fc.integer({ min: 1, max: 99_999_999 });
  fc.assert(
    fc.property(quantity, quantity, fc.integer({ min: 0, max: 999_999_999 }), (budgeted, used, cost) => {
      const it = lineQuantities([row(budgeted, 'm')], { quantity: used, cost }, cost, 2)!;
      expect(it.used + it.left).toBe(it.revised);
      if (used === budgeted) expect(it.priceEffect).toBe(0);
      expect(lineQuantities([row(budgeted, 'm')], { quantity: budgeted, cost }, cost, 2)!.priceEffect).toBe(0);
    }),
  );
});
