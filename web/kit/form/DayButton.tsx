import { CalendarDays } from 'lucide-react';
import { lazy, Suspense, useRef, useState } from 'react';
import { displayDate } from '../../../core/calendar/displayDate';
import { OnPress } from '../OnPress';
import { readDate } from '../typed/readDate';

// The calendar is fetched when it is first opened: typing stays the fast way.
const Calendar = lazy(() => import('./Calendar').then((it) => ({ default: it.Calendar })));

interface DayButtonProps {
  /** What is typed now. */
  text: string;
  /** The month that what is typed in short is taken to be in, 2031-04; the calendar opens at it where no day is typed. */
  month: string;
  onDay: (typed: string) => void;
  /** Told when its calendar opens, and when the focus has left it again. */
  onChoosing?: (choosing: boolean) => void;
}

/** Opens a calendar beside a date's field, which has the focus again when it closes, unless something else was pressed. */
export function DayButton({ text, month, onDay, onChoosing }: DayButtonProps) {
  const [open, setOpen] = useState(false);
  const button = useRef<HTMLButtonElement>(null);
  const pressedOutside = useRef(false);
  const change = (opened: boolean) => {
    if (opened) {
      pressedOutside.current = false;
      onChoosing?.(true);
    }
    setOpen(opened);
  };
  const leave = (event: Event) => {
    event.preventDefault();
    if (!pressedOutside.current) button.current?.parentElement?.querySelector('input')?.focus();
    onChoosing?.(false);
  };
  return (
    <OnPress
      open={open}
      onOpen={change}
      trigger={
        <button
          type="button"
          ref={button}
          className="day-button"
          tabIndex={-1}
          aria-label="Calendar"
          // The field keeps the focus until the calendar takes it.
          onPointerDown={(event) => event.preventDefault()}
        >
          <CalendarDays size={15} aria-hidden="true" />
        </button>
      }
      content={{
        align: 'end',
        sideOffset: 4,
        collisionPadding: 8,
        className: 'pop p-3',
        onCloseAutoFocus: leave,
        onInteractOutside: () => (pressedOutside.current = true),
      }}
    >
      <Suspense fallback={<p className="note m-0">Reading …</p>}>
        <Calendar
          day={readDate(text, month)}
          month={month}
          onDay={(picked) => {
            onDay(displayDate(picked));
            setOpen(false);
          }}
        />
      </Suspense>
    </OnPress>
  );
}
