/** A decimal read as a whole number of its smallest unit, or what is wrong with it. */
export type Scaled = { ok: true; value: number } | { ok: false; problem: 'not-a-number' | 'too-many-decimals' | 'too-large' };

const NUMBER = /^(-?)(\d+)(?:\.(\d+))?$/;

/** True for a number as the book writes them: `-?digits[.digits]`. */
export function isNumber(text: string): boolean {
  return NUMBER.test(text);
}

/**
 * Reads `-?digits[.digits]`, nothing else, as an integer scaled by 10^decimals.
 * Zeros beyond the allowed decimals count as decimals too: what was typed is held to the rule.
 */
export function parseScaled(text: string, decimals: number, largest = Number.MAX_SAFE_INTEGER): Scaled {
  const match = NUMBER.exec(text);
  if (!match) return { ok: false, problem: 'not-a-number' };
  const [, sign, whole = '', part = ''] = match;
  if (part.length > decimals) return { ok: false, problem: 'too-many-decimals' };
  if (whole.length > 17) return { ok: false, problem: 'too-large' };
  const value = Number(whole + part.padEnd(decimals, '0'));
  if (value > largest) return { ok: false, problem: 'too-large' };
  return { ok: true, value: sign && value !== 0 ? -value : value };
}

/** An integer scaled by 10^decimals, written with all its decimals. */
export function formatScaled(value: number, decimals: number): string {
  const digits = String(Math.abs(value)).padStart(decimals + 1, '0');
  const sign = value < 0 ? '-' : '';
  if (decimals === 0) return sign + digits;
  return `${sign}${digits.slice(0, -decimals)}.${digits.slice(-decimals)}`;
}

/** The same in its shortest form: 125000 at four decimals → `12.5`. */
export function formatShortest(value: number, decimals: number): string {
  const text = formatScaled(value, decimals);
  return decimals === 0 ? text : text.replace(/\.?0+$/, '');
}
