import { displayQuantity } from '../../../core/money/display';
import { displayDate } from '../../../core/calendar/displayDate';
import type { DoubledHours, TaskTime } from '../../../core/labour/doubledHours';

const SHOWN = 8;

/** Hours that may have been entered twice, each with where they stand already. */
export function Doubled({
  doubled,
  nameOf,
}: {
  doubled: readonly DoubledHours<TaskTime>[];
  nameOf: (employee: string) => string;
}) {
  if (doubled.length === 0) return null;
  return (
    <div role="status" className="my-3 border-l-4 border-[var(--loss)] bg-[var(--loss-soft)] px-3 py-2">
      <b>Entered on another sheet already? Both count.</b>
      <ul className="m-0 list-none p-0">
        {doubled.slice(0, SHOWN).map(({ line, sheet, hours }) => (
          <li key={JSON.stringify([line.employee, line.dated, line.job, line.section, line.costCode, sheet])}>
            {nameOf(line.employee)} has {displayQuantity(hours)} h on {displayDate(line.dated)} on {taskOf(line)} on sheet {sheet}{' '}
            already
          </li>
        ))}
        {doubled.length > SHOWN && <li>{doubled.length - SHOWN} more</li>}
      </ul>
    </div>
  );
}

const taskOf = ({ job, section, costCode }: TaskTime) => [job, section, costCode].filter(Boolean).join(' · ') || 'overhead';
