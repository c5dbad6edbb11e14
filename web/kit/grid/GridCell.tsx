import { present } from '../../../core/errors/known';
import { useState, type ClipboardEvent, type KeyboardEvent } from 'react';
import type { GridColumn, GridRow, Offer } from './gridTypes';

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
  onUndo: () => void;
}

const MOST_OFFERS = 9;

export function Cell({ column, row, index, at, label, fault, onEnter, onText, onMove, onPaste, onFill, onUndo }: CellProps) {
  const value = row[column.key] ?? '';
  const [typed, setTyped] = useState<string | null>(null);
  const [picked, setPicked] = useState(0);
  const [focused, setFocused] = useState(false);
  const text = typed ?? value;
  const offers = typed !== null && column.offers ? matching(column.offers(row), typed) : [];
  const id = `cell-${index}-${column.key}`;

  const commit = (next: string) => {
    setTyped(null);
    const tidied = column.tidy ? column.tidy(next) : next;
    if (tidied !== value) onText(tidied);
  };
  const leave = () => {
    if (typed === null) return;
    commit(offers.length > 0 && typed !== '' && !offers.some((it) => it.value === typed) ? present(offers[picked]).value : typed);
  };
  const keys = (event: KeyboardEvent<HTMLInputElement>) => {
    const input = event.currentTarget;
    const whole = input.selectionStart === 0 && input.selectionEnd === input.value.length;
    const act = (work: () => void) => {
      event.preventDefault();
      work();
    };
    if (event.altKey && event.key === 'ArrowDown')
      return act(() => {
        leave();
        onFill();
      });
    if ((event.ctrlKey || event.metaKey) && event.key === 'z') return act(() => (typed === null ? onUndo() : setTyped(null)));
    if (offers.length > 0 && event.key === 'ArrowDown') return act(() => setPicked((picked + 1) % offers.length));
    if (offers.length > 0 && event.key === 'ArrowUp') return act(() => setPicked((picked + offers.length - 1) % offers.length));
    if (event.key === 'Escape') return act(() => setTyped(null));
    if (event.key === 'Enter')
      return act(() => {
        leave();
        onMove(event.shiftKey ? -1 : 1, 0);
      });
    if (event.key === 'ArrowDown')
      return act(() => {
        leave();
        onMove(1, 0);
      });
    if (event.key === 'ArrowUp')
      return act(() => {
        leave();
        onMove(-1, 0);
      });
    if (event.key === 'ArrowRight' && (whole || input.selectionStart === input.value.length))
      return act(() => {
        leave();
        onMove(0, 1);
      });
    if (event.key === 'ArrowLeft' && (whole || input.selectionEnd === 0))
      return act(() => {
        leave();
        onMove(0, -1);
      });
  };
  return (
    <td className={fault ? 'wrong' : ''} title={fault}>
      <input
        data-cell={`${index}:${at}`}
        className={column.numeric ? 'num' : ''}
        aria-label={label}
        aria-invalid={fault ? true : undefined}
        aria-describedby={fault ? `${id}-fault` : undefined}
        value={text}
        {...(column.offers
          ? {
              role: 'combobox',
              'aria-expanded': offers.length > 0,
              'aria-controls': `${id}-offers`,
              'aria-autocomplete': 'list' as const,
            }
          : {})}
        onChange={(event) => {
          setTyped(event.target.value);
          setPicked(0);
        }}
        onKeyDown={keys}
        onPaste={onPaste}
        onFocus={(event) => {
          setFocused(true);
          onEnter();
          event.target.select();
        }}
        onBlur={() => {
          setFocused(false);
          leave();
        }}
        autoComplete="off"
        spellCheck={false}
      />
      {offers.length > 0 && focused && (
        <div className="offer" role="listbox" id={`${id}-offers`}>
          {offers.map((offer, i) => (
            <div
              key={offer.value}
              role="option"
              aria-selected={i === picked}
              onMouseDown={(event) => {
                event.preventDefault();
                commit(offer.value);
              }}
            >
              <b>{offer.value}</b>
              <span className="note">{offer.label}</span>
            </div>
          ))}
        </div>
      )}
      {fault && (
        <span id={`${id}-fault`} className={focused && offers.length === 0 ? 'cell-message' : 'sr-only'}>
          {fault}
        </span>
      )}
    </td>
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
