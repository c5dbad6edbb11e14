/** What is said and not shown yet, because what shows it is being fetched. */
const waiting: Said[] = [];
let show: ((entry: Said) => void) | null = null;
const listeners = new Set<() => void>();

export interface SaidHow {
  /** The same said twice is shown once. */
  id?: string;
  /** How long it stands, in milliseconds. */
  duration?: number;
  /** What can be done about it there. */
  action?: { label: string; onClick: () => void };
}

export interface Said {
  message: string;
  how: SaidHow;
}

/** Says something in the corner, for a while. */
export function toast(message: string, how: SaidHow = {}): void {
  const said = { message, how };
  if (show) return show(said);
  waiting.push(said);
  for (const listener of listeners) listener();
}

/** Whether anything was ever said: only then is what shows it fetched. */
export const anythingSaid = () => show !== null || waiting.length > 0;
export function onSaid(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** Shows what was said, and from now on what is. */
export function showWith(next: (said: Said) => void): void {
  show = next;
  for (const said of waiting.splice(0)) next(said);
}
