type Value = string | number | null;

/** Orders what a column is worth: numbers by size, text as people read it, nothing last. */
export function compareValues(a: Value, b: Value): number {
  if (a === null || b === null) return Number(a === null) - Number(b === null);
  if (typeof a === 'number' && typeof b === 'number') return a - b;
  return String(a).localeCompare(String(b), 'en', { numeric: true });
}
