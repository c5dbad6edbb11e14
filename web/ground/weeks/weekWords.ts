import { displayDate } from '../../../core/calendar/displayDate';
import { addDays } from '../../../core/calendar/plainDate';

export const DAYS_OF_A_WEEK = 7;

/** 3 Mar 2031 to 9 Mar 2031. */
export const weekWords = (week: string) => `${displayDate(week)} to ${displayDate(addDays(week, DAYS_OF_A_WEEK - 1))}`;
