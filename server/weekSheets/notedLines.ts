import { displayDate } from '../../core/calendar/displayDate';
import type { Hours } from '../../core/money/rate';
import type { TimeLineInput } from '../../wire/weekSheets';

type Line = Pick<
  TimeLineInput,
  | 'employee'
  | 'dated'
  | 'job'
  | 'section'
  | 'costCode'
  | 'pay'
  | 'hours'
  | 'units'
  | 'wageClass'
  | 'workKind'
  | 'department'
  | 'description'
  | 'charge'
>;

interface NotedLine {
  hours: Hours;
  pay?: string;
  units?: number;
  wageClass?: string;
  workKind?: string;
  department?: string;
  description?: string;
  charge?: string;
}

/** Lines of time as the audit trail keeps them: by person, day and task, so that what changed stands beside what it was. */
export function notedLines(lines: readonly Line[]): Record<string, NotedLine> {
  const noted: Record<string, NotedLine> = {};
  for (const it of lines) {
    const task = [it.job, it.section, it.costCode].filter((part) => part !== '').join(' · ') || 'overhead';
    const name = `${it.employee}, ${displayDate(it.dated)}, ${task}`;
    let key = name;
    for (let n = 2; Object.hasOwn(noted, key); n++) key = `${name} (${n})`;
    noted[key] = {
      hours: it.hours,
      ...(it.pay === null ? {} : { pay: it.pay }),
      ...(it.units === null ? {} : { units: it.units }),
      ...(it.wageClass === '' ? {} : { wageClass: it.wageClass }),
      ...(it.workKind === '' ? {} : { workKind: it.workKind }),
      ...(it.department === '' ? {} : { department: it.department }),
      ...(it.description === '' ? {} : { description: it.description }),
      ...(it.charge === '' ? {} : { charge: it.charge }),
    };
  }
  return noted;
}

/** Numbers of lines in a row, as the audit trail has them. */
export function lineNumbers(lines: readonly { line: string }[]): string {
  return lines.map((it) => it.line).join(', ');
}
