import { useEffect, useRef, useState } from 'react';
import { boundsOf, holds, isOneCell, type Place, type Range } from './range';

/** Cells that are selected together, and the rows they are being filled down to. */
export interface Selection {
  range: Range | null;
  filling: Range | null;
  /** Begins a range at a cell, or stretches the one there is. */
  press: (place: Place, stretch: boolean) => void;
  /** The pointer comes into a cell with its button down. */
  drag: (place: Place) => void;
  /** The cursor has come into a cell. */
  enter: (place: Place) => void;
  /** Stretches the range from the cell one is in; gives back the row it now ends at. */
  stretch: (from: Place, down: number, across: number) => number;
  /** Begins to fill down from the range, or from the one cell. */
  beginFill: (from: Range) => void;
  clear: () => void;
}

/** Selecting cells by dragging or by Shift and arrows. `onFill` is told what was dragged down over what. */
export function useSelection(rows: number, columns: number, onFill: (from: Range, over: Range) => void): Selection {
  const [range, setRange] = useState<Range | null>(null);
  const [filling, setFilling] = useState<Range | null>(null);
  const anchor = useRef<Place | null>(null);
  const dragging = useRef<'range' | 'fill' | null>(null);
  const latest = useRef({ range, filling, onFill });
  latest.current = { range, filling, onFill };
  useEffect(() => {
    const end = () => {
      const { range: from, filling: over } = latest.current;
      if (dragging.current === 'fill' && from && over) {
        latest.current.onFill(from, over);
        setRange({ from: from.from, to: { row: Math.max(from.to.row, over.to.row), at: from.to.at } });
      }
      dragging.current = null;
      setFilling(null);
    };
    window.addEventListener('mouseup', end);
    return () => window.removeEventListener('mouseup', end);
  }, []);
  const select = (next: Range) => setRange(isOneCell(next) ? null : next);
  return {
    range,
    filling,
    press: (place, stretch) => {
      if (stretch && anchor.current) return select({ from: anchor.current, to: place });
      anchor.current = place;
      dragging.current = 'range';
      setRange(null);
    },
    drag: (place) => {
      if (dragging.current === 'range' && anchor.current) select({ from: anchor.current, to: place });
      if (dragging.current === 'fill' && range && !holds(range, place) && place.row > range.to.row)
        setFilling({ from: { row: range.to.row + 1, at: range.from.at }, to: { row: place.row, at: range.to.at } });
    },
    enter: (place) => {
      anchor.current = place;
      if (!dragging.current) setRange(null);
    },
    stretch: (from, down, across) => {
      const to = range?.to ?? from;
      const within = (value: number, count: number) => Math.max(0, Math.min(count - 1, value));
      const end = { row: within(to.row + down, rows), at: within(to.at + across, columns) };
      select({ from: range?.from ?? from, to: end });
      return end.row;
    },
    beginFill: (from) => {
      const { top, bottom, left, right } = boundsOf(from);
      dragging.current = 'fill';
      setRange({ from: { row: top, at: left }, to: { row: bottom, at: right } });
    },
    clear: () => setRange(null),
  };
}
