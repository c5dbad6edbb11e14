/** What a value says, whatever the order its keys were put in: equal texts mean equal values. */
export function stableText(value: unknown): string {
  return JSON.stringify(value, (_, it: unknown) =>
    typeof it === 'object' && it !== null && !Array.isArray(it)
      ? Object.fromEntries(Object.entries(it).sort(([a], [b]) => (a < b ? -1 : 1)))
      : it,
  );
}
