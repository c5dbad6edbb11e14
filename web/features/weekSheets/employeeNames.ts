import { useMemo } from 'react';
import type { TimeLists } from '../../../wire/weekSheets';

/** Names of employees by their codes. */
export function useNames(lists: TimeLists) {
  return useMemo(() => {
    const names = new Map(lists.employees.map((it) => [it.employee, it.name]));
    return (employee: string) => names.get(employee) ?? employee;
  }, [lists]);
}
