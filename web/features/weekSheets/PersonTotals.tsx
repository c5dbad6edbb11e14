import { addDays } from '../../../core/calendar/plainDate';
import { grouped } from '../../../core/lists/grouped';
import { displayQuantity } from '../../../core/money/display';
import type { DayHours, TimeLineInput } from '../../../wire/weekSheets';
import { dayTitle } from './sheetColumns';
import { classWords, sumOfClasses, type ByClass } from './splitHours';

interface Props {
  week: string;
  lines: readonly TimeLineInput[];
  /** How each line is cut. */
  split: readonly ByClass[];
  nameOf: (employee: string) => string;
  /** Hours of the same people on other sheets. */
  elsewhere: readonly DayHours[];
}

/** Hours by person and day, with what other sheets have of them, and by day in all. */
export function PersonTotals({ week, lines, split, nameOf, elsewhere }: Props) {
  const days = [0, 1, 2, 3, 4, 5, 6].map((i) => addDays(week, i));
  const people = [
    ...grouped(
      lines.map((line, i) => ({ line, classes: split[i] })),
      (it) => it.line.employee,
    ),
  ].sort(([a], [b]) => (nameOf(a) < nameOf(b) ? -1 : 1));
  const sum = (of: readonly { hours: number }[]) => of.reduce((total, it) => total + it.hours, 0);
  const shown = (value: number) => (value === 0 ? '–' : displayQuantity(value));
  if (people.length === 0) return null;
  return (
    <section aria-label="Hours by person and day" className="mt-4">
      <h2 className="mb-1">By person and day</h2>
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
            <tr key={employee}>
              <td>{nameOf(employee)}</td>
              {days.map((day) => (
                <td key={day} className="figure">
                  {shown(sum(of.map((it) => it.line).filter((it) => it.dated === day)))}
                </td>
              ))}
              <td className="figure">
                <b>{shown(sum(of.map((it) => it.line)))}</b>
              </td>
              <td>{classWords(sumOfClasses(of.flatMap((it) => it.classes ?? [])))}</td>
              <td className="figure">{shown(sum(elsewhere.filter((it) => it.employee === employee)))}</td>
            </tr>
          ))}
        </tbody>
        <tfoot>
          <tr>
            <td>{people.length === 1 ? '1 person' : `${people.length} people`}</td>
            {days.map((day) => (
              <td key={day} className="figure">
                {shown(sum(lines.filter((it) => it.dated === day)))}
              </td>
            ))}
            <td className="figure">{shown(sum(lines))}</td>
            <td>{classWords(sumOfClasses(split))}</td>
            <td />
          </tr>
        </tfoot>
      </table>
    </section>
  );
}
