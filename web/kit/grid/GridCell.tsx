import { present } from '../../../core/errors/known';
import { useState, type ClipboardEvent, type KeyboardEvent, type MouseEvent } from 'react';
import { DayButton } from '../form/DayButton';
import type { GridColumn, GridRow, Offer } from './gridTypes';
import { summed } from '../typed/simpleSum';
import { boundsOf, holds, type Place, type Range } from './range';
import type { Selection } from './useSelection';

interface CellProps {
  column: GridColumn;
  row: GridRow;
  index: number;
  at: number;
  label: string;
  fault: string | undefined;
  onEnter: () => void;
  onText: (text: string) => void;
  onMove: (down: number, across: number) => void;
  onPaste: (event: ClipboardEvent) => void;
  onFill: () => void;
  /** What the keys of the grid do in this cell. */
  keys: CellKeys;
  selection: Selection;
}

export interface CellKeys {
  undo: () => void;
  redo: () => void;
  /** Fills the selected cells down from the first of them. */
  fillFromTop: () => void;
  /** Empties what is selected; false where that is this cell alone, which is typed in. */
  empty: () => boolean;
  stretch: (down: number, across: number) => void;
  /** Goes down or up a row: after Tabs, to where the row began. */
  enter: (down: 1 | -1) => void;
  /** Goes to the first or the last cell of the row, or of the whole grid. */
  edge: (end: 'first' | 'last', whole: boolean) => void;
  /** Tab leaves this cell for the next. */
  tabbed: () => void;
  /** Whether this cell was come to by Tab. */
  afterTabs: () => boolean;
  /** Takes the selection back, or leaves the grid. */
  leave: () => void;
}

const MOST_OFFERS = 9;

export function Cell(props: CellProps) {
  const { column, index, at, label, fault, onEnter, onPaste, selection } = props;
  const place = { row: index, at };
  const cell = useCell(props);
  const [focused, setFocused] = useState(false);
  const [choosing, setChoosing] = useState(false);
  const id = `cell-${index}-${column.key}`;
  return (
    <td className={fault ? 'wrong' : ''} title={fault} {...selecting(selection, place)}>
      <input
        data-cell={`${index}:${at}`}
        className={column.numeric ? 'num' : ''}
        aria-label={label}
        aria-invalid={fault ? true : undefined}
        aria-describedby={fault ? `${id}-fault` : undefined}
        value={cell.text}
        placeholder={cell.proposed ?? undefined}
        {...(column.offers ? comboOf(id, cell.offers.length > 0) : {})}
        onChange={(event) => cell.type(event.target.value)}
        onKeyDown={cell.onKey}
        // A selected cell stays selected, also where it is pressed again: the first key replaces what it says.
        onMouseUp={(event) => {
          if (cell.isTyped) return;
          event.preventDefault();
          event.currentTarget.select();
        }}
        onDoubleClick={cell.edit}
        onPaste={onPaste}
        // What is selected is copied, never dragged out of its cell.
        onDragStart={(event) => event.preventDefault()}
        onDrop={(event) => event.preventDefault()}
        onFocus={(event) => {
          setFocused(true);
          onEnter();
          selection.enter(place);
          event.target.select();
        }}
        onBlur={() => {
          setFocused(false);
          cell.leave();
        }}
        autoComplete="off"
        spellCheck={false}
      />
      {endsHere(selection.range, place, focused) && (
        <FillHandle from={selection.range ?? { from: place, to: place }} selection={selection} />
      )}
      {column.month && (focused || choosing) && (
        <DayButton text={cell.text} month={column.month} onDay={cell.commit} onChoosing={setChoosing} />
      )}
      {cell.offers.length > 0 && focused && (
        <Offers id={`${id}-offers`} offers={cell.offers} picked={cell.picked} onPick={cell.commit} />
      )}
      {fault && (
        <span id={`${id}-fault`} className={focused && cell.offers.length === 0 ? 'cell-message' : 'sr-only'}>
          {fault}
        </span>
      )}
    </td>
  );
}

const comboOf = (id: string, expanded: boolean) => ({
  role: 'combobox',
  'aria-expanded': expanded,
  'aria-controls': `${id}-offers`,
  'aria-autocomplete': 'list' as const,
});

