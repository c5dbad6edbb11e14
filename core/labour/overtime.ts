import { grouped } from '../lists/grouped';
import { addDays, weekdayOf, type PlainDate } from '../calendar/plainDate';
import type { Hours } from '../money/rate';
import { PAY_CLASSES, type PayClass } from './payClass';

export const WEEKDAYS = ['monday', 'tuesday', 'wednesday', 'thursday', 'friday', 'saturday', 'sunday'] as const;
export type Weekday = (typeof WEEKDAYS)[number];

/** From when hours are overtime: a threshold that is null is none. */
export interface OvertimeRule {
  from: PlainDate;
  dailyAfter: Hours | null;
  /** Regular and overtime hours of a day beyond it are double; never without `dailyAfter`, and not below it. */
  doubleAfter: Hours | null;
  weeklyAfter: Hours | null;
  weekStarts: Weekday;
}

/** A line of time to be cut, of one employee. Lines stand in the order of sheet and line. */
export interface OpenTime {
  dated: PlainDate;
  hours: Hours;
  /** Given, it is taken as it is; null: split by the rule. */
  pay: PayClass | null;
  /** Piece work is never cut: it is regular where open, as if given. */
  hasUnits: boolean;
  /** What it reverses stands on this day, before `dated` or after; null where it reverses nothing. */
  reversesOn: PlainDate | null;
}

/** Hours of one employee that are posted already: they keep their class and count first. */
export interface PostedTime {
  dated: PlainDate;
  pay: PayClass;
  hours: Hours;
}

/** A line as it is cut: up to three parts, in the order of the classes; the hours of no class are left out. */
export type Parts = readonly (readonly [pay: PayClass, hours: Hours])[];

type Tally = Record<PayClass, Hours>;
const nothing = (): Tally => ({ regular: 0, overtime: 0, double: 0 });

/** The rule in force on a day: the newest that began by then. */
export function ruleOn<It extends { from: PlainDate }>(rules: readonly It[], day: PlainDate): It | null {
  return rules.reduce<It | null>((newest, it) => (it.from <= day && (!newest || it.from > newest.from) ? it : newest), null);
}

/** The first day of the week a day lies in, by the rule in force on it. */
export function weekBy(rules: readonly OvertimeRule[], day: PlainDate): PlainDate {
  return weekOf(day, ruleOn(rules, day)?.weekStarts ?? WEEKDAYS[0]);
}

/** First days of weeks, and the days of each, as they were worked out: the lines of a week ask for the same few again and again. */
const FIRST_DAYS = new Map<string, PlainDate>();
const WEEKS = new Map<PlainDate, readonly PlainDate[]>();
const MOST_REMEMBERED = 5000;

function remembered<Value>(known: Map<string, Value>, key: string, work: () => Value): Value {
  const there = known.get(key);
  if (there !== undefined) return there;
  if (known.size >= MOST_REMEMBERED) known.clear();
  const value = work();
  known.set(key, value);
  return value;
}

const weekOf = (day: PlainDate, weekStarts: Weekday): PlainDate =>
  remembered(FIRST_DAYS, `${weekStarts} ${day}`, () => addDays(day, -((weekdayOf(day) - WEEKDAYS.indexOf(weekStarts) + 7) % 7)));

/** The seven days of a week from its first. */
const daysOfWeek = (begins: PlainDate): readonly PlainDate[] =>
  remembered(WEEKS, begins, () => [0, 1, 2, 3, 4, 5, 6].map((i) => addDays(begins, i)));

/** Cuts lines of several employees, each by those of their own; the parts come back in the order of the lines. */
export function cutTime<Line extends OpenTime & { employee: string }>(
  lines: readonly Line[],
  posted: readonly (PostedTime & { employee: string })[],
  rules: readonly OvertimeRule[],
): Map<Line, Parts> {
  const postedBy = grouped(posted, (it) => it.employee);
  const cut = new Map<Line, Parts>();
  for (const [employee, of] of grouped(lines, (it) => it.employee)) {
    const parts = splitTime(of, postedBy.get(employee) ?? [], rules);
    of.forEach((line, i) => cut.set(line, parts[i] ?? []));
  }
  return cut;
}

