import { displayDate } from '../../core/calendar/displayDate';

const two = (value: number) => String(value).padStart(2, '0');

/** A moment in this place's time: `2031-04-30T13:05:00Z` → `30 Apr 2031, 14:05`. */
export function displayMoment(moment: string): string {
  const at = new Date(moment);
  const day = [at.getFullYear(), two(at.getMonth() + 1), two(at.getDate())].join('-');
  return `${displayDate(day)}, ${two(at.getHours())}:${two(at.getMinutes())}`;
}
