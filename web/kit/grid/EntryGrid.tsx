import { Fragment, useEffect, useMemo, useRef, type ClipboardEvent, type KeyboardEvent, type ReactNode } from 'react';
import { present } from '../../../core/errors/known';
import { useHistory, type History } from '../useHistory';
import type { CellKeys } from './GridCell';
import { GridLine } from './GridLine';
import { rangeSummary, rangeText, type Place, type Range } from './range';
import { useGridEdits } from './useGridEdits';
import { useLatestActs } from './useLatestActs';
import { useGridFocus } from './useGridFocus';
import { useSelection } from './useSelection';
import type { GridColumn, GridHeading, GridRow } from './gridTypes';

export interface EntryGridProps {
  label: string;
  columns: readonly GridColumn[];
  /** Keys of columns that are not shown; a block pasted that is wider than what is shown fills them too. */
  hidden?: ReadonlySet<string>;
  rows: readonly GridRow[];
  onRows: (rows: GridRow[]) => void;
  /** What is wrong, by `row.column`. */
  faults: ReadonlyMap<string, string>;
  /** The total row. */
  foot?: ReactNode;
  height?: number | string;
  /** False where rows are given and none is added. */
  grows?: boolean;
  /** Blank rows shown at least, so that there is a sheet to type on. */
  blank?: number;
  /** What stands above a row, by its place; above none of them, beneath the last. */
  headings?: ReadonlyMap<number, readonly GridHeading[]>;
  /** Shown which row the cursor is in. */
  onRow?: (row: number) => void;
  /** The cursor begins in the first cell. */
  autoFocus?: boolean;
  /** Goes back in more than the rows, where the page has a history of its own. */
  history?: History;
}

/** The rows that show, what is selected of them, and what the keys do. */
function useGrid(props: EntryGridProps, columns: readonly GridColumn[]) {
  const { rows, onRows, grows = true, blank = 1 } = props;
  const box = useRef<HTMLDivElement>(null);
  const shown = grows ? [...rows, ...Array.from({ length: Math.max(1, blank - rows.length) }, () => BLANK)] : rows;
  const { go, virtual } = useGridFocus(box, { rows: shown.length, columns: columns.length }, props.headings);
  const edits = useGridEdits({ columns, all: props.columns, rows, onRows, grows });
  const selection = useSelection(shown.length, columns.length, edits.fillOver);
  const own = useHistory(rows, (before) => onRows([...before]), sameRows);
  const history = props.history ?? own;
  const last = useRef<Place>({ row: 0, at: 0 });
  /** Where somebody began to go along a row by Tab, and where Tab has led since. */
  const tabs = useRef<{ from: Place; to: Place } | null>(null);
  const typedAt = columns.flatMap((it, at) => (it.show ? [] : [at]));
  const within = (row: number) => Math.max(0, Math.min(shown.length - 1, row));
  const begin = useRef(
    () =>
      props.autoFocus &&
      go(
        0,
        columns.findIndex((it) => !it.show),
      ),
  );
  useEffect(() => void begin.current(), []);
  const keysAt = (row: number, at: number): CellKeys => {
    const range = selection.range ?? { from: { row, at }, to: { row, at } };
    return {
      ...history,
      fillFromTop: () => edits.fillFromTop(range),
      empty: () => {
        if (selection.range) edits.empty(selection.range);
        return selection.range !== null;
      },
      stretch: (down, across) => virtual.scrollToIndex(selection.stretch({ row, at }, down, across)),
      tabbed: () => {
        const onTheWay = tabs.current?.to.row === row && tabs.current.to.at === at;
        const next = typedAt.find((it) => it > at);
        const to = next === undefined ? { row: row + 1, at: typedAt[0] ?? 0 } : { row, at: next };
        const from = onTheWay && tabs.current && tabs.current.from.row === to.row ? tabs.current.from : { row: to.row, at };
        tabs.current = { from: to.row === row ? from : to, to };
      },
      afterTabs: () => tabs.current?.to.row === row && tabs.current.to.at === at,
      enter: (down) => {
        const begun = tabs.current?.to.row === row && tabs.current.to.at === at ? tabs.current.from.at : at;
        tabs.current = null;
        go(row + down, begun);
      },
      edge: (end, whole) => {
        const column = (end === 'first' ? typedAt[0] : typedAt.at(-1)) ?? at;
        go(whole ? within(end === 'first' ? 0 : Math.max(rows.length - 1, 0)) : row, column);
      },
      leave: () => {
        if (selection.range) return selection.clear();
        last.current = { row, at };
        box.current?.focus();
      },
    };
  };
  const copy = (event: ClipboardEvent) => {
    if (!selection.range) return;
    event.clipboardData.setData('text/plain', rangeText(columns, rows, selection.range));
    event.preventDefault();
    if (event.type === 'cut') edits.empty(selection.range);
  };
  /** From the grid itself, which Esc leads to, an arrow or Enter goes back to the cell one was in. */
  const comeBack = (event: KeyboardEvent) => {
    if (event.target !== box.current || (event.key !== 'Enter' && !event.key.startsWith('Arrow'))) return;
    event.preventDefault();
    go(last.current.row, last.current.at);
  };
  return { box, shown, go, virtual, edits, selection, keysAt, copy, comeBack };
}

