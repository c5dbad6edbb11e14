/** Exact fraction of two bigints; the denominator is above nothing. */
export interface Exact {
  n: bigint;
  d: bigint;
}

export const exact = (n: bigint, d = 1n): Exact => (d < 0n ? { n: -n, d: -d } : { n, d });
export const plus = (a: Exact, b: Exact) => exact(a.n * b.d + b.n * a.d, a.d * b.d);
export const minus = (a: Exact, b: Exact) => plus(a, { n: -b.n, d: b.d });
export const times = (a: Exact, b: Exact) => exact(a.n * b.n, a.d * b.d);
export const over = (a: Exact, b: Exact) => exact(a.n * b.d, a.d * b.n);
export const compare = (a: Exact, b: Exact) => {
  const difference = minus(a, b).n;
  return difference < 0n ? -1 : difference > 0n ? 1 : 0;
};
export const NOUGHT = exact(0n);
export const sum = (its: Exact[]) => its.reduce(plus, NOUGHT);

/** A decimal as it stands in a book. */
export function decimal(text: string | undefined): Exact {
  if (!text) return NOUGHT;
  const [whole = '0', part = ''] = text.replace('-', '').split('.');
  const value = BigInt(whole + part);
  return exact(text.startsWith('-') ? -value : value, 10n ** BigInt(part.length));
}
export const share = (text: string | undefined) => over(decimal(text), exact(100n));

/** To `places` decimals, half away from zero. */
export function rounded(value: Exact, places = 2): Exact {
  const scale = 10n ** BigInt(places);
  const n = value.n * scale;
  const size = n < 0n ? -n : n;
  const up = (2n * size + value.d) / (2n * value.d);
  return exact(n < 0n ? -up : up, scale);
}

export function written(value: Exact, places = 2): string {
  const { n, d } = rounded(value, places);
  const whole = (n * 10n ** BigInt(places)) / d;
  const digits = String(whole < 0n ? -whole : whole).padStart(places + 1, '0');
  return `${whole < 0n ? '-' : ''}${digits.slice(0, -places)}.${digits.slice(-places)}`;
}
export const most = (...its: Exact[]) => its.reduce((a, b) => (compare(a, b) >= 0 ? a : b));
