import { useState, type InputHTMLAttributes } from 'react';
import { displayDate } from '../../../core/calendar/displayDate';
import { readDate } from '../typed/readDate';
import { DayButton } from './DayButton';

interface DayInputProps extends Omit<InputHTMLAttributes<HTMLInputElement>, 'value' | 'onChange'> {
  value: string;
  /** The month that what is typed in short is taken to be in, 2031-04. */
  month: string;
  onText: (typed: string) => void;
}

/** A day, typed or chosen from the calendar beside it. */
export function DayInput({ value, month, onText, ...props }: DayInputProps) {
  return (
    <span className="with-day">
      <input autoComplete="off" {...props} value={value} onChange={(event) => onText(event.target.value)} />
      <DayButton text={value} month={month} onDay={onText} />
    </span>
  );
}

interface DayFilterProps {
  label: string;
  /** The day filtered by; empty where it is not. */
  day: string;
  month: string;
  onDay: (day: string) => void;
}

/** A day to filter by: it counts on Enter, when it is left and when it is chosen. What is no day is put back. */
export function DayFilter({ label, day, month, onDay }: DayFilterProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const take = (text: string) => {
    const read = text.trim() === '' ? '' : readDate(text, month);
    if (read !== null && read !== day) onDay(read);
    setTyped(null);
  };
  const shown = typed ?? displayDate(day || null);
  return (
    <span className="with-day">
      <input
        className="box filter"
        aria-label={label}
        placeholder={label}
        autoComplete="off"
        value={shown}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={() => typed !== null && take(typed)}
        onKeyDown={(event) => event.key === 'Enter' && take(shown)}
      />
      <DayButton text={shown} month={month} onDay={take} />
    </span>
  );
}
