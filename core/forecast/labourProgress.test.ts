import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { isDoneUnknown, labourProgress, labourTotal, type LabourLine } from './labourProgress';
import type { LineForecast } from './estimateAtCompletion';

/** Hours in ten-thousandths. */
const h = (hours: number) => hours * 10_000;
const line = (more: Partial<LabourLine> = {}): LabourLine => ({
  hoursBudgeted: h(100),
  hoursChangedSinceForecast: 0,
  hours: h(40),
  dayworkHours: 0,
  forecast: null,
  ...more,
});
const forecast = (method: LineForecast['method'], value: number, hoursThen: number): LineForecast => ({
  method,
  value,
  asOf: '2031-03-31',
  costThen: 0,
  revisedThen: 0,
  hoursBudgetedThen: 0,
  hoursThen: h(hoursThen),
});
const of = (more: Partial<LabourLine>, finished = false) => {
  const { percentDone, toFinish, atCompletion, over } = labourProgress(line(more), finished);
  return [percentDone, toFinish, atCompletion, over];
};

test('without a forecast of hours: as budgeted, until more is used', () => {
  // 40 of 100: 40 % done, 60 to finish. 120 of 100: done by what is used, 20 over. One in money says nothing of hours.
  expect(of({})).toEqual([400_000, h(60), h(100), 0]);
  expect(of({ hours: h(120) })).toEqual([1_000_000, 0, h(120), h(20)]);
  expect(of({ forecast: forecast('to-complete', 500, 30) })).toEqual([400_000, h(60), h(100), 0]);
  expect(of({ hoursBudgeted: 0, hours: 0 })).toEqual([0, 0, 0, 0]);
  expect(labourProgress(line({ hoursBudgeted: 0 }), false).percentUsed).toBe(0);
});

test('per cent done: 30 h were 40 % at the forecast, so 75 in all, 35 to finish, 25 under; a change of 10 h adds 10', () => {
  const said = forecast('percent', 400_000, 30);
  expect(of({ forecast: said })).toEqual([400_000, h(35), h(75), h(-25)]);
  expect(of({ forecast: said, hoursBudgeted: h(110), hoursChangedSinceForecast: h(10) })).toEqual([
    ...[400_000, h(45), h(85), h(-25)],
  ]);
  // 100 h used by now are more than it said; done stays what was said.
  expect(of({ forecast: said, hours: h(100) })).toEqual([400_000, 0, h(100), 0]);
  // Nothing done, or no hour used then: as if it were not there.
  for (const it of [forecast('percent', 0, 30), forecast('percent', 400_000, 0)])
    expect(of({ forecast: it })).toEqual([400_000, h(60), h(100), 0]);
});

test('hours to go: 30 then and 50 to go are 80; finished: what was used, all of it done', () => {
  expect(of({ forecast: forecast('hours', h(50), 30) })).toEqual([500_000, h(40), h(80), h(-20)]);
  expect(of({ forecast: forecast('hours', h(50), 30) }, true)).toEqual([1_000_000, 0, h(40), h(-60)]);
  expect(of({ hours: 0 }, true)).toEqual([0, 0, 0, h(-100)]);
});

test('a total is summed before it is rounded: three lines of 1 h at 33.3333 % are 9.000009 h, not 3 × 3.0000', () => {
  // 1 ÷ 0.333333 = 3.000003…; three of them 9.000009…, in ten-thousandths 90,000.09, so 9.0000; at 30.0007 % 3.333255…, × 3 = 9.999766…
  const at = (value: number) => line({ hours: h(1), hoursBudgeted: h(2), forecast: forecast('percent', value, 1) });
  const three = (value: number) => labourTotal([at(value), at(value), at(value)].map((it) => ({ line: it, finished: false })));
  expect(three(333_333).atCompletion).toBe(90_000);
  // One alone: 3.3333 (3.333255 rounds to 3.3333); three are 9.999767, that is 9.9998, and not 9.9999.
  expect([labourProgress(at(300_007), false).atCompletion, three(300_007).atCompletion]).toEqual([33_333, 99_998]);
});

test('what is used, to finish, at completion and over add up; nothing is below what is used', () => {
  const lines = fc.record({
    hoursBudgeted: fc.nat(h(1000)),
    hours: fc.nat(h(1000)),
    hoursChangedSinceForecast: fc.integer({ min: h(-100), max: h(100) }),
    dayworkHours: fc.constant(0),
    forecast: fc.option(
      fc
        .tuple(fc.constantFrom('percent' as const, 'hours' as const), fc.nat(1_000_000), fc.nat(1000))
        .map(([method, value, then]) => forecast(method, value, then)),
    ),
  });
  fc.assert(
    fc.property(fc.array(lines, { maxLength: 5 }), fc.boolean(), (all, finished) => {
      const total = labourTotal(all.map((it) => ({ line: it, finished })));
      for (const it of [...all.map((one) => labourProgress(one, finished)), total]) {
        expect(it.used + it.toFinish).toBe(it.atCompletion);
        expect(it.budgeted + it.over).toBe(it.atCompletion);
        expect(it.toFinish).toBeGreaterThanOrEqual(0);
      }
    }),
  );
});

test('of a task whose hours are used up nobody knows what is done, until somebody says so or the job is finished', () => {
  const unknown = (more: Partial<LabourLine>, finished = false) =>
    isDoneUnknown(line({ hoursBudgeted: 100_000, ...more }), finished);
  expect([unknown({ hours: 99_999 }), unknown({ hours: 100_000 }), unknown({ hours: 120_000 }, true)]).toEqual([
    false,
    true,
    false,
  ]);
  expect(unknown({ hours: 0, hoursBudgeted: 0 })).toBe(false);
  const forecast = { method: 'percent' as const, value: 800_000, hoursThen: 120_000, costThen: 0 };
  expect(unknown({ hours: 120_000, forecast: forecast as never })).toBe(false);
});
