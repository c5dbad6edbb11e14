import { useMemo } from 'react';
import { displayDate } from '../../../core/calendar/displayDate';
import { addDays } from '../../../core/calendar/plainDate';
import type { TimeLists } from '../../../wire/weekSheets';

const LAST = 6;
/** 3 Mar 2031 to 9 Mar 2031. */
export const weekWords = (week: string) => `${displayDate(week)} to ${displayDate(addDays(week, LAST))}`;

/** Names of employees by their codes. */
export function useNames(lists: TimeLists) {
  return useMemo(() => {
    const names = new Map(lists.employees.map((it) => [it.employee, it.name]));
    return (employee: string) => names.get(employee) ?? employee;
  }, [lists]);
}
