import { Fragment, useCallback, useEffect, useRef, useState, type ReactNode } from 'react';
import { useUnsaved } from './unsaved';

/** Shown by a form whether anything is typed in it that is not saved. */
export type OnTyped = (typed: boolean) => void;

/**
 * Holds a form still: it is made again when what it was opened with has another `stamp`, but not while something is typed
 * in it. So what somebody else keeps meanwhile neither takes away what is typed here, nor is it written over unseen: the
 * form sends the stamp it was opened with, and is shown.
 */
export function StableForm<V>({
  of,
  stamp,
  children,
}: {
  of: V;
  stamp: string | number;
  children: (opened: V, onTyped: OnTyped) => ReactNode;
}) {
  const [typed, setTyped] = useState(false);
  const forget = useUnsaved(typed);
  // Saved, the page may be left in the same breath.
  const onTyped = useCallback(
    (now: boolean) => {
      if (!now) forget();
      setTyped(now);
    },
    [forget],
  );
  const opened = useRef({ of, stamp });
  if (!typed || opened.current.stamp === stamp) opened.current = { of, stamp };
  return <Fragment key={opened.current.stamp}>{children(opened.current.of, onTyped)}</Fragment>;
}

/** Tells whether a form differs from what it was opened with. */
export function useTyped(changed: boolean, onTyped: OnTyped): void {
  useEffect(() => {
    onTyped(changed);
    return () => onTyped(false);
  }, [changed, onTyped]);
}
