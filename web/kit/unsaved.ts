import { useCallback, useEffect, useRef, useSyncExternalStore } from 'react';

/** Forms of the page in which something is typed that is not saved. */
const forms = new Set<object>();
const listeners = new Set<() => void>();

function changed(): void {
  for (const listener of listeners) listener();
}

/** Tells that something is typed in a form and not saved, as long as it is. Gives back how to say at once that it is saved. */
export function useUnsaved(typed: boolean): () => void {
  const own = useRef({});
  useEffect(() => {
    if (!typed) return;
    const form = own.current;
    forms.add(form);
    changed();
    return () => {
      forms.delete(form);
      changed();
    };
  }, [typed]);
  return useCallback(() => {
    forms.delete(own.current);
    changed();
  }, []);
}

/** True where anything on the page is typed and not saved. Read when a page is left, so that what was saved just then does not count. */
export const anyUnsaved = () => forms.size > 0;

const listen = (listener: () => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};

export function useAnyUnsaved(): boolean {
  return useSyncExternalStore(listen, anyUnsaved);
}

let leaving: (() => void) | null = null;

/** Shows another form in the place of one on the same page: at once, or once whoever typed in it was asked. */
export function leaveFor(next: () => void): void {
  if (!anyUnsaved()) return next();
  leaving = next;
  changed();
}

/** What waits to be shown in place of a form, if anything, and how the question is answered. */
export function useLeaving(): { waits: boolean; answer: (leave: boolean) => void } {
  const next = useSyncExternalStore(listen, () => leaving);
  return {
    waits: next !== null,
    answer: (leave) => {
      leaving = null;
      changed();
      if (leave) next?.();
    },
  };
}
