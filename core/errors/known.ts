/**
 * Values that must be there by what was checked before: where one is not, the program is wrong, not its input, and says so at once
 * instead of working on with nothing.
 */

/** The value of a key that is known to be in the map. */
export function known<K, V>(map: ReadonlyMap<K, V>, key: K): V {
  const value = map.get(key);
  if (value === undefined) throw new Error(`Expected ${String(key)} to be known`);
  return value;
}

/** The item at an index that is known to be within the list; below 0 counts from its end. */
export function at<T>(list: readonly T[], index: number): T {
  const item = list[index < 0 ? list.length + index : index];
  if (item === undefined) throw new Error(`Expected an item at ${index} of ${list.length}`);
  return item;
}

/** A value that is known to be there. */
export function present<T>(value: T | null | undefined): T {
  if (value === null || value === undefined) throw new Error('Expected a value, found none');
  return value;
}
