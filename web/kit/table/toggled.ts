/** The groups that are folded, with one folded or opened. */
export function toggled(names: ReadonlySet<string>, name: string): ReadonlySet<string> {
  const next = new Set(names);
  if (!next.delete(name)) next.add(name);
  return next;
}

/** Rows that are picked, with some picked too; where all of them are, they are picked no more. */
export function toggledAll<Key>(picked: ReadonlySet<Key>, keys: readonly Key[]): ReadonlySet<Key> {
  const next = new Set(picked);
  const all = keys.every((it) => picked.has(it));
  for (const it of keys)
    if (all) next.delete(it);
    else next.add(it);
  return next;
}
