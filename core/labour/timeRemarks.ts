import { displayDate } from '../calendar/displayDate';
import type { PlainDate } from '../calendar/plainDate';

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
  today: PlainDate;
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
export function remarksOn({ dated, job, section, costCode }: RemarkedTime, facts: TimeFacts): TimeRemark[] {
  const { today, sections, budgeted, unpriced } = facts;
  const remarks: TimeRemark[] = [];
  const task = [job, section, costCode].filter(Boolean).join(' · ');
  const isUnknown = sections !== null && section !== '' && !sections.has(section);
  if (isUnknown) remarks.push({ kind: 'no-section', message: `${task}: job ${job} has no section ${section}` });
  else if (sections !== null && !budgeted) remarks.push({ kind: 'no-budget', message: `${task} has no budget for labour` });
  if (dated > today) remarks.push({ kind: 'ahead', message: `${displayDate(dated)} is after today` });
  if (unpriced !== null) remarks.push({ kind: 'unpriced', message: unpriced });
  return remarks;
}
