import { useMemo } from 'react';
import { Link } from 'react-router';
import { addDays } from '../../../core/calendar/plainDate';
import { displayDate } from '../../../core/calendar/displayDate';
import { TIME_LIFE } from '../../../core/labour/timeLife';
import { movesFrom } from '../../../core/life/life';
import { displayQuantity } from '../../../core/money/display';
import type { SheetState } from '../../../core/labour/timeLife';
import type { SheetLine } from '../../../wire/weekSheets';
import { addressOf } from '../../ground/addressOf';
import { useWithMonth } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { usePerson } from '../../ground/person';
import { Sign } from '../../kit/Signs';
import { rowsOfLines } from './grid/readSheet';
import { dayTitle } from './grid/sheetColumns';

/** What a state is called, and its colour: never the colour alone. */
export const STATE_LOOK: Record<SheetState, { word: string; colour: string }> = {
  submitted: { word: 'submitted', colour: 'var(--ink)' },
  returned: { word: 'returned', colour: 'var(--loss)' },
  approved: { word: 'approved', colour: 'var(--under)' },
  posted: { word: 'posted', colour: 'var(--muted)' },
};

interface Props {
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

/** A sheet as it is read: a row for what was worked, its hours by day, and its state. Rows that wait can be ticked. */
export function SheetTable({ week, lines, nameOf, chosen, onChoose, known }: Props) {
  const days = useMemo(() => [0, 1, 2, 3, 4, 5, 6].map((i) => addDays(week, i)), [week]);
  const rows = useMemo(
    () =>
      rowsOfLines(lines, (it) =>
        JSON.stringify([
          it.employee,
          it.job,
          it.section,
          it.costCode,
          it.workKind,
          it.wageClass,
          it.state,
          it.returned,
          it.pay,
          it.units,
          it.description,
        ]),
      ),
    [lines],
  );
  const choosable = onChoose ? lines.filter((it) => movesFrom(TIME_LIFE, it.state).return).map((it) => it.id) : [];
  const tick = (ids: readonly number[], on: boolean) =>
    onChoose?.(new Set(on ? [...chosen, ...ids] : [...chosen].filter((it) => !ids.includes(it))));
  const { exact } = useCurrency();
  const sum = (of: readonly SheetLine[]) => of.reduce((total, it) => total + it.hours, 0);
  const shown = (value: number) => (value === 0 ? '–' : displayQuantity(value));
  return (
    <div className="scroll" tabIndex={0} role="region" aria-label="Lines of the sheet">
      <table className="ledger static-foot">
        <thead>
          <tr>
            {choosable.length > 0 && (
              <th className="w-[28px]">
                <input
                  type="checkbox"
                  aria-label="All lines that are not posted"
                  checked={choosable.every((it) => chosen.has(it))}
                  onChange={(event) => tick(choosable, event.target.checked)}
                />
              </th>
            )}
            <th className="text-left">Name</th>
            <th className="text-left">Job, section and code</th>
            <th className="text-left">Kind, classes</th>
            {days.map((day, i) => (
              <th key={day} className="text-right">
                {dayTitle(week, i)}
              </th>
            ))}
            <th className="text-right">Hours</th>
            {known && <th className="text-right">Left of budget</th>}
            {known?.costs && <th className="text-right">Cost</th>}
            <th className="text-left">State</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((of) => (
            <SheetTableRow
              key={of.map((it) => it.id).join(' ')}
              of={of}
              days={days}
              known={known}
              name={nameOf(of[0]?.employee ?? '')}
              ticked={choosable.length > 0 ? of.every((it) => chosen.has(it.id)) : null}
              onTick={(on) =>
                tick(
                  of.map((it) => it.id),
                  on,
                )
              }
            />
          ))}
        </tbody>
        <tfoot>
          <tr>
            {choosable.length > 0 && <td />}
            <td colSpan={3}>Total</td>
            {days.map((day) => (
              <td key={day} className="figure">
                {shown(sum(lines.filter((it) => it.dated === day)))}
              </td>
            ))}
            <td className="figure">{shown(sum(lines))}</td>
            {known && <td />}
            {known?.costs && (
              <td className="figure">{exact(lines.reduce((total, it) => total + (known.costs?.get(it.id) ?? 0), 0))}</td>
            )}
            <td />
          </tr>
        </tfoot>
      </table>
    </div>
  );
}

interface RowProps {
  of: readonly SheetLine[];
  days: readonly string[];
  known: KnownOfLines | undefined;
  name: string;
  /** Null: nothing is ticked here. */
  ticked: boolean | null;
  onTick: (on: boolean) => void;
}

function SheetTableRow({ of, days, known, name, ticked, onTick }: RowProps) {
  const person = usePerson();
  const { exact } = useCurrency();
  const [first] = of;
  if (!first) return null;
  const hours = of.reduce((total, it) => total + it.hours, 0);
  const task = [first.job || 'overhead', first.section, first.costCode].filter(Boolean).join(' · ');
  const costs = of.flatMap((it) => known?.costs?.get(it.id) ?? []);
  const cost = costs.length > 0 ? costs.reduce((sum, it) => sum + it, 0) : null;
  const about = [
    first.workKind,
    first.wageClass,
    first.pay ?? '',
    first.units === null ? '' : `${displayQuantity(first.units)} units`,
  ];
  return (
    <tr>
      {ticked !== null && (
        <td>
          {movesFrom(TIME_LIFE, first.state).return && (
            <input
              type="checkbox"
              aria-label={`${name}, ${task}`}
              checked={ticked}
              onChange={(event) => onTick(event.target.checked)}
            />
          )}
        </td>
      )}
      <td className="whitespace-nowrap">
        {name}
        {name === person?.name && <b className="note"> own time</b>}
      </td>
      <td>
        {task}
        {first.description && <span className="note"> {first.description}</span>}
      </td>
      <td>{about.filter(Boolean).join(' · ')}</td>
      {days.map((day) => {
        const line = of.find((it) => it.dated === day);
        return (
          <td key={day} className="figure" title={line?.clock.replace(/-/g, ' – ')}>
            {line ? displayQuantity(line.hours) : ''}
          </td>
        );
      })}
      <td className="figure">
        <b>{displayQuantity(hours)}</b>
      </td>
      {known && (
        <td className="figure whitespace-nowrap">
          <Left of={known.left(first)} />
        </td>
      )}
      {known?.costs && <td className="figure">{cost === null ? '–' : exact(cost)}</td>}
      <td>
        <State line={first} />
      </td>
    </tr>
  );
}

/** What is left of a task; nothing of overhead. */
function Left({ of }: { of: ReturnType<KnownOfLines['left']> }) {
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
function State({ line }: { line: SheetLine }) {
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
