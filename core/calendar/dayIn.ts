import type { PlainDate } from './plainDate';

/** Whether a name is one of a time zone that is known here, such as Europe/London. */
export function isTimeZone(name: string): boolean {
  try {
    new Intl.DateTimeFormat('en', { timeZone: name });
    return true;
  } catch {
    return false;
  }
}

/** The day it is at a moment (an instant, or ISO 8601) in a time zone; an empty one is the machine's own. */
export function dayIn(at: Date | string, timeZone: string): PlainDate {
  // Swedish dates are written year, month, day.
  const format = new Intl.DateTimeFormat('sv-SE', timeZone === '' ? {} : { timeZone });
  return format.format(typeof at === 'string' ? new Date(at) : at);
}
