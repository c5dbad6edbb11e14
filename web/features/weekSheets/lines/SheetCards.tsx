import { displayDate } from '../../../../core/calendar/displayDate';
import { TIME_LIFE } from '../../../../core/labour/timeLife';
import { movesFrom } from '../../../../core/life/life';
import { displayQuantity } from '../../../../core/money/display';
import { useCurrency } from '../../../ground/company';
import { usePerson } from '../../../ground/person';
import { About, factsOf, hoursOf, keyOf, Left, State, useSheetRows, type RowProps, type SheetRowsProps } from './sheetRows';

/** A sheet as it is read on a phone: what was worked one below the other. */
export function SheetCards({ lines, nameOf, chosen, onChoose, known }: SheetRowsProps) {
  const { exact } = useCurrency();
  const { rows, propsOf, all } = useSheetRows({ lines, chosen, onChoose });
  return (
    <section aria-label="Lines of the sheet">
      {all && <label className="flex items-center gap-2 py-2">{all} All that wait</label>}
      <ul className="m-0 list-none p-0">
        {rows.map((of) => (
          <SheetCard key={keyOf(of)} {...propsOf(of)} known={known} name={nameOf(of[0]?.employee ?? '')} />
        ))}
      </ul>
      <p className="m-0 flex justify-between py-2 font-semibold">
        <span>Total</span>
        <span className="figure">
          {displayQuantity(hoursOf(lines))} h
          {known?.costs && `, ${exact(lines.reduce((total, it) => total + (known.costs?.get(it.id) ?? 0), 0))}`}
        </span>
      </p>
    </section>
  );
}

function SheetCard({ of, known, name, ticked, onTick }: RowProps) {
  const { exact } = useCurrency();
  const person = usePerson();
  const [first] = of;
  if (!first) return null;
  const { task, about, given, cost } = factsOf(of, first, known);
  const days = of.map((it) => `${displayDate(it.dated).replace(/ \d{4}$/, '')}: ${displayQuantity(it.hours)}`);
  return (
    <li className="hair-below py-2">
      <label className="flex items-baseline gap-2">
        {ticked !== null && movesFrom(TIME_LIFE, first.state).return && (
          <input
            type="checkbox"
            aria-label={`${name}, ${task}`}
            checked={ticked}
            onChange={(event) => onTick(event.target.checked)}
          />
        )}
        <b className="mr-auto">
          {name}
          {name === person?.name && <span className="note"> own time</span>}
        </b>
        <b className="figure">{displayQuantity(hoursOf(of))} h</b>
      </label>
      <span className="block">
        <About about={[task, ...about]} given={given} />
      </span>
      {first.description && <span className="note block">{first.description}</span>}
      <span className="note block">{days.join(' · ')}</span>
      <span className="flex flex-wrap gap-x-4">
        <State line={first} />
        {known && known.left(first) && (
          <span>
            <span className="note">left</span> <Left of={known.left(first)} />
          </span>
        )}
        {cost !== null && (
          <span>
            <span className="note">cost</span> <span className="figure">{exact(cost)}</span>
          </span>
        )}
      </span>
    </li>
  );
}
