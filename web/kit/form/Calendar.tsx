import { DayPicker } from 'react-day-picker';
import { enGB } from 'react-day-picker/locale';
import 'react-day-picker/style.css';
import './calendar.css';

/** Days are plain: read and written in local time, never as moments. */
const dateOf = (day: string) => {
  const [year = 0, month = 1, date = 1] = day.split('-').map(Number);
  return new Date(year, month - 1, date);
};
const dayOf = (date: Date) =>
  [date.getFullYear(), String(date.getMonth() + 1).padStart(2, '0'), String(date.getDate()).padStart(2, '0')].join('-');

interface CalendarProps {
  day: string | null;
  /** The month it opens at where there is no day. */
  month: string;
  onDay: (day: string) => void;
}

/** A month to choose a day from, weeks beginning on Monday. */
export function Calendar({ day, month, onDay }: CalendarProps) {
  const chosen = day ? dateOf(day) : undefined;
  return (
    <DayPicker
      mode="single"
      autoFocus
      locale={enGB}
      weekStartsOn={1}
      showOutsideDays
      defaultMonth={chosen ?? dateOf(`${month}-01`)}
      selected={chosen}
      onSelect={(picked) => picked && onDay(dayOf(picked))}
      className="calendar"
    />
  );
}
