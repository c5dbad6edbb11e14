import { useMemo } from 'react';
import { Link } from 'react-router';
import { displayDate } from '../../../../core/calendar/displayDate';
import { TIME_LIFE, type SheetState } from '../../../../core/labour/timeLife';
import { movesFrom } from '../../../../core/life/life';
import { displayQuantity } from '../../../../core/money/display';
import type { SheetLine } from '../../../../wire/weekSheets';
import { addressOf } from '../../../ground/addressOf';
import { useWithMonth } from '../../../ground/asOf';
import { Sign } from '../../../kit/Signs';
import { rowKey, rowsOfLines } from '../grid/readSheet';

/** What a state is called, and its colour: never the colour alone. */
export const STATE_LOOK: Record<SheetState, { word: string; colour: string }> = {
  submitted: { word: 'submitted', colour: 'var(--ink)' },
  returned: { word: 'returned', colour: 'var(--loss)' },
  approved: { word: 'approved', colour: 'var(--under)' },
  posted: { word: 'posted', colour: 'var(--muted)' },
};

export interface SheetRowsProps {
  week: string;
  lines: readonly SheetLine[];
  nameOf: (employee: string) => string;
  /** Ids of lines that are chosen. */
  chosen: ReadonlySet<number>;
  onChoose: ((ids: ReadonlySet<number>) => void) | null;
  /** What is known of lines that wait, for whoever decides on them. */
  known?: KnownOfLines;
}

/** Beside the hours of lines that wait: what they will cost, by id, and what is left of a task once all that waits is posted. */
export interface KnownOfLines {
  /** Null for whoever may not know. */
  costs: ReadonlyMap<number, number> | null;
  left: (line: SheetLine) => { budgeted: number; left: number } | null;
}

/** The lines of a sheet in rows of what was worked, and what can be ticked of them. */
export function useSheetRows({ lines, chosen, onChoose }: Pick<SheetRowsProps, 'lines' | 'chosen' | 'onChoose'>) {
  const rows = useMemo(() => rowsOfLines(lines, (it) => JSON.stringify([rowKey(it), it.state, it.returned])), [lines]);
  const choosable = onChoose ? lines.filter((it) => movesFrom(TIME_LIFE, it.state).return).map((it) => it.id) : [];
  const tick = (ids: readonly number[], on: boolean) =>
    onChoose?.(new Set(on ? [...chosen, ...ids] : [...chosen].filter((it) => !ids.includes(it))));
  const propsOf = (of: readonly SheetLine[]) => ({
    of,
    ticked: choosable.length > 0 ? of.every((it) => chosen.has(it.id)) : null,
    onTick: (on: boolean) =>
      tick(
        of.map((it) => it.id),
        on,
      ),
  });
  const all = choosable.length > 0 && (
    <input
      type="checkbox"
      aria-label="All lines that are not posted"
      checked={choosable.every((it) => chosen.has(it))}
      onChange={(event) => tick(choosable, event.target.checked)}
    />
  );
  return { rows, propsOf, all };
}

export const hoursOf = (of: readonly SheetLine[]) => of.reduce((total, it) => total + it.hours, 0);
export const keyOf = (of: readonly SheetLine[]) => of.map((it) => it.id).join(' ');

/** What a row says of its lines, which have all but the day in common; `given`: what was said of their pay rather than left to the rules. */
export function factsOf(of: readonly SheetLine[], first: SheetLine, known: KnownOfLines | undefined) {
  const costs = of.flatMap((it) => known?.costs?.get(it.id) ?? []);
  return {
    task: [first.job || 'overhead', first.section, first.costCode].filter(Boolean).join(' · '),
    about: [
      first.workKind,
      first.department,
      first.split ? (first.pay ?? '') : '',
      first.units === null ? '' : `${displayQuantity(first.units)} units`,
    ].filter(Boolean),
    given: [first.wageClass && `class ${first.wageClass}`, first.split ? '' : (first.pay ?? '')].filter(Boolean),
    cost: costs.length > 0 ? costs.reduce((total, it) => total + it, 0) : null,
  };
}

export interface RowProps {
  of: readonly SheetLine[];
  known: KnownOfLines | undefined;
  name: string;
  /** Null: nothing is ticked here. */
  ticked: boolean | null;
  onTick: (on: boolean) => void;
}

/** What is left of a task; nothing of overhead. */
export function Left({ of }: { of: ReturnType<KnownOfLines['left']> }) {
  if (!of) return null;
  if (of.budgeted === 0) return <Sign name="unbudgeted" />;
  return (
    <>
      {of.left < 0 && <Sign name="overrun" bare />} {displayQuantity(of.left)}
      <span className="note"> of {displayQuantity(of.budgeted)}</span>
    </>
  );
}

/** The state of a line, with what goes with it: why it was returned, what it corrects, when it counts. */
export function State({ line }: { line: SheetLine }) {
  const withMonth = useWithMonth();
  const { word, colour } = STATE_LOOK[line.state];
  const other = line.reverses ?? line.reversedBy;
  const sheet = other?.split('/').slice(0, -2).join('/');
  return (
    <span>
      <span style={{ color: colour }} className={line.state === 'posted' ? '' : 'font-semibold'}>
        {word}
      </span>
      {line.returned && <span>: {line.returned}</span>}
      {line.state === 'posted' && line.postedOn !== line.dated && <span className="note"> on {displayDate(line.postedOn)}</span>}
      {sheet && (
        <span className="note">
          {line.reverses ? ' reverses ' : ' reversed by '}
          <Link to={withMonth(addressOf({ place: 'week-sheet', document: sheet }))}>sheet {sheet}</Link>
        </span>
      )}
    </span>
  );
}

/** What a row says besides its task: what was said of its pay is marked, for whoever decides on it. */
export function About({ about, given }: Pick<ReturnType<typeof factsOf>, 'about' | 'given'>) {
  return (
    <>
      {about.join(' · ')}
      {about.length > 0 && given.length > 0 && ' · '}
      {given.length > 0 && (
        <b className="text-[var(--over)]" title="Given on the sheet, not by the employee or the overtime rule">
          {given.join(' · ')}
        </b>
      )}
    </>
  );
}
