import { useMemo, useRef } from 'react';
import type { CellKeys } from './GridCell';
import type { GridEdits } from './useGridEdits';
import type { Selection } from './useSelection';

interface Acts {
  edits: GridEdits;
  selection: Selection;
  keysAt: (row: number, at: number) => CellKeys;
  onEnter: (row: number) => void;
  go: (row: number, column: number) => void;
}

/**
 * The acts of a grid under functions that stay the same, so that a row is not drawn again because what a key would do was made anew: each
 * does what the grid does at the moment it is pressed.
 */
export function useLatestActs(acts: Acts): Acts {
  const latest = useRef(acts);
  latest.current = acts;
  const steady = useMemo(() => {
    const edits: GridEdits = {
      setCell: (row, key, text) => latest.current.edits.setCell(row, key, text),
      paste: (event, row, column) => latest.current.edits.paste(event, row, column),
      fillDown: (row, key) => latest.current.edits.fillDown(row, key),
      fillFromTop: (range) => latest.current.edits.fillFromTop(range),
      fillOver: (from, over) => latest.current.edits.fillOver(from, over),
      empty: (range) => latest.current.edits.empty(range),
      removeRow: (row) => latest.current.edits.removeRow(row),
    };
    const keysAt = (row: number, at: number): CellKeys => {
      const keys = () => latest.current.keysAt(row, at);
      return {
        undo: () => keys().undo(),
        redo: () => keys().redo(),
        fillFromTop: () => keys().fillFromTop(),
        empty: () => keys().empty(),
        stretch: (down, across) => keys().stretch(down, across),
        leave: () => keys().leave(),
        enter: (down) => keys().enter(down),
        edge: (end, whole) => keys().edge(end, whole),
        tabbed: () => keys().tabbed(),
        afterTabs: () => keys().afterTabs(),
      };
    };
    const moves: Omit<Selection, 'range' | 'filling'> = {
      press: (place, stretch) => latest.current.selection.press(place, stretch),
      drag: (place) => latest.current.selection.drag(place),
      enter: (place) => latest.current.selection.enter(place),
      stretch: (from, down, across) => latest.current.selection.stretch(from, down, across),
      beginFill: (from) => latest.current.selection.beginFill(from),
      clear: () => latest.current.selection.clear(),
    };
    const onEnter = (row: number) => latest.current.onEnter(row);
    return { edits, keysAt, moves, onEnter, go: (row: number, column: number) => latest.current.go(row, column) };
  }, []);
  const { range, filling } = acts.selection;
  const selection = useMemo(() => ({ range, filling, ...steady.moves }), [range, filling, steady]);
  return { ...steady, selection };
}
