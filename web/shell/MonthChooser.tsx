import { ChevronLeft, ChevronRight } from 'lucide-react';
import { useHotkeys } from 'react-hotkeys-hook';
import { displayDate, displayPeriod } from '../../core/calendar/displayDate';
import { useSessionQuery } from '../ground/api/api';
import { useAsOf } from '../ground/asOf';

/** The reporting month: every figure on the page is as at its last day. */
export function MonthChooser() {
  const { month, lastDay, setMonth, move } = useAsOf();
  const { data: session } = useSessionQuery();
  useHotkeys('[', () => move(-1), { useKey: true }, [move]);
  useHotkeys(']', () => move(1), { useKey: true }, [move]);
  const newest = session?.newestMonth;
  return (
    <div className="flex items-center gap-1" role="group" aria-label="Reporting month">
      <button
        type="button"
        className="button bare"
        aria-label="Previous month"
        title="Previous month: ["
        onClick={() => move(-1)}
      >
        <ChevronLeft size={16} aria-hidden="true" />
      </button>
      <label className="relative">
        <span className="sr-only">Month</span>
        <input
          type="month"
          className="absolute inset-0 cursor-pointer opacity-0"
          value={month}
          onChange={(event) => event.target.value && setMonth(event.target.value)}
          onClick={(event) => event.currentTarget.showPicker?.()}
        />
        <span className="month">
          As at&nbsp;<b>{displayDate(lastDay)}</b>
        </span>
      </label>
      <button type="button" className="button bare" aria-label="Next month" title="Next month: ]" onClick={() => move(1)}>
        <ChevronRight size={16} aria-hidden="true" />
      </button>
      {newest && newest !== month && (
        <button type="button" className="button bare" onClick={() => setMonth(newest)}>
          to {displayPeriod(newest)}
        </button>
      )}
    </div>
  );
}
