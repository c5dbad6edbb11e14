/** Commas or spaces in threes, and only there: `1,250,000.5`. Anything else, as `12,50`, is no grouping. */
const GROUPED = /^(-?)(\d{1,3})((?:[ ,\u00a0\u202f]\d{3})+)(\.\d*)?$/;

/**
 * A number without its thousands separators. Where commas do not group by three the text comes back as it was, so that
 * `12,50` is shown as no number and never taken for 1,250.
 */
export function withoutThousands(text: string): string {
  const trimmed = text.trim();
  return GROUPED.test(trimmed) ? trimmed.replace(/[ ,\u00a0\u202f]/g, '') : trimmed;
}
