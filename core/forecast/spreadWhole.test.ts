import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { sum } from '../money/cents';
import { EMPTY_LINE, estimateAtCompletion, type CostLineState } from './estimateAtCompletion';
import { spreadWhole, type LineOfWhole, type WholeWay } from './spreadWhole';
import { withForecast } from './typedForecast';

const line = (original: number, cost: number, openCommitment = 0, own: number | null = null): LineOfWhole => ({
  state: { original, changes: 0, cost, dayworkCost: 0, openCommitment },
  own,
});

test('one figure is spread over the budget that is left; a line of its own stands, and a line that is used up has nothing to come', () => {
  // Left: 600.00, 300.00 and nothing. 450.00 to complete are two thirds and one third of it.
  const lines = [line(100_000, 40_000), line(50_000, 20_000), line(10_000, 12_000)];
  expect(spreadWhole('to-complete', 45_000, lines)).toEqual([30_000, 15_000, 0]);
  // The same said otherwise: 720.00 are spent, so it comes to 1,170.00; of a budget of 1,600.00 that is 430.00 under.
  expect(spreadWhole('estimate', 117_000, lines)).toEqual([30_000, 15_000, 0]);
  expect(spreadWhole('overrun', -43_000, lines)).toEqual([30_000, 15_000, 0]);
  // The second says 250.00 itself, 50.00 of it to come: 400.00 are left for the first.
  expect(spreadWhole('to-complete', 45_000, [lines[0]!, line(50_000, 20_000, 0, 25_000), lines[2]!])).toEqual([40_000, null, 0]);
});

test('no line falls below what is ordered on it, and what cannot be is said', () => {
  // Half each would be 225.00; 300.00 are ordered on the first.
  expect(spreadWhole('to-complete', 45_000, [line(50_000, 0, 30_000), line(50_000, 0)])).toEqual([30_000, 15_000]);
  expect(spreadWhole('to-complete', 20_000, [line(50_000, 0, 30_000)])).toEqual({
    why: 'too-little',
    least: 30_000,
    asked: 20_000,
  });
  expect(spreadWhole('estimate', 100, [line(50_000, 200)])).toEqual({ why: 'too-little', least: 0, asked: -100 });
  expect(spreadWhole('to-complete', 1, [line(100, 100)])).toEqual({ why: 'no-budget-left' });
});

test('property: with what it gives, the job comes to what was said, to the penny', () => {
  const amount = fc.integer({ min: 0, max: 10_000_000 });
  const lines = fc.array(fc.tuple(amount, amount, fc.integer({ min: 0, max: 50_000 }), fc.option(amount)), {
    minLength: 1,
    maxLength: 8,
  });
  fc.assert(
    fc.property(
      lines,
      fc.constantFrom<WholeWay>('estimate', 'overrun', 'to-complete'),
      fc.integer({ min: -1e7, max: 5e7 }),
      (of, way, said) => {
        const all = of.map(([original, cost, ordered, own]) =>
          line(original, cost, ordered, own === null ? null : own + cost + ordered),
        );
        const spread = spreadWhole(way, said, all);
        if (!Array.isArray(spread)) return;
        const estimates = all.map(({ state, own }, i) => {
          const whole = { ...EMPTY, ...state };
          const value = spread[i] ?? null;
          if (value === null) return own!;
          return estimateAtCompletion(withForecast(whole, { method: 'to-complete', value }, '2031-04-30'), false).amount;
        });
        const [cost, revised] = [sum(all.map((it) => it.state.cost)), sum(all.map((it) => it.state.original))];
        const total = sum(estimates);
        expect({ estimate: total, overrun: total - revised, 'to-complete': total - cost }[way]).toBe(said);
      },
    ),
  );
});

const EMPTY: CostLineState = { ...EMPTY_LINE, budgeted: true };
