import { ChevronLeft, ChevronRight, ChevronsLeft, ChevronsRight } from 'lucide-react';
import { useHotkeys } from 'react-hotkeys-hook';
import { displayPeriod } from '../../core/calendar/displayDate';
import { useSessionQuery } from '../ground/api/api';
import { useAsOf } from '../ground/asOf';
import { DayFilter } from '../kit/form/DayInput';

/** The reporting date: every figure on the page is as at this day, a month's end or any other. */
export function MonthChooser() {
  const { month, lastDay, set, move } = useAsOf();
  const { data: session } = useSessionQuery();
  useHotkeys('[', () => move(-1), { useKey: true }, [move]);
  useHotkeys(']', () => move(1), { useKey: true }, [move]);
  const newest = session?.newestMonth;
  return (
    <div className="flex shrink-0 items-center gap-1" role="group" aria-label="Reporting date">
      <button
        type="button"
        className="button bare"
        aria-label="Previous month end"
        title="Previous month end: ["
        onClick={() => move(-1)}
      >
        <ChevronLeft size={16} aria-hidden="true" />
      </button>
      <span className="as-at">
        As at
        <DayFilter label="As at" day={lastDay} month={month} onDay={(day) => set(day || month)} />
      </span>
      <button type="button" className="button bare" aria-label="Next month end" title="Next month end: ]" onClick={() => move(1)}>
        <ChevronRight size={16} aria-hidden="true" />
      </button>
      {newest && newest !== month && (
        <button
          type="button"
          className="button bare"
          title={`To ${displayPeriod(newest)}, the newest month`}
          onClick={() => set(newest)}
        >
          <span className="max-[1180px]:sr-only">to {displayPeriod(newest)}</span>
          <span aria-hidden="true" className="min-[1181px]:hidden">
            {newest < month ? <ChevronsLeft size={16} /> : <ChevronsRight size={16} />}
          </span>
        </button>
      )}
    </div>
  );
}