/**
 * A sheet to type in: arrows, Tab and Enter move, typing replaces, a block pasted from a spreadsheet lands in the cells. Dragging, or
 * Shift and arrows, select; what is selected is copied, emptied, filled down (Ctrl D, Alt ↓, the handle) and added up. Ctrl Z goes
 * back, Ctrl Y forth. A faulty cell says what is wrong, there.
 */
export function EntryGrid(props: EntryGridProps) {
  const { label, rows, faults, foot, height = 380, grows = true, onRow, hidden, headings } = props;
  const columns = useMemo(() => props.columns.filter(({ key }) => !hidden?.has(key)), [props.columns, hidden]);
  const { box, shown, go, virtual, edits, selection, keysAt, copy, comeBack } = useGrid(props, columns);
  const acts = useLatestActs({ edits, selection, keysAt, go, onEnter: (row) => onRow?.(row) });
  const items = virtual.getVirtualItems();
  const before = items[0]?.start ?? 0;
  const after = virtual.getTotalSize() - (items.at(-1)?.end ?? 0);
  return (
    <div className="relative">
      <div
        ref={box}
        className="scroll sheet"
        style={{ maxHeight: height }}
        tabIndex={-1}
        onKeyDown={comeBack}
        onCopy={copy}
        onCut={copy}
      >
        <table
          className="grid-entry"
          role="grid"
          aria-label={label}
          aria-rowcount={shown.length}
          style={{ minWidth: leastWidth(columns, grows) }}
        >
          <GridHead columns={columns} grows={grows} />
          <tbody>
            {before > 0 && <tr style={{ height: before }} aria-hidden="true" />}
            {items.map(({ index }) => (
              <Fragment key={index}>
                {headings?.get(index)?.map((it) => (
                  <HeadingRow key={it.key} heading={it} columns={columns} />
                ))}
                <GridLine
                  columns={columns}
                  row={present(shown[index])}
                  index={index}
                  numbered={grows}
                  removable={grows && index < rows.length}
                  faults={faults}
                  edits={acts.edits}
                  selection={acts.selection}
                  keysAt={acts.keysAt}
                  onEnter={acts.onEnter}
                  onMove={acts.go}
                />
              </Fragment>
            ))}
            {after > 0 && <tr style={{ height: after }} aria-hidden="true" />}
            {headings?.get(shown.length)?.map((it) => (
              <HeadingRow key={it.key} heading={it} columns={columns} />
            ))}
          </tbody>
          {foot}
        </table>
      </div>
      <Selected columns={columns} rows={rows} range={selection.range} />
    </div>
  );
}

/** The name of a group of rows, and what they come to. */
function HeadingRow({ heading, columns }: { heading: GridHeading; columns: readonly GridColumn[] }) {
  return (
    <tr className="heading">
      {columns.map(({ key, numeric }, i) => (
        <td key={key} className={`worked ${numeric ? 'figure' : ''}`}>
          {i === 0 ? heading.label : heading.cells[key]}
        </td>
      ))}
    </tr>
  );
}

/** Where the window is narrower, the grid scrolls, rather than that a column that takes what is left has nothing left. */
function leastWidth(columns: readonly GridColumn[], grows: boolean): number {
  const own = columns.map(({ width }) => (typeof width === 'number' ? width : LEAST_OF_THE_REST));
  return own.reduce((sum, it) => sum + it, grows ? OF_GROWING : 0);
}
const LEAST_OF_THE_REST = 70;
/** The number of a row, and what removes it. */
const OF_GROWING = 64;

/** A row nothing is typed in: always the same one, so that it is known to be. */
const BLANK: GridRow = Object.freeze({});

const sameRows = (a: readonly GridRow[], b: readonly GridRow[]) =>
  a === b || (a.length === b.length && a.every((row, i) => row === b[i]));

/** What the selected figures come to. */
function Selected({ columns, rows, range }: Pick<EntryGridProps, 'columns' | 'rows'> & { range: Range | null }) {
  const summary = range && rangeSummary(columns, rows, range);
  return (
    <p className={summary ? 'grid-selected' : 'sr-only'} aria-live="polite">
      {summary && (
        <>
          {summary.count} selected: sum <b className="figure">{summary.sum}</b>, average{' '}
          <span className="figure">{summary.average}</span>
        </>
      )}
    </p>
  );
}

function GridHead({ columns, grows }: Pick<EntryGridProps, 'columns'> & { grows: boolean }) {
  return (
    <thead>
      <tr>
        {grows && (
          <th className="w-[34px]">
            <span className="sr-only">Row</span>
          </th>
        )}
        {columns.map((column) => (
          <th key={column.key} className={column.numeric ? 'text-right' : 'text-left'} style={{ width: column.width }}>
            {column.title}
          </th>
        ))}
        {grows && (
          <th className="w-[30px]">
            <span className="sr-only">Remove</span>
          </th>
        )}
      </tr>
    </thead>
  );
}
