import { useMemo } from 'react';
import { addDays } from '../../../../core/calendar/plainDate';
import { TIME_LIFE } from '../../../../core/labour/timeLife';
import { movesFrom } from '../../../../core/life/life';
import { displayQuantity } from '../../../../core/money/display';
import { useCurrency } from '../../../ground/company';
import { usePerson } from '../../../ground/person';
import { PHONE, useNarrowWindow } from '../../../kit/useNarrowWindow';
import { dayTitle } from '../grid/sheetColumns';
import { SheetCards } from './SheetCards';
import { About, factsOf, hoursOf, keyOf, Left, State, useSheetRows, type RowProps, type SheetRowsProps } from './sheetRows';

/** A sheet as it is read: a row for what was worked, its hours by day, and its state. Rows that wait can be ticked. */
export function SheetTable(props: SheetRowsProps) {
  return useNarrowWindow(PHONE) ? <SheetCards {...props} /> : <WideTable {...props} />;
}

function WideTable({ week, lines, nameOf, chosen, onChoose, known }: SheetRowsProps) {
  const days = useMemo(() => [0, 1, 2, 3, 4, 5, 6].map((i) => addDays(week, i)), [week]);
  const { rows, propsOf, all } = useSheetRows({ lines, chosen, onChoose });
  const { exact } = useCurrency();
  const shown = (value: number) => (value === 0 ? '–' : displayQuantity(value));
  return (
    <div className="scroll" tabIndex={0} role="region" aria-label="Lines of the sheet">
      <table className="ledger static-foot">
        <thead>
          <tr>
            {all && <th className="w-[28px]">{all}</th>}
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
            <SheetTableRow key={keyOf(of)} {...propsOf(of)} days={days} known={known} name={nameOf(of[0]?.employee ?? '')} />
          ))}
        </tbody>
        <tfoot>
          <tr>
            {all && <td />}
            <td colSpan={3}>Total</td>
            {days.map((day) => (
              <td key={day} className="figure">
                {shown(hoursOf(lines.filter((it) => it.dated === day)))}
              </td>
            ))}
            <td className="figure">{shown(hoursOf(lines))}</td>
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

function SheetTableRow({ of, days, known, name, ticked, onTick }: RowProps & { days: readonly string[] }) {
  const person = usePerson();
  const { exact } = useCurrency();
  const [first] = of;
  if (!first) return null;
  const { task, about, given, cost } = factsOf(of, first, known);
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
      <td>
        <About about={about} given={given} />
      </td>
      {days.map((day) => {
        const line = of.find((it) => it.dated === day);
        return (
          <td key={day} className="figure" title={line?.clock.replace(/-/g, ' – ')}>
            {line ? displayQuantity(line.hours) : ''}
          </td>
        );
      })}
      <td className="figure">
        <b>{displayQuantity(hoursOf(of))}</b>
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
