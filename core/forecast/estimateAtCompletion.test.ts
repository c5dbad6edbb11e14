import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  EMPTY_LINE,
  estimateAtCompletion,
  hoursAtCompletion,
  type CostLineState,
  type LineForecast,
} from './estimateAtCompletion';

const line = (more: Partial<CostLineState> = {}): CostLineState => ({
  ...EMPTY_LINE,
  budgeted: true,
  original: 100_000,
  ...more,
});
const forecast = (more: Partial<LineForecast>): LineForecast => ({
  method: 'to-complete',
  value: 0,
  asOf: '2031-03-31',
  costThen: 40_000,
  hoursThen: 0,
  revisedThen: 100_000,
  hoursBudgetedThen: 0,
  ...more,
});
const eac = (more: Partial<CostLineState>, finished = false) => estimateAtCompletion(line(more), finished);

describe('without a forecast', () => {
  test('the revised budget, until cost and commitments pass it', () => {
    expect(eac({ cost: 60_000, openCommitment: 40_000 })).toMatchObject({ amount: 100_000, basis: 'budget' });
    expect(eac({ cost: 60_000, openCommitment: 40_001 })).toMatchObject({ amount: 100_001, basis: 'spent' });
    expect(eac({ changes: -30_000, cost: 80_000 }).amount).toBe(80_000);
  });

  test('unbudgeted: cost and commitments, a credit too', () => {
    expect(eac({ budgeted: false, original: 0, cost: 700, openCommitment: 300 }).amount).toBe(1000);
    expect(eac({ budgeted: false, original: 0, cost: -700 }).amount).toBe(-700);
    // Budgeted at nothing, the same credit does not bring the estimate below the budget.
    expect(eac({ original: 0, cost: -700 }).amount).toBe(0);
  });
});

describe('with a forecast', () => {
  test('to complete: cost then 400.00 + 250.00 to go, plus a change of 50.00 since', () => {
    expect(eac({ forecast: forecast({ value: 25_000 }), changesSinceForecast: 5000, cost: 41_000 })).toEqual({
      amount: 70_000,
      basis: 'to-complete',
      forecastSays: 70_000,
    });
  });

  test('never below what is spent and promised', () => {
    expect(eac({ forecast: forecast({ value: 1000 }), cost: 45_000, openCommitment: 2000 })).toEqual({
      amount: 47_000,
      basis: 'spent',
      forecastSays: 41_000,
    });
  });

  test('per cent: 400.00 at 33.3333 % makes 1,200.00, rounded once', () => {
    expect(eac({ forecast: forecast({ method: 'percent', value: 333_333 }) }).amount).toBe(120_000);
    expect(eac({ forecast: forecast({ method: 'percent', value: 0 }) }).basis).toBe('budget');
    expect(eac({ forecast: forecast({ method: 'percent', value: 500_000, costThen: 0 }) }).basis).toBe('budget');
  });

  test('hours: 10 h cost 400.00, 5 h to go make 600.00', () => {
    expect(eac({ forecast: forecast({ method: 'hours', value: 50_000, hoursThen: 100_000 }) }).amount).toBe(60_000);
  });

  test('hours before any hour: at the budget, 1,000.00 for 40 h, so 30 h to go make 750.00', () => {
    expect(eac({ forecast: forecast({ method: 'hours', value: 300_000, costThen: 0, hoursBudgetedThen: 400_000 }) }).amount).toBe(
      75_000,
    );
    expect(eac({ forecast: forecast({ method: 'hours', value: 300_000, costThen: 0 }) }).basis).toBe('budget');
  });
});

test('a finished job costs what it cost and what is still committed, whatever was forecast', () => {
  expect(eac({ cost: 30_000, openCommitment: 500, forecast: forecast({ value: 99_000 }) }, true)).toEqual({
    amount: 30_500,
    basis: 'finished',
    forecastSays: null,
  });
});

test('labour hours at completion', () => {
  expect(hoursAtCompletion(line({ hoursBudgeted: 100, hours: 120 }), false)).toBe(120);
  expect(
    hoursAtCompletion(
      line({
        hoursBudgeted: 100,
        hours: 20,
        forecast: forecast({ method: 'hours', value: 60, hoursThen: 15 }),
        hoursChangedSinceForecast: 5,
      }),
      false,
    ),
  ).toBe(80);
  expect(hoursAtCompletion(line({ hoursBudgeted: 100, hours: 20 }), true)).toBe(20);
});

test('the estimate is never below cost and commitments', () => {
  const state = fc.record({
    original: fc.nat(1e6),
    changes: fc.integer({ min: -1e5, max: 1e5 }),
    cost: fc.nat(2e6),
    openCommitment: fc.nat(1e5),
    budgeted: fc.boolean(),
  });
  fc.assert(
    fc.property(
      state,
      fc.option(
        fc.record({
          method: fc.constantFrom('to-complete' as const, 'percent' as const, 'hours' as const),
          value: fc.nat(1e6),
          costThen: fc.nat(1e6),
          hoursThen: fc.nat(1e6),
        }),
      ),
      (it, said) => {
        const result = eac({ ...it, forecast: said && forecast(said) });
        expect(result.amount).toBeGreaterThanOrEqual(it.cost + it.openCommitment);
        expect(Number.isSafeInteger(result.amount)).toBe(true);
      },
    ),
  );
});
