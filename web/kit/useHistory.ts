import { useLayoutEffect, useRef } from 'react';

/** States that can be gone back to. */
const MOST = 200;

export interface History {
  undo: () => void;
  redo: () => void;
}

/**
 * Everything a value was since it was first shown, whoever changed it: to go back in, and forth again. `restore` lays an earlier
 * one back.
 */
export function useHistory<Value>(
  value: Value,
  restore: (value: Value) => void,
  same: (a: Value, b: Value) => boolean = Object.is,
): History {
  const now = useRef(value);
  const past = useRef<Value[]>([]);
  const future = useRef<Value[]>([]);
  const moving = useRef(false);
  useLayoutEffect(() => {
    if (same(value, now.current)) return;
    if (!moving.current) {
      past.current = [...past.current.slice(-MOST), now.current];
      future.current = [];
    }
    moving.current = false;
    now.current = value;
  }, [value, same]);
  const move = (from: Value[], to: Value[]) => {
    const next = from.pop();
    if (next === undefined) return;
    to.push(now.current);
    moving.current = true;
    restore(next);
  };
  return { undo: () => move(past.current, future.current), redo: () => move(future.current, past.current) };
}
