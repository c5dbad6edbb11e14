const SAFE = Number.MAX_SAFE_INTEGER;

/** `num ÷ den` to a whole number, half away from zero (the only rounding of money in Ledrin). `den` must not be 0. */
export function divideRounded(num: bigint, den: bigint): number {
  if (den < 0n) return divideRounded(-num, -den);
  const magnitude = num < 0n ? -num : num;
  const rounded = (2n * magnitude + den) / (2n * den);
  return Number(num < 0n ? -rounded : rounded);
}

/** `a × b ÷ den`, exact until one rounding, half away from zero. Whole numbers in, a whole number out. */
export function multiplyDivide(a: number, b: number, den: number): number {
  const product = a * b;
  // Nearly every amount fits a double exactly; bigint only where it does not.
  if (product <= SAFE && product >= -SAFE && den > 0 && den < SAFE / 2) {
    const rest = product % den;
    const whole = (product - rest) / den;
    return 2 * Math.abs(rest) >= den ? whole + Math.sign(product) : whole;
  }
  return divideRounded(BigInt(a) * BigInt(b), BigInt(den));
}