/**
 * Cuts the lines of one employee by the rules of their days (docs/rules.md §10): first day by day, then by the week, where an open
 * regular hour beyond the limit becomes overtime. Lines are given in the order of sheet and line, the parts come back in it.
 */
export function splitTime(lines: readonly OpenTime[], posted: readonly PostedTime[], rules: readonly OvertimeRule[]): Parts[] {
  const daily = lines.map((): Tally => nothing());
  for (const day of new Set(lines.map((it) => it.dated))) splitDay(day, lines, posted, ruleOn(rules, day), daily);
  splitWeeks(lines, posted, rules, daily);
  return daily.map((hoursOfDay, i) => {
    const line = lines[i];
    const given = line && givenOf(line);
    // As it is given it is one part, also where it has no hours, such as piece work that was paid by the piece alone.
    return line && given
      ? [[given, line.hours] as const]
      : PAY_CLASSES.filter((pay) => hoursOfDay[pay] !== 0).map((pay) => [pay, hoursOfDay[pay]] as const);
  });
}

/** The class a line is of as it stands; null where the rule says. */
function givenOf({ pay, hasUnits }: OpenTime): PayClass | null {
  return pay ?? (hasUnits ? 'regular' : null);
}

function splitDay(
  day: PlainDate,
  lines: readonly OpenTime[],
  posted: readonly PostedTime[],
  rule: OvertimeRule | null,
  cut: readonly Tally[],
): void {
  const used = nothing();
  for (const it of posted) if (it.dated === day) used[it.pay] += it.hours;
  lines.forEach((line, i) => {
    const given = givenOf(line);
    const own = cut[i];
    if (line.dated !== day || given === null || !own) return;
    own[given] = line.hours;
    used[given] += line.hours;
  });
  lines.forEach((line, i) => {
    const own = cut[i];
    if (line.dated !== day || givenOf(line) !== null || !own) return;
    let left = line.hours;
    const take = (pay: PayClass, room: Hours) => {
      const hours = Math.min(left, Math.max(0, room));
      own[pay] += hours;
      used[pay] += hours;
      left -= hours;
    };
    const { dailyAfter, doubleAfter } = rule ?? { dailyAfter: null, doubleAfter: null };
    if (dailyAfter === null) return take('regular', left);
    take('regular', dailyAfter - used.regular);
    take('overtime', doubleAfter === null ? left : doubleAfter - used.regular - used.overtime);
    take('double', left);
  });
}

/** A reversing line counts where what it reverses stands. */
const countsOn = ({ dated, reversesOn }: OpenTime) => reversesOn ?? dated;

function splitWeeks(
  lines: readonly OpenTime[],
  posted: readonly PostedTime[],
  rules: readonly OvertimeRule[],
  cut: readonly Tally[],
): void {
  const inOrder = lines
    .map((line, i) => ({ line, i }))
    .sort((a, b) => (countsOn(a.line) < countsOn(b.line) ? -1 : countsOn(a.line) > countsOn(b.line) ? 1 : a.i - b.i));
  // By day, since the week of a line may reach back to days whose rule began weeks on another day.
  const regular = new Map<PlainDate, Hours>();
  const count = (day: PlainDate, hours: Hours) => regular.set(day, (regular.get(day) ?? 0) + hours);
  for (const it of posted) if (it.pay === 'regular') count(it.dated, it.hours);
  for (const { line, i } of inOrder) {
    const rule = ruleOn(rules, line.dated);
    const own = cut[i];
    if (!own) continue;
    if (rule && rule.weeklyAfter !== null && givenOf(line) === null) {
      const before = inWeek(regular, weekOf(countsOn(line), rule.weekStarts));
      const beyond = own.regular - Math.min(own.regular, Math.max(0, rule.weeklyAfter - before));
      own.regular -= beyond;
      own.overtime += beyond;
    }
    count(countsOn(line), own.regular);
  }
}

function inWeek(regular: ReadonlyMap<PlainDate, Hours>, begins: PlainDate): Hours {
  return daysOfWeek(begins).reduce((sum, day) => sum + (regular.get(day) ?? 0), 0);
}
