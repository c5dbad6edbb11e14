import { expect, test } from '@jest/globals';
import { EMPTY_LINE, estimateAtCompletion, type CostLineState } from './estimateAtCompletion';
import { forecastFault, withForecast, type TypedForecast } from './typedForecast';

const state: CostLineState = {
  ...EMPTY_LINE,
  budgeted: true,
  original: 1_000_000,
  changesSinceForecast: 50_000,
  hoursBudgeted: 2_000_000,
  cost: 400_000,
  hours: 500_000,
};
const estimate = (typed: TypedForecast | null) => estimateAtCompletion(withForecast(state, typed, '2031-04-30'), false);

test('4,000.00 spent in 50 hours, of a budget of 10,000.00: each way of saying what is still to come', () => {
  expect(estimate(null)).toMatchObject({ amount: 1_000_000, basis: 'budget' });
  expect(estimate({ method: 'to-complete', value: 750_000 }).amount).toBe(1_150_000);
  // A third done: 12,000.00. At 33.3333 % it is 4,000.00 ÷ 0.333333 = 12,000.01.
  expect(estimate({ method: 'percent', value: 333_333 }).amount).toBe(1_200_001);
  // 100 hours to go at 80.00 an hour so far: 150 hours are 12,000.00.
  expect(estimate({ method: 'hours', value: 1_000_000 }).amount).toBe(1_200_000);
  // Changes before the forecast's own day are in what it was made on.
  expect(estimate({ method: 'to-complete', value: 0 })).toMatchObject({ amount: 400_000, forecastSays: 400_000 });
});

test('a forecast that says nothing, or more than an amount may be, is refused with the reason', () => {
  const idle = { ...state, cost: 0, hours: 0, hoursBudgeted: 0 };
  const fault = (method: TypedForecast['method'], value: number, of = state) =>
    forecastFault({ method, value }, of, '2031-04-30');
  expect([fault('percent', 500_000, idle), fault('hours', 1, idle), fault('percent', 0), fault('to-complete', -1)]).not.toContain(
    null,
  );
  expect([fault('to-complete', 5, idle), fault('percent', 500_000), fault('percent', 1_000_000)]).toEqual([null, null, null]);
  expect(fault('percent', 1_000_001)).toBe('Expected at most 100 %');
  expect(fault('to-complete', 10_000_000_000_000)).toBe('The number is too large');
  // 99,999,999,999.99 less what is spent is the most: a cent more is too much. 0.0001 % of 4,000.00 is 4,000,000,000.00, of a hundred times that too much.
  expect([fault('to-complete', 9_999_999_599_999), fault('percent', 1)]).toEqual([null, null]);
  expect([fault('to-complete', 9_999_999_600_000), fault('percent', 1, { ...state, cost: 40_000_000 })]).not.toContain(null);
});
