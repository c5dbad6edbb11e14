import { parseQuantity } from '../money/rate';
import { HOURS_OF_A_DAY, ONE_HOUR } from './sheets';
import type { Hours } from '../money/rate';

/** Hours of a day as they are typed: a number such as 8.5, 8,5 or 7.5h, hours and minutes such as 8:30, or start – finish – break such as 7:00-16:30-0:30. */
export interface ClockRead {
  hours: Hours;
  /** The times as they are saved, `07:00-16:30-0:30`; empty where hours alone were typed. */
  clock: string;
}

/** Reads what is typed for a day; null where it is neither hours nor times. A finish before its start is on the next day. */
export function readClock(typed: string): ClockRead | null {
  const text = typed
    .trim()
    .replaceAll('–', '-')
    .replace(/\s*-\s*/g, '-');
  if (!text.includes('-')) {
    const hours = hoursOf(text);
    return hours !== null && hours > 0 ? { hours, clock: '' } : null;
  }
  const parts = text.split('-');
  if (parts.length < 2 || parts.length > 3) return null;
  const [start, finish, pause] = [minutesOf(parts[0]), minutesOf(parts[1]), parts[2] === undefined ? 0 : minutesOf(parts[2])];
  if (start === null || finish === null || pause === null) return null;
  const worked = (finish > start ? finish - start : finish + MINUTES_OF_A_DAY - start) - pause;
  if (worked <= 0) return null;
  const written = [clockText(start), clockText(finish), ...(pause > 0 ? [clockText(pause).replace(/^0/, '')] : [])].join('-');
  // Minutes in ten-thousandths of an hour: half up, as hours have no more places.
  return { hours: Math.floor((worked * ONE_HOUR + 30) / 60), clock: written };
}

/** A number of hours, or hours and minutes; null where it is neither. Hours of a day have no thousands: a comma is a decimal one. */
function hoursOf(text: string): Hours | null {
  const plain = text.replace(/\s*h$/i, '');
  const timed = /^(\d{1,2}):([0-5]\d)$/.exec(plain);
  if (timed) return Number(timed[1]) * ONE_HOUR + Math.floor((Number(timed[2]) * ONE_HOUR + 30) / 60);
  const read = parseQuantity(plain.replace(/^(\d{0,2}),(\d{1,4})$/, '$1.$2').replace(/^\./, '0.'));
  return read.ok ? read.value : null;
}

/** Whether nothing was worked on a day, said in figures: 0, 0.00, 0:00. */
export const isNoTime = (typed: string): boolean => hoursOf(typed.trim()) === 0;

const MINUTES_OF_A_DAY = (HOURS_OF_A_DAY / ONE_HOUR) * 60;

/** 7, 7:30, 7.30 or 730 as minutes. */
function minutesOf(text: string | undefined): number | null {
  const match = /^(\d{1,2})(?:[:.]?(\d{2}))?$/.exec(text ?? '');
  if (!match) return null;
  const minutes = Number(match[1]) * 60 + Number(match[2] ?? 0);
  return Number(match[2] ?? 0) < 60 && minutes <= MINUTES_OF_A_DAY ? minutes : null;
}

const clockText = (minutes: number) =>
  `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;
