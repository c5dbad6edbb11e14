import type { PlainDate } from '../calendar/plainDate';
import type { Hours, Quantity } from '../money/rate';
import { HOURS_OF_A_DAY } from './sheets';

/** A line of time as it is entered; an empty text is a cell left out. */
export interface EnteredTime {
  employee: string;
  dated: PlainDate;
  job: string;
  costCode: string;
  /** Of overhead; empty: that of the employee. */
  department: string;
  hours: Hours;
  units: Quantity | null;
}

/** When somebody is employed: null is open. */
export interface Employed {
  name: string;
  startsOn: PlainDate | null;
  endsOn: PlainDate | null;
}

export interface TimeFault {
  at: keyof EnteredTime;
  message: string;
}

/** What is wrong with a line of time by itself. `reverses`: its hours are turned. */
export function timeFaults(line: EnteredTime, employee: Employed, reverses: boolean): TimeFault[] {
  const { dated, hours, units } = line;
  const faults: TimeFault[] = [];
  const add = (at: TimeFault['at'], message: string) => faults.push({ at, message });
  if (employee.startsOn && dated < employee.startsOn)
    add('dated', `${dated} is before ${employee.name} started, ${employee.startsOn}`);
  if (employee.endsOn && dated > employee.endsOn) add('dated', `${dated} is after ${employee.name} left, ${employee.endsOn}`);
  if (line.job && !line.costCode) add('costCode', 'missing required cell: time on a job needs its cost code');
  if (line.job && line.department) add('department', `time on a job counts in the department of job ${line.job}; leave it empty`);
  if (!reverses && hours < 0) add('hours', 'is below 0; only a line that reverses another is');
  if (!reverses && hours === 0 && units === null) add('hours', 'expected more than 0');
  if (units !== null && !line.costCode) add('units', 'piece work is paid by its cost code; fill that in');
  return faults;
}

/** Nobody works more than a day has hours: the lines with which somebody would. `there`: what counts already. */
export function beyondTheDay<Line extends Pick<EnteredTime, 'employee' | 'dated' | 'hours'>>(
  lines: readonly Line[],
  there: readonly Pick<EnteredTime, 'employee' | 'dated' | 'hours'>[],
): { line: Line; message: string }[] {
  const days = new Map<string, Hours>();
  const add = ({ employee, dated, hours }: Pick<EnteredTime, 'employee' | 'dated' | 'hours'>) => {
    const sum = (days.get(`${employee} ${dated}`) ?? 0) + hours;
    days.set(`${employee} ${dated}`, sum);
    return sum;
  };
  for (const it of there) add(it);
  return lines.flatMap((line) =>
    add(line) > HOURS_OF_A_DAY ? [{ line, message: `more than 24 hours of ${line.employee} on ${line.dated}` }] : [],
  );
}
