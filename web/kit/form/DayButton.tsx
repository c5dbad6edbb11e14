import { CalendarDays } from 'lucide-react';
import { Popover } from 'radix-ui';
import { lazy, Suspense, useState } from 'react';
import { displayDate } from '../../../core/calendar/displayDate';

// The calendar is fetched when it is first opened: typing stays the fast way.
const Calendar = lazy(() => import('./Calendar').then((it) => ({ default: it.Calendar })));

interface DayButtonProps {
  /** The day typed now; null where none can be read. */
  day: string | null;
  onDay: (typed: string) => void;
}

/** Opens a calendar beside a date's field. */
export function DayButton({ day, onDay }: DayButtonProps) {
  const [open, setOpen] = useState(false);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger className="day-button" tabIndex={-1} aria-label="Calendar">
        <CalendarDays size={15} aria-hidden="true" />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content align="end" sideOffset={4} className="pop p-3">
          <Suspense fallback={<p className="note m-0">Reading …</p>}>
            <Calendar
              day={day}
              onDay={(picked) => {
                onDay(displayDate(picked));
                setOpen(false);
              }}
            />
          </Suspense>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
