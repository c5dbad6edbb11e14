/** The groups that are folded, with one folded or opened. */
export function toggled(names: ReadonlySet<string>, name: string): ReadonlySet<string> {
  const next = new Set(names);
  if (!next.delete(name)) next.add(name);
  return next;
}
