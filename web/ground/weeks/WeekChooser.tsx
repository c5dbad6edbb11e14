import { useSearchParams } from 'react-router';
import { addDays, periodOf } from '../../../core/calendar/plainDate';
import { DayFilter } from '../../kit/form/DayInput';
import { DAYS_OF_A_WEEK, weekWords } from './weekWords';

/** The week that is shown, with the ones before and after it; it stands in the address as a day of it, `on`. */
export function WeekChooser({ week }: { week: string }) {
  const [, setParams] = useSearchParams();
  const to = (on: string) =>
    setParams((before) => new URLSearchParams([...before].filter(([key]) => key !== 'on').concat([['on', on]])), {
      replace: true,
    });
  return (
    <div className="mb-3 flex flex-wrap items-center gap-3">
      <button type="button" className="button" aria-label="The week before" onClick={() => to(addDays(week, -DAYS_OF_A_WEEK))}>
        ‹
      </button>
      <b className="min-w-[230px] text-center">{weekWords(week)}</b>
      <button type="button" className="button" aria-label="The week after" onClick={() => to(addDays(week, DAYS_OF_A_WEEK))}>
        ›
      </button>
      <DayFilter label="A day of the week" day={week} month={periodOf(week)} onDay={(day) => day !== '' && to(day)} />
    </div>
  );
}
