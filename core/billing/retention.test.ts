import { retentionCurve } from './retentionCurve';
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { describeRetention } from './describeRetention';
import { retentionToDate, type RetainedLine, type RetentionRule } from './retention';

const flat: RetentionRule = { rate: 50_000, materialsRate: null, step: null, cap: null };
const line = (work: number, materials = 0, rate: number | null = null): RetainedLine => ({ work, materials, rate });
const held = (rule: Partial<RetentionRule>, contractSum: number, ...lines: RetainedLine[]) =>
  retentionToDate({ ...flat, ...rule }, contractSum, lines);

describe('flat retention', () => {
  test('each line is rounded by itself: 5 % of 0.50 is 2.5, three times 3, not 7.5 rounded', () => {
    expect(held({}, 100_000, line(50), line(50), line(50))).toMatchObject({ total: 9, byLine: [3, 3, 3] });
  });

  test("a line's own rate, and materials that take the rate of work on the same line", () => {
    // Line 1: 10 % of 1,000.00 + 10 % of 200.00 = 120.00. Line 2 at the job's 5 %: 50.00 + 10.00.
    expect(held({}, 500_000, line(100_000, 20_000, 100_000), line(100_000, 20_000)).byLine).toEqual([12_000, 6000]);
  });

  test('an own rate for materials, nought included', () => {
    expect(held({ materialsRate: 0 }, 500_000, line(100_000, 20_000)).total).toBe(5000);
    expect(held({ materialsRate: 100_000 }, 500_000, line(100_000, 20_000)).total).toBe(7000);
  });
});

describe('a step on all work', () => {
  const step = { at: 500_000, to: 25_000, applies: 'all' as const };

  test('below half the contract the full rate, from exactly half on the lower one, gross counted with materials', () => {
    expect(held({ step }, 200_000, line(99_999)).total).toBe(5000); // 5 % of 999.99 = 49.9995, and so 50.00
    expect(held({ step }, 200_000, line(100_000)).total).toBe(2500); // 2.5 % of 1,000.00
    expect(held({ step }, 200_000, line(90_000, 10_000)).total).toBe(2750); // 2.5 % of 900.00 + 5 % of 100.00 on site
  });

  test("the step replaces a line's own rate on work, and leaves that rate on its materials", () => {
    // Work 1,000.00 at 2.5 % = 25.00; materials 100.00 at the line's own 10 % = 10.00.
    expect(held({ step }, 200_000, line(100_000, 10_000, 100_000)).total).toBe(3500);
  });

  test('there is no latch: falling below the step brings the old rate back', () => {
    expect(held({ step }, 200_000, line(100_000)).stepApplied).toBe(true);
    expect(held({ step }, 200_000, line(80_000)).total).toBe(4000);
  });
});

describe('a step on further work', () => {
  const step = { at: 500_000, to: 20_000, applies: 'further' as const };

  test('5 % up to half, 2 % beyond: 1,500.00 of 2,000.00 holds 50.00 + 10.00', () => {
    const result = held({ step }, 200_000, line(100_000), line(50_000));
    expect(result).toMatchObject({ total: 6000, stepApplied: true });
    // Spread by base retention 50.00 : 25.00, two to one.
    expect(result.byLine).toEqual([4000, 2000]);
  });

  test('exactly at the step nothing changes yet; materials count apart, at their own rate', () => {
    expect(held({ step }, 200_000, line(100_000)).stepApplied).toBe(false);
    // Work 1,200.00: 50.00 + 2 % of 200.00 = 54.00; materials 300.00 at 5 % = 15.00.
    expect(held({ step }, 200_000, line(120_000, 30_000)).total).toBe(6900);
  });

  test("materials keep their own retention by line; only what is left goes by the lines' work", () => {
    // Work 1,200.00 of 2,000.00: 5 % of 1,000.00 + 2 % of 200.00 = 54.00. Materials 300.00 at the line's own 10 % = 30.00.
    const lines = [line(120_000), line(0, 30_000, 100_000)];
    expect(held({ step }, 200_000, ...lines)).toMatchObject({ total: 8400, byLine: [5400, 3000] });
    // A cap of 3 % = 60.00 goes by what they would hold: 60.00 × 54/84 = 38.571… and × 30/84 = 21.428….
    expect(held({ step, cap: 30_000 }, 200_000, ...lines)).toMatchObject({ total: 6000, byLine: [3857, 2143] });
  });

  test('where no line has retention of its own the step is spread by work done', () => {
    // Rate 0, 2 % beyond 1,000.00 of 1,500.00: 10.00, over work 900.00 and 600.00.
    expect(held({ rate: 0, step }, 200_000, line(90_000), line(60_000)).byLine).toEqual([600, 400]);
  });

  test('is rounded once, at the end', () => {
    // 3.3333 % of 50 % of 33.33 + 1.1111 % of (33.33 − 16.665): 0.5555… + 0.1851… = 0.7407, so 74.
    expect(held({ rate: 33_333, step: { at: 500_000, to: 11_111, applies: 'further' } }, 3333, line(3333)).total).toBe(74);
  });
});

