import type { PlainDate } from '../calendar/plainDate';
import type { Hours } from '../money/rate';

/** Hours of somebody on a day at a task. */
export interface TaskTime {
  employee: string;
  dated: PlainDate;
  job: string;
  section: string;
  costCode: string;
  hours: Hours;
}

/** Hours that may have been entered twice: those of `line`, and those of the same person, day and task on another sheet. */
export interface DoubledHours<Line> {
  line: Line;
  sheet: string;
  hours: Hours;
}

const keyOf = ({ employee, dated, job, section, costCode }: TaskTime): string =>
  JSON.stringify([employee, dated, job, section, costCode]);

/** What of `lines` stands on other sheets too, one a person, day, task and sheet, in the order of the lines. Reversing lines are not given. */
export function doubledHours<Line extends TaskTime>(
  lines: readonly Line[],
  elsewhere: readonly (TaskTime & { sheet: string })[],
): DoubledHours<Line>[] {
  const there = new Map<string, Map<string, Hours>>();
  for (const it of elsewhere) {
    const sheets = there.get(keyOf(it)) ?? new Map<string, Hours>();
    there.set(keyOf(it), sheets.set(it.sheet, (sheets.get(it.sheet) ?? 0) + it.hours));
  }
  const reported = new Set<string>();
  return lines.flatMap((line) => {
    const key = keyOf(line);
    if (line.hours === 0 || reported.has(key)) return [];
    reported.add(key);
    return [...(there.get(key) ?? [])].flatMap(([sheet, hours]) => (hours === 0 ? [] : [{ line, sheet, hours }]));
  });
}
