import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { allocate } from './allocate';
import { formatCents, parseCents } from './cents';
import { formatShortest, parseScaled } from './decimal';
import { displayCents, displayPercent } from './display';
import { parsePercent, rateOf, ratio } from './rate';
import { divideRounded, multiplyDivide } from './round';

const amount = fc.integer({ min: -9_999_999_999_999, max: 9_999_999_999_999 });

describe('rounding', () => {
  test('is half away from zero, on both sides', () => {
    // 5 ÷ 2 = 2.5 and −5 ÷ 2 = −2.5: both go away from zero. 7 ÷ 3 = 2.33…, 8 ÷ 3 = 2.66…
    expect([
      divideRounded(5n, 2n),
      divideRounded(-5n, 2n),
      divideRounded(7n, 3n),
      divideRounded(8n, 3n),
      divideRounded(5n, -2n),
    ]).toEqual([3, -3, 2, 3, -3]);
  });

  test('the quick way and the exact way agree', () => {
    fc.assert(
      fc.property(
        amount,
        fc.integer({ min: -1_000_000, max: 1_000_000 }),
        fc.integer({ min: 1, max: 1_000_000 }),
        (a, b, den) => {
          expect(multiplyDivide(a, b, den) + 0).toBe(divideRounded(BigInt(a) * BigInt(b), BigInt(den)) + 0);
        },
      ),
    );
  });

  test('a rate of an amount: 5 % of 0.10 is half a penny, and so a penny', () => {
    expect(rateOf(50_000, 10)).toBe(1);
    expect(rateOf(50_000, -10)).toBe(-1);
    expect(ratio(1, 3)).toBe(333_333);
    expect(ratio(5, 0)).toBe(0);
  });
});

describe('allocation', () => {
  test('largest remainders: 100 over three equal weights is 34, 33, 33, the earlier taking the penny', () => {
    expect(allocate(100, [1n, 1n, 1n])).toEqual([34, 33, 33]);
    expect(allocate(-100, [1n, 1n, 1n])).toEqual([-34, -33, -33]);
  });

  test('the larger remainder goes first: 10 over 1:2:3 is 1.67, 3.33, 5 and so 2, 3, 5', () => {
    expect(allocate(10, [1n, 2n, 3n])).toEqual([2, 3, 5]);
  });

  test('parts add up to the total, and none is off by a penny or more', () => {
    fc.assert(
      fc.property(amount, fc.array(fc.integer({ min: 0, max: 1_000_000 }), { minLength: 1, maxLength: 40 }), (total, weights) => {
        const parts = allocate(total, weights.map(BigInt));
        expect(parts.reduce((a, b) => a + b, 0)).toBe(total);
        const sum = weights.reduce((a, b) => a + b, 0);
        if (sum > 0) parts.forEach((part, i) => expect(Math.abs(part - (total * weights[i]!) / sum)).toBeLessThan(1.01));
      }),
    );
  });

  test('weights that cancel, or all but cancel, count without their sign', () => {
    // 5 and −5 net to zero: 100 is split 50 and 50. 3 and −3 beside 0: the third has no part of it.
    expect(allocate(100, [5n, -5n])).toEqual([50, 50]);
    expect(allocate(-101, [3n, -3n, 0n])).toEqual([-51, -50, 0]);
    // 10,000,000.00 against −9,999,999.99 leaves a penny, of which 100,000.00 is ten million times: one part would be 10^16 pennies.
    expect(allocate(10_000_000, [1_000_000_000n, -999_999_999n])).toEqual([5_000_000, 5_000_000]);
    // A quarter of what they leave is a quarter of each: 300 and −200 at 25 are 75 and −50.
    expect(allocate(25, [300n, -200n])).toEqual([75, -50]);
  });

  test('weights of mixed sign still add up, in exact amounts, however nearly they cancel', () => {
    const near = fc
      .tuple(fc.bigInt({ min: -10_000_000_000_000n, max: 10_000_000_000_000n }), fc.bigInt({ min: -9n, max: 9n }))
      .map(([a, off]) => [a, off - a]);
    const any = fc.array(fc.bigInt({ min: -1000n, max: 1000n }), { minLength: 1, maxLength: 20 });
    fc.assert(
      fc.property(amount, fc.oneof(any, near), (total, weights) => {
        const parts = allocate(total, weights);
        expect(parts.every(Number.isSafeInteger)).toBe(true);
        expect(parts.reduce((a, b) => a + b, 0)).toBe(total);
      }),
    );
  });
});

describe('decimals', () => {
  test('reading and writing are inverse', () => {
    fc.assert(
      fc.property(amount, fc.integer({ min: 0, max: 4 }), (cents, digits) => {
        expect(parseCents(formatCents(cents, digits), digits)).toEqual({ ok: true, value: cents });
      }),
    );
  });

  test.each(['', ' 1', '1 ', '+1', '1,000', '1e3', '.5', '5.', '--1', '0x10', '1.2.3', '∞'])('%j is not a number', (text) => {
    expect(parseScaled(text, 2)).toEqual({ ok: false, problem: 'not-a-number' });
  });

  test('what is too fine or too large says so', () => {
    expect(parseCents('1.005', 2)).toEqual({ ok: false, problem: 'too-many-decimals' });
    expect(parseCents('1.0', 0)).toEqual({ ok: false, problem: 'too-many-decimals' });
    expect(parseCents('999999999999.99', 2)).toEqual({ ok: false, problem: 'too-large' });
    expect(parsePercent('100.0001')).toEqual({ ok: false, problem: 'too-large' });
    expect(parsePercent('-1')).toEqual({ ok: false, problem: 'too-large' });
    expect(parsePercent('33.3333')).toEqual({ ok: true, value: 333_333 });
  });

  test('shortest form and reading form', () => {
    expect([formatShortest(125_000, 4), formatShortest(100_000, 4), formatShortest(-5, 4)]).toEqual(['12.5', '10', '-0.0005']);
    expect([displayCents(-123_456_789, 2), displayCents(0, 2), displayCents(5, 2), displayCents(1234, 0)]).toEqual([
      '−1,234,567.89',
      '–',
      '0.05',
      '1,234',
    ]);
    expect([displayPercent(125_500), displayPercent(-2225), displayPercent(0)]).toEqual(['12.6', '−0.2', '–']);
  });
});
