import { displayDate } from '../../core/calendar/displayDate';
import type { Session } from '../../wire/company';
import { useAsOf } from '../ground/asOf';

/** On paper alone: whose figures these are, as of which day, and when they were printed. */
export function PrintHead({ session: { company, today } }: { session: Session }) {
  const { lastDay } = useAsOf();
  if (!company) return null;
  return (
    <p className="print-head">
      <b>{company.name}</b> · as at {displayDate(lastDay)} · printed {displayDate(today)}
    </p>
  );
}
