import { startTransition, useEffect, useMemo, useRef, useState } from 'react';
import type { GridRow } from '../grid/gridTypes';
import { useUnsaved } from '../unsaved';
import { mergeRows, sameRows, withKeys } from './mergeRows';
import { readDraft, watchDraft, writeDraft } from './storedDraft';

/** Longer than the time between two keys, and too short to be waited for. */
const PAUSE = 300;

/** What follows from a value waits for a pause in typing, so that a key is shown at once however much follows from it. */
function useSettled<Value>(value: Value): Value {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => startTransition(() => setSettled(value)), PAUSE);
    return () => clearTimeout(timer);
  }, [value]);
  return settled;
}

interface Options {
  /** What the draft is known by in this browser, such as `week-sheet 8`. */
  name: string;
  /** The version of the document that is typed over; empty for a new one. */
  seen: string;
  /** The rows of that version, each under its key. */
  start: readonly GridRow[];
  /** A row that was changed stands as a whole, since its cells follow from one another. */
  whole?: boolean;
  /** The number of that version, where versions are numbered: an older one that arrives late changes nothing. */
  version?: number;
  /** Another window has sent the draft, or saved it: the document is read again. */
  onElsewhere?: () => void;
}

/** Keys of rows that came from another version, and of those that both changed. */
export interface BroughtTogether {
  taken: readonly string[];
  clashes: readonly string[];
}
const NOTHING: BroughtTogether = { taken: [], clashes: [] };

/** What became of the rows without the hands of whoever types. */
export type DraftNotice = 'merged' | 'clashed' | 'sent-elsewhere' | 'unstored' | null;

/**
 * Rows typed and not sent: by key, never by place; kept in this browser until they are sent, for whoever is signed in; brought together
 * with a newer version of the document, and with what another window types of the same.
 */
export function useDraftRows({ name, seen, start, whole = false, version = 0, onElsewhere }: Options) {
  const [notice, setNotice] = useState<DraftNotice>(null);
  const [merged, setMerged] = useState<BroughtTogether>(NOTHING);
  const [unstored, setUnstored] = useState(false);
  // What this browser has no room for would be lost on leaving.
  useUnsaved(unstored);
  const begun = useRef<{ base: readonly GridRow[]; seen: string; version: number } | null>(null);
  const [rows, setAll] = useState<readonly GridRow[]>(() => {
    begun.current = { base: start, seen, version };
    const stored = readDraft(name);
    if (!stored) return [...start];
    return stored.seen === seen ? stored.rows : mergeRows(stored.base, stored.rows, start, whole).rows;
  });
  const latest = useRef({ rows, synced: rows, sent: false, onElsewhere });
  latest.current.rows = rows;
  latest.current.onElsewhere = onElsewhere;

  // A newer version of the document: what was typed stays, and the rest is as it is now.
  useEffect(() => {
    const { base, seen: before, version: known } = begun.current ?? { base: start, seen, version };
    if (before === seen || version < known) return;
    const both = mergeRows(base, withKeys(latest.current.rows), start, whole);
    const typed = !sameRows(latest.current.rows, base);
    begun.current = { base: start, seen, version };
    setAll(both.rows);
    if (!typed) return;
    setNotice(both.clashes.length > 0 ? 'clashed' : 'merged');
    setMerged(both);
  }, [seen, start, whole, version]);

  const settled = useSettled(rows);
  const base = begun.current?.base ?? start;
  const changed = useMemo(() => !sameRows(settled, base), [settled, base]);

  useEffect(() => {
    const store = () => {
      const now = latest.current;
      if (now.sent || sameRows(now.rows, now.synced)) return;
      const typed = !sameRows(now.rows, begun.current?.base ?? []);
      now.synced = now.rows;
      const stored = typed ? { seen: begun.current?.seen ?? '', base: begun.current?.base ?? [], rows: now.rows } : null;
      setUnstored(!writeDraft(name, stored));
    };
    store();
    // Whoever leaves before the pause keeps the last keys as well.
    window.addEventListener('pagehide', store);
    return () => {
      window.removeEventListener('pagehide', store);
      store();
    };
  }, [name, settled]);

  // Another window types the same draft, or has sent it.
  useEffect(
    () =>
      watchDraft(name, (draft) => {
        const now = latest.current;
        const theirs = draft?.rows ?? begun.current?.base ?? [];
        const merged = mergeRows(now.synced, withKeys(now.rows), theirs, whole).rows;
        if (draft === null && !sameRows(merged, now.rows)) setNotice('sent-elsewhere');
        now.synced = theirs;
        setAll(merged);
        if (draft === null) now.onElsewhere?.();
      }),
    [name, whole],
  );

  return {
    rows: rows as GridRow[],
    /** As they were a moment ago: what is worked out of them follows a pause in typing. */
    settled: settled as GridRow[],
    changed,
    /** Whether anything is typed now, without waiting for a pause. */
    isTyped: () => !sameRows(latest.current.rows, begun.current?.base ?? []),
    notice: unstored ? ('unstored' as const) : notice,
    /** Which rows were taken over from another version, and which both changed, by their keys. */
    merged: notice === 'merged' || notice === 'clashed' ? merged : NOTHING,
    setRows: (next: readonly GridRow[]) => {
      latest.current.sent = false;
      setNotice(null);
      setAll(withKeys(next));
    },
    /** Rows are saved as another version: what is typed since is typed over them. */
    saved: (as: { seen: string; version: number; rows: readonly GridRow[] }) => {
      begun.current = { base: as.rows, seen: as.seen, version: as.version };
      const now = latest.current;
      now.synced = now.rows;
      setUnstored(!writeDraft(name, sameRows(now.rows, as.rows) ? null : { seen: as.seen, base: as.rows, rows: now.rows }));
    },
    /** The same rows under other names, say. */
    rewrite: (next: readonly GridRow[]) => setAll(next),
    /** What was typed is given up. */
    discard: () => {
      const { base = [] } = begun.current ?? {};
      latest.current.synced = base;
      setUnstored(!writeDraft(name, null));
      setNotice(null);
      setAll(base);
    },
    /** They were sent: they are typed no more, here or in another window. */
    forget: () => {
      latest.current.sent = true;
      latest.current.synced = [];
      setUnstored(!writeDraft(name, null));
    },
  };
}
