import type { PlainDate } from '../calendar/plainDate';
import { sum, type Cents } from '../money/cents';
import type { Quantity, Rate } from '../money/rate';

/** One line of the schedule of values as signed. Lines a change order brings start at 0 and are not original. */
export interface SovLine {
  line: string;
  section: string;
  description: string;
  /** Original scheduled value; 0 for a line that a change order brings. */
  scheduledValue: Cents;
  quantity: Quantity | null;
  unit: string;
  /** The line's own retention rate; null takes the job's. */
  retentionRate: Rate | null;
  original: boolean;
}

/** One price line of a change order that was approved on `approvedOn`. */
export interface PriceChange {
  changeOrder: string;
  line: string;
  amount: Cents;
  approvedOn: PlainDate;
}

/** An SOV line as it stands on a date. */
export interface ScheduledLine extends SovLine {
  scheduledToDate: Cents;
}

/**
 * The schedule of values on a date, in SOV order: original lines, then those that change orders approved by
 * then have brought, in the order they were first named. `lines` must come in that order. docs/rules.md §4 and §6.
 */
export function scheduleAt(lines: readonly SovLine[], changes: readonly PriceChange[], on: PlainDate): ScheduledLine[] {
  const added = new Map<string, Cents>();
  for (const change of changes) {
    if (change.approvedOn <= on) added.set(change.line, (added.get(change.line) ?? 0) + change.amount);
  }
  return lines
    .filter((line) => line.original || added.has(line.line))
    .map((line) => ({ ...line, scheduledToDate: line.scheduledValue + (added.get(line.line) ?? 0) }));
}

/** Original SOV lines + price lines of change orders approved on or before the date the schedule was taken at. */
export function contractSum(schedule: readonly ScheduledLine[]): Cents {
  return sum(schedule.map((line) => line.scheduledToDate));
}

/** What the contract was signed for: the original lines alone. */
export function originalContractSum(lines: readonly SovLine[]): Cents {
  return sum(lines.map((line) => (line.original ? line.scheduledValue : 0)));
}
