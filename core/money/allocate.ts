import { at } from '../errors/known';
import { LARGEST_AMOUNT, type Cents } from './cents';

/**
 * Splits `total` in proportion to `weights` by largest remainders, so that the parts always add up to it.
 * Of equal remainders the earlier part gets the penny. A negative total splits as its mirror image.
 * Weights may be of mixed sign. Where these all but cancel, so that a part would be larger than an amount may be, or cancel
 * altogether, they count without their sign; where all are nothing the first part takes it all.
 */
export function allocate(total: Cents, weights: readonly bigint[]): Cents[] {
  if (total < 0) return allocate(-total, weights).map((part) => (part === 0 ? 0 : -part));
  const weightSum = weights.reduce((a, b) => a + b, 0n);
  if (weightSum === 0n)
    return weights.some((it) => it !== 0n) ? allocate(total, weights.map(size)) : weights.map((_, i) => (i === 0 ? total : 0));
  const sign = weightSum < 0n ? -1n : 1n;
  const den = weightSum * sign;
  const shares = weights.map((weight, index) => {
    const exact = BigInt(total) * weight * sign;
    const floor = floorDivide(exact, den);
    return { index, floor, rest: exact - floor * den };
  });
  const largest = BigInt(Math.max(total, LARGEST_AMOUNT));
  if (shares.some((share) => size(share.floor) > largest)) return allocate(total, weights.map(size));
  const parts = shares.map((share) => Number(share.floor));
  let left = total - Number(shares.reduce((a, share) => a + share.floor, 0n));
  const byRest = [...shares].sort((a, b) => (a.rest === b.rest ? a.index - b.index : a.rest > b.rest ? -1 : 1));
  for (const { index } of byRest) {
    if (left-- <= 0) break;
    parts[index] = at(parts, index) + 1;
  }
  return parts;
}

function size(weight: bigint): bigint {
  return weight < 0n ? -weight : weight;
}

function floorDivide(num: bigint, den: bigint): bigint {
  const quotient = num / den;
  return num % den < 0n ? quotient - 1n : quotient;
}
