import { memo } from 'react';
import { addDays } from '../../../core/calendar/plainDate';
import { grouped } from '../../../core/lists/grouped';
import { displayQuantity } from '../../../core/money/display';
import type { DayHours, TimeLineInput } from '../../../wire/weekSheets';
import { dayTitle } from './grid/sheetColumns';
import { classWords, sumOfClasses, type ByClass } from './grid/splitHours';

interface Props {
  week: string;
  lines: readonly TimeLineInput[];
  /** How each line is cut. */
  split: readonly ByClass[];
  nameOf: (employee: string) => string;
  /** Hours of the same people on other sheets. */
  elsewhere: readonly DayHours[];
}

const DAYS = [0, 1, 2, 3, 4, 5, 6];
const sum = (of: readonly { hours: number }[]) => of.reduce((total, it) => total + it.hours, 0);
const shown = (value: number) => (value === 0 ? '–' : displayQuantity(value));

/** Cells of a row, as they are written: a row is drawn again only where one of them is another. */
interface RowProps {
  cells: readonly string[];
}
const Row = memo(
  function Row({ cells: [name, ...cells] }: RowProps) {
    const split = cells.length - 2;
    return (
      <tr>
        <td>{name}</td>
        {cells.map((cell, i) => (
          <td key={i} className={i === split ? '' : i === split - 1 ? 'figure font-semibold' : 'figure'}>
            {cell}
          </td>
        ))}
      </tr>
    );
  },
  (before, now) => before.cells.join('\n') === now.cells.join('\n'),
);

/** Hours by person and day, with what other sheets have of them, and by day in all. */
export const PersonTotals = memo(function PersonTotals({ week, lines, split, nameOf, elsewhere }: Props) {
  const days = DAYS.map((i) => addDays(week, i));
  const classed = lines.map((line, i) => ({ ...line, classes: split[i] }));
  const others = grouped(elsewhere, (it) => it.employee);
  const people = [...grouped(classed, (it) => it.employee)].sort(([a], [b]) => (nameOf(a) < nameOf(b) ? -1 : 1));
  const cellsOf = (of: typeof classed) => [
    ...days.map((day) => shown(sum(of.filter((it) => it.dated === day)))),
    shown(sum(of)),
    classWords(sumOfClasses(of.flatMap((it) => it.classes ?? []))),
  ];
  if (people.length === 0) return null;
  return (
    <section aria-label="Hours by person and day" className="mt-4">
      <h2 className="mb-1">By person and day</h2>
      <div className="overflow-x-auto">
        <table className="ledger static-foot">
          <thead>
            <tr>
              <th className="text-left">Name</th>
              {days.map((day, i) => (
                <th key={day} className="text-right">
                  {dayTitle(week, i)}
                </th>
              ))}
              <th className="text-right">Hours</th>
              <th className="text-left">Split</th>
              <th className="text-right">On other sheets</th>
            </tr>
          </thead>
          <tbody>
            {people.map(([employee, of]) => (
              <Row key={employee} cells={[nameOf(employee), ...cellsOf(of), shown(sum(others.get(employee) ?? []))]} />
            ))}
          </tbody>
          <tfoot>
            <Row cells={[people.length === 1 ? '1 person' : `${people.length} people`, ...cellsOf(classed), '']} />
          </tfoot>
        </table>
      </div>
    </section>
  );
});
