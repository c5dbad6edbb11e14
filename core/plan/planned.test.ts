import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { addDays } from '../calendar/plainDate';
import { firstWhole, planByMonth, spreadByMonth } from './planned';

test('an amount lies over its months by days', () => {
  // 17 April to 10 June: 14 + 31 + 10 = 55 days. 1,000.00: 254.5454…, 563.6363…, 181.8181…: the two odd pence to June and May.
  expect(spreadByMonth(100_000, { from: '2031-04-17', to: '2031-06-10' })).toEqual([
    { month: '2031-04', amount: 25_454 },
    { month: '2031-05', amount: 56_364 },
    { month: '2031-06', amount: 18_182 },
  ]);
  expect(spreadByMonth(-7, { from: '2031-04-30', to: '2031-04-01' })).toEqual([{ month: '2031-04', amount: -7 }]);
});

test('a plan is to date, month by month without a gap; what has no dates is told apart', () => {
  const span = (from: string, to: string) => ({ from, to });
  const plan = planByMonth(
    [
      { amount: 900, span: span('2031-01-01', '2031-01-31') },
      { amount: 100, span: span('2031-04-01', '2031-04-30') },
      { amount: 55, span: null },
    ],
    [{ amount: 2_000, span: span('2031-02-01', '2031-02-28') }],
  );
  expect(plan.months.map((it) => [it.month, it.plannedCost, it.plannedBilling])).toEqual([
    ['2031-01', 900, 0],
    ['2031-02', 900, 2_000],
    ['2031-03', 900, 2_000],
    ['2031-04', 1_000, 2_000],
  ]);
  expect([plan.unplannedCost, plan.unplannedBilling]).toEqual([55, 0]);
  expect(firstWhole({ from: '2031-01-01', to: null }, { from: '2031-02-01', to: '2031-03-01' })).toEqual(
    span('2031-02-01', '2031-03-01'),
  );
  expect(firstWhole({ from: null, to: null })).toBeNull();
});

test('whatever is planned, the last month holds all of it', () => {
  const item = fc
    .record({ amount: fc.integer({ min: -1e9, max: 1e9 }), start: fc.nat(2000), length: fc.nat(900) })
    .map(({ amount, start, length }) => ({
      amount,
      span: { from: addDays('2030-01-01', start), to: addDays('2030-01-01', start + length) },
    }));
  fc.assert(
    fc.property(fc.array(item, { minLength: 1, maxLength: 12 }), (items) => {
      const { months } = planByMonth(items, items);
      const total = items.reduce((sum, it) => sum + it.amount, 0);
      expect([months.at(-1)!.plannedCost, months.at(-1)!.plannedBilling]).toEqual([total, total]);
    }),
  );
});