describe('the cap', () => {
  test('3 % of the contract is the most, spread over the lines by their own retention', () => {
    // 5 % of 1,000.00 and of 700.00 is 85.00; the cap is 3 % of 2,000.00 = 60.00: 50/85 and 35/85 of it are 35.29 and 24.71.
    expect(held({ cap: 30_000 }, 200_000, line(100_000), line(70_000))).toMatchObject({
      total: 6000,
      byLine: [3529, 2471],
      capApplied: true,
    });
  });

  test('of equal remainders the earlier line gets the penny', () => {
    // The cap is 1 % of 10.00 = 10 pence over three equal lines.
    expect(held({ cap: 10_000 }, 1000, line(300), line(300), line(300)).byLine).toEqual([4, 3, 3]);
  });

  test('a cap that is not reached changes nothing', () => {
    expect(held({ cap: 50_000 }, 200_000, line(200_000))).toMatchObject({ total: 10_000, capApplied: false });
  });
});

test('lines add up to the total, within the cap, whatever the rule', () => {
  const rate = fc.integer({ min: 0, max: 1_000_000 });
  const rule = fc.record({
    rate,
    materialsRate: fc.option(rate),
    cap: fc.option(rate),
    step: fc.option(fc.record({ at: rate, to: rate, applies: fc.constantFrom('all' as const, 'further' as const) })),
  });
  const lines = fc.array(fc.record({ work: fc.nat(10_000_000), materials: fc.nat(1_000_000), rate: fc.option(rate) }), {
    minLength: 1,
    maxLength: 12,
  });
  fc.assert(
    fc.property(rule, fc.nat(100_000_000), lines, (r, contractSum, its) => {
      const result = retentionToDate(r, contractSum, its);
      expect(result.byLine.reduce((a, b) => a + b, 0)).toBe(result.total);
      if (r.cap !== null) expect(result.total).toBeLessThanOrEqual(Math.ceil((r.cap * contractSum) / 1_000_000 + 0.5));
      expect(result.total).toBeGreaterThanOrEqual(0);
    }),
  );
});

test('the rule reads out in words', () => {
  expect(
    describeRetention({ rate: 50_000, materialsRate: 0, step: { at: 500_000, to: 25_000, applies: 'all' }, cap: 30_000 }),
  ).toBe(
    '5 % of work done to date is held. Nothing is held on materials on site. Once 50 % of the contract sum is reached, the rate on all work becomes 2.5 %. Never more than 3 % of the contract sum.',
  );
});

test('the curve of what will be held follows the rule: up to the step, down with it, never past the cap', () => {
  // 10,000.00 at 5 %, from 50 % on 3 % of all work, at most 2.6 %: 250.00 just before half, 150.00 at half, 260.00 at the end.
  const rule = { rate: 50_000, materialsRate: null, step: { at: 500_000, to: 30_000, applies: 'all' as const }, cap: 26_000 };
  const curve = retentionCurve(
    rule,
    [
      { value: 600_000, rate: null },
      { value: 400_000, rate: null },
    ],
    20,
  );
  expect([0, 9, 10, 17, 20].map((i) => curve[i]!.held)).toEqual([0, 22_500, 15_000, 25_500, 26_000]);
  expect(curve.at(-1)!.share).toBe(1_000_000);
});
