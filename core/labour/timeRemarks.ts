import { displayDate } from '../calendar/displayDate';
import type { PlainDate } from '../calendar/plainDate';
import { plural } from '../names/plural';

/** A line of time as far as it may be mistyped. */
export interface RemarkedTime {
  dated: PlainDate;
  /** Empty: overhead. */
  job: string;
  section: string;
  costCode: string;
}

/** What is known of where a line goes. */
export interface TimeFacts {
  /** The sections of its job; null for overhead, and for a job that is not seen. */
  sections: ReadonlySet<string> | null;
  /** Whether labour is budgeted there. */
  budgeted: boolean;
  /** Why it cannot be priced, in words; null where it can. */
  unpriced: string | null;
}

export type TimeRemarkKind = 'no-section' | 'no-budget' | 'ahead' | 'unpriced';

export interface TimeRemark {
  kind: TimeRemarkKind;
  message: string;
}

/** What is unusual about a line of time, for whoever enters it and whoever approves it. Nothing of it is refused. */
export function remarksOn({ job, section, costCode }: Omit<RemarkedTime, 'dated'>, facts: TimeFacts): TimeRemark[] {
  const { sections, budgeted, unpriced } = facts;
  const remarks: TimeRemark[] = [];
  const task = [job, section, costCode].filter(Boolean).join(' · ');
  const isUnknown = sections !== null && section !== '' && !sections.has(section);
  if (isUnknown) remarks.push({ kind: 'no-section', message: `${task}: job ${job} has no section ${section}` });
  else if (sections !== null && !budgeted) remarks.push({ kind: 'no-budget', message: `${task} has no budget for labour` });
  if (unpriced !== null) remarks.push({ kind: 'unpriced', message: unpriced });
  return remarks;
}

/** That days are still to come, in one sentence; null where none is. */
export function aheadRemark(days: readonly PlainDate[], today: PlainDate): TimeRemark | null {
  const ahead = [...new Set(days.filter((it) => it > today))].sort();
  const [first] = ahead;
  if (first === undefined) return null;
  const message =
    ahead.length === 1
      ? `${displayDate(first)} is after today`
      : `${plural(ahead.length, 'day')}, from ${displayDate(first)} on, are after today`;
  return { kind: 'ahead', message };
}
