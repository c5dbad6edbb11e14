/** A company's own pattern for job numbers: `#` are digits counted up, `YY` the year, everything else as it stands. */
const PATTERN = /^[^#]*#+[^#]*$/;

/** True for a pattern with one run of `#`. */
export function isJobNumberPattern(pattern: string): boolean {
  return PATTERN.test(pattern);
}

/**
 * The next free number by the pattern, in `year` (2031). Counting starts after the highest number the pattern has given
 * in that year; without a pattern it is one more than the highest plain number in use.
 */
export function nextJobNumber(pattern: string, inUse: readonly string[], year: number): string {
  if (!isJobNumberPattern(pattern)) {
    const plain = inUse.filter((it) => /^\d{1,12}$/.test(it));
    const highest = Math.max(1000, ...plain.map(Number));
    return String(highest + 1).padStart(Math.max(0, ...plain.map((it) => it.length)), '0');
  }
  const filled = pattern.replaceAll('YY', String(year % 100).padStart(2, '0'));
  const start = filled.indexOf('#');
  const end = filled.lastIndexOf('#') + 1;
  const [before, after] = [filled.slice(0, start), filled.slice(end)];
  const given = inUse
    .filter((it) => it.startsWith(before) && it.endsWith(after) && it.length > before.length + after.length)
    .map((it) => it.slice(before.length, it.length - after.length))
    .filter((it) => /^\d{1,12}$/.test(it))
    .map(Number);
  return before + String(Math.max(0, ...given) + 1).padStart(end - start, '0') + after;
}