/** What is typed into a cell until it is left, what is offered for it, and its keys. */
function useCell({ column, row, index, onText, onMove, onFill, keys }: CellProps) {
  const value = row[column.key] ?? '';
  const [typed, setTyped] = useState<string | null>(null);
  const [picked, setPicked] = useState(0);
  /** Its text is edited: F2, Enter or a double click came before. Else the first key replaces it. */
  const [editing, setEditing] = useState(false);
  const offers = typed !== null && column.offers ? matching(column.offers(row), typed) : [];
  const proposed = (typed ?? value) === '' ? (column.proposes?.(row, index) ?? null) : null;
  const commit = (written: string) => {
    setTyped(null);
    const next = column.numeric ? summed(written, (text) => column.codec?.parse(text).ok ?? true) : written;
    const tidied = column.tidy ? column.tidy(next) : next;
    if (tidied !== value) onText(tidied);
  };
  const leave = () => {
    setEditing(false);
    if (typed === null) return;
    const taken = offers.length > 0 && typed !== '' && !offers.some((it) => it.value === typed);
    commit(taken ? present(offers[picked]).value : typed);
  };
  const leaving = (work: () => void) => () => {
    leave();
    work();
  };
  const actOf = (event: KeyboardEvent<HTMLInputElement>): (() => void) | null => {
    const { key, altKey, shiftKey } = event;
    if (event.ctrlKey || event.metaKey) return commandOf(key.toLowerCase(), shiftKey);
    if (altKey && key === 'ArrowDown') return leaving(onFill);
    const turn = offers.length > 0 ? ({ ArrowDown: 1, ArrowUp: offers.length - 1 }[key] ?? 0) : 0;
    if (turn > 0) return () => setPicked((picked + turn) % offers.length);
    if (key === ' ' && proposed !== null) return () => commit(proposed);
    if (key === 'Escape') return escape;
    if (key === 'Tab' && !shiftKey) return passed(keys.tabbed);
    if (key === 'F2') return () => begin(event.currentTarget);
    if (key === 'Enter') {
      const isSelected = typed === null && !editing && !keys.afterTabs();
      return isSelected && !shiftKey ? () => begin(event.currentTarget) : leaving(() => keys.enter(shiftKey ? -1 : 1));
    }
    if ((key === 'Home' || key === 'End') && typed === null && !editing)
      return () => keys.edge(key === 'Home' ? 'first' : 'last', false);
    if ((key === 'Delete' || key === 'Backspace') && typed === null) return keys.empty() ? () => undefined : null;
    const [down, across] = wayOf(key, event.currentTarget) ?? [0, 0];
    if (down === 0 && across === 0) return null;
    return leaving(() => (shiftKey ? keys.stretch(down, across) : onMove(down, across)));
  };
  const escape = () => {
    if (typed === null && !editing) return keys.leave();
    setTyped(null);
    setEditing(false);
  };
  const begin = (input: HTMLInputElement) => {
    setEditing(true);
    const { length } = input.value;
    input.setSelectionRange(length, length);
  };
  /** Notes a key that does what it always does. */
  const passed = (note: () => void): null => {
    note();
    return null;
  };
  const commandOf = (key: string, shift: boolean): (() => void) | null => {
    if (key === 'home' || key === 'end') return leaving(() => keys.edge(key === 'home' ? 'first' : 'last', true));
    if (key === 'z' && !shift) return () => (typed === null ? keys.undo() : setTyped(null));
    if (key === 'y' || key === 'z') return keys.redo;
    if (key === 'd') return leaving(keys.fillFromTop);
    return null;
  };
  const onKey = (event: KeyboardEvent<HTMLInputElement>) => {
    const act = actOf(event);
    if (!act) return;
    event.preventDefault();
    act();
  };
  const type = (text: string) => {
    setTyped(text);
    setPicked(0);
  };
  return {
    proposed,
    offers,
    picked,
    commit,
    leave,
    onKey,
    type,
    text: typed ?? value,
    isTyped: typed !== null || editing,
    edit: () => setEditing(true),
  };
}

/** Where an arrow leads; none where it moves within the text. */
function wayOf(key: string, input: HTMLInputElement): readonly [down: number, across: number] | null {
  if (key === 'ArrowDown') return [1, 0];
  if (key === 'ArrowUp') return [-1, 0];
  if (key === 'ArrowRight' && atEnd(input)) return [0, 1];
  return key === 'ArrowLeft' && atStart(input) ? [0, -1] : null;
}

const isWhole = (input: HTMLInputElement) => input.selectionStart === 0 && input.selectionEnd === input.value.length;
const atEnd = (input: HTMLInputElement) => isWhole(input) || input.selectionStart === input.value.length;
const atStart = (input: HTMLInputElement) => isWhole(input) || input.selectionEnd === 0;

/** A cell that is selected by pressing and dragging. */
export function selecting(selection: Selection, place: Place) {
  return {
    'data-selected': holds(selection.range, place) || undefined,
    'data-filling': holds(selection.filling, place) || undefined,
    onMouseDown: (event: MouseEvent) => {
      if (event.button !== 0) return;
      if (event.shiftKey) event.preventDefault();
      selection.press(place, event.shiftKey);
    },
    onMouseEnter: () => selection.drag(place),
  };
}

/** True for the last cell of the range, or for the one the cursor is in. */
function endsHere(range: Range | null, { row, at }: Place, focused: boolean): boolean {
  if (!range) return focused;
  const { bottom, right } = boundsOf(range);
  return row === bottom && at === right;
}

/** Dragged down, it fills the cells beneath. */
function FillHandle({ from, selection }: { from: Range; selection: Selection }) {
  return (
    <span
      className="fill-handle"
      aria-hidden="true"
      onMouseDown={(event) => {
        event.preventDefault();
        event.stopPropagation();
        selection.beginFill(from);
      }}
    />
  );
}

interface OffersProps {
  id: string;
  offers: readonly Offer[];
  picked: number;
  onPick: (value: string) => void;
}

function Offers({ id, offers, picked, onPick }: OffersProps) {
  return (
    <div className="offer" role="listbox" id={id}>
      {offers.map((offer, i) => (
        <div
          key={offer.value}
          role="option"
          aria-selected={i === picked}
          onMouseDown={(event) => {
            event.preventDefault();
            onPick(offer.value);
          }}
        >
          <b>{offer.value}</b>
          <span className="note">{offer.label}</span>
        </div>
      ))}
    </div>
  );
}

/** Offers that start with what was typed, then those that hold it anywhere. */
function matching(offers: readonly Offer[], typed: string): Offer[] {
  const wanted = typed.trim().toLowerCase();
  if (wanted === '') return [];
  const starts = offers.filter((it) => it.value.toLowerCase().startsWith(wanted));
  const holds = offers.filter((it) => !starts.includes(it) && `${it.value} ${it.label}`.toLowerCase().includes(wanted));
  return [...starts, ...holds].slice(0, MOST_OFFERS);
}
