import * as v from 'valibot';
import { CHARGE_MARKS } from '../core/charging/chargeMark';
import type { OvertimeRule } from '../core/labour/overtime';
import { PAY_CLASSES, type PayClass } from '../core/labour/payClass';
import type { Task } from '../core/labour/likelyTasks';
import type { SheetState } from '../core/labour/timeLife';
import type { TimeRemark } from '../core/labour/timeRemarks';
import type { LookedAt, Rung } from '../core/labour/payRates';
import type { CostPreview } from './costs';
import { asOf, filled, list, optionalDate, plainDate, quantity, seen, text } from './fields';
import { command, dated, preview, query } from './call';

const code = text(40);
const timeLine = v.strictObject({
  employee: filled(40),
  dated: plainDate,
  job: code,
  section: text(80),
  costCode: code,
  workKind: code,
  /** Of overhead; empty: that of the employee. */
  department: v.optional(code, ''),
  wageClass: code,
  /** Null: split by the overtime rule. */
  pay: v.nullable(v.picklist(PAY_CLASSES, `expected one of ${PAY_CLASSES.join(', ')}`)),
  hours: quantity,
  units: v.nullable(quantity),
  description: text(400),
  clock: text(20),
  /** Whether the client is charged for it; empty: by the job. */
  charge: v.optional(v.picklist(['', ...CHARGE_MARKS], `expected nothing, ${CHARGE_MARKS.join(', ')}`), ''),
});
export type TimeLineInput = v.InferOutput<typeof timeLine>;

const MOST_LINES = 20_000;
const lines = list(timeLine, MOST_LINES, 'lines of time');
const ids = list(v.pipe(v.number('expected the id of a line'), v.safeInteger('expected the id of a line')), MOST_LINES, 'lines');

/** What can be chosen on a week sheet. */
export interface TimeLists {
  employees: { employee: string; name: string; wageClass: string; startsOn: string | null; endsOn: string | null }[];
  /** Jobs that take time. */
  jobs: {
    number: string;
    name: string;
    sections: string[];
    /** Of its hours, where a line says none; empty: none. */ workKind: string;
  }[];
  costCodes: { code: string; description: string }[];
  workKinds: { workKind: string; description: string }[];
  /** Empty where the company has none. */
  departments: { code: string; name: string }[];
  rules: OvertimeRule[];
  /** The employee who is signed in; null for somebody who is none. */
  me: string | null;
}

/** What people worked on in the weeks before, and the jobs whose team they are on: from it the rows of a sheet are proposed. */
export interface WorkedBeforeView {
  /** The newest first. */
  tasks: (Task & { employee: string })[];
  teams: { employee: string; job: string }[];
}

/** A line as its sheet shows it: hours, and no money. */
export interface SheetLine extends TimeLineInput {
  id: number;
  line: string;
  postedOn: string;
  state: SheetState;
  /** Why it was returned; empty where it was not. */
  returned: string;
  /** What it reverses, and what reverses it: sheet/line/pay class. */
  reverses: string | null;
  reversedBy: string | null;
  /** Posted: its class is by the overtime rule, not given. */
  split: boolean;
}

export interface WeekSheetView {
  sheet: string;
  seen: string;
  /** First days of the weeks it has time in. */
  weeks: string[];
  /** The week that is shown, its first day. */
  week: string;
  lines: SheetLine[];
  /** Sheets it reverses lines of, and sheets that reverse lines of it. */
  corrects: string[];
  correctedBy: string[];
}

export interface SheetRow {
  sheet: string;
  week: string;
  employees: string[];
  /** Hours by state. */
  hours: Record<SheetState, number>;
}

export interface WeekRegister {
  /** First day of the week. */
  week: string;
  sheets: SheetRow[];
  /** Who is employed in the week and has no time in it. */
  missing: {
    employee: string;
    name: string;
    /** Who of the users hands in their hours; null: nobody yet. */
    by: string | null;
    /** Who was reminded of it, and when. */
    reminded: { user: string; at: string } | null;
  }[];
  /** Sheets of earlier weeks with lines that are not posted. */
  earlier: SheetRow[];
}

/** Who was reminded, and whose hours nobody hands in who could be. */
export interface Reminded {
  reminded: string[];
  nobody: string[];
}

/** What the labour of a week costs, pay and burden. */
export interface WeekCost {
  posted: number;
  /** Of what waits, as it would be posted now. */
  toCome: number;
  /** Lines that wait and have no rate. */
  unpriced: number;
  /** Of what waits, by line. */
  lines: { id: number; cost: number }[];
}

/** Hours of an employee on a day; what is not posted line by line, in the order in which it is cut. */
export interface DayHours {
  sheet: string;
  employee: string;
  dated: string;
  /** Null: not posted, and open. */
  pay: PayClass | null;
  hours: number;
  posted: boolean;
  hasUnits: boolean;
  /** Empty: overhead; null: a job that whoever asks does not see. */
  job: string | null;
  section: string;
  costCode: string;
}

/** Budgeted and used hours of a task, in ten-thousandths. */
export interface TaskHours {
  job: string;
  section: string;
  costCode: string;
  description: string;
  budgeted: number;
  /** Posted. */
  used: number;
  /** Entered and not posted, by sheet. */
  waiting: { sheet: string; hours: number }[];
}

/** A line that cannot be priced. */
export interface MissingRate {
  sheet: string;
  line: string;
  name: string;
  dated: string;
  message: string;
}

/** What posting would do. */
export interface TimePreview extends Omit<CostPreview, 'unusual' | 'total'> {
  seen: string;
  lines: CostPreview['lines'];
  entries: number;
  hours: number;
  pay: number;
  burden: number;
  missing: MissingRate[];
  /** Those without a rate are left out: the others can be posted. */
  leftOut: boolean;
  /** Hours by pay class. */
  classes: Record<PayClass, number>;
  /** Lines that count on another day than they were worked. */
  late: number;
}

const posting = {
  sheets: list(filled(200), 2000, 'sheets'),
  /** Lines worked before the month of this day count on it; null: each on its own day. */
  lateOn: optionalDate,
  /** Lines without a rate stay approved, and the others are posted without them. */
  leaveOut: v.boolean('expected true or false'),
};
const correction = {
  week: plainDate,
  employees: list(filled(40), 2000, 'employees'),
  lines,
  reason: filled(400),
  lateOn: optionalDate,
};

const newHours = { week: plainDate, lines, lateOn: optionalDate };

const week = v.strictObject({ week: plainDate });
export const weekSheetCalls = {
  timeLists: query<TimeLists>('enter-time')('/time-lists'),
  weekRegister: query<WeekRegister>('enter-time')('/week-sheets', { query: v.strictObject({ on: plainDate }) }),
  /** Reminds whoever hands in the hours that are missing of the week a day lies in. */
  remindMissing: command<Reminded>('approve-time')('/week-sheets/reminders', { input: v.strictObject({ on: plainDate }) }),
  /** For whoever may know what people cost. */
  weekCost: query<WeekCost>('read-books')('/week-cost', { query: v.strictObject({ on: plainDate }) }),
  /** Of its first week where no day is given. */
  weekSheet: query<WeekSheetView>('enter-time')('/week-sheets/:sheet', { query: v.strictObject({ on: v.optional(plainDate) }) }),
  /** Hours of everybody in the week a day lies in: the overtime rule counts what is posted of them first. */
  hoursOfWeek: query<{ hours: DayHours[] }>('enter-time')('/week-hours', { query: v.strictObject({ on: plainDate }) }),
  workedBefore: query<WorkedBeforeView>('enter-time')('/worked-before', { query: v.strictObject({ on: plainDate }) }),
  /** Of jobs by their numbers, apart by commas; those that are not seen are left out. */
  taskHours: query<{ tasks: TaskHours[] }>('enter-time')('/task-hours', {
    query: v.strictObject({ ...dated.entries, jobs: text(4000) }),
  }),
  /** What is unusual about lines that are typed or wait, each by its place in the list. Nothing of it is refused. */
  timeRemarks: preview<(TimeRemark & { line: number })[]>('enter-time')('/time-remarks', { input: v.strictObject({ lines }) }),
  addSheet: command<{ sheet: string }>('enter-time')('/week-sheets', { input: v.strictObject({ ...week.entries, lines }) }),
  /** The lines of a week that are not approved yet, whole: one left out is removed. */
  saveSheet: command('enter-time')('/week-sheets/:sheet', {
    method: 'PUT',
    input: v.strictObject({ seen, ...week.entries, lines }),
  }),
  approveTime: command('approve-time')('/week-sheets/:sheet/approve', { input: v.strictObject({ seen, lines: ids }) }),
  returnTime: command('approve-time')('/week-sheets/:sheet/return', {
    input: v.strictObject({ seen, lines: ids, reason: filled(400) }),
  }),
  /** Approved lines by sheet, with those that cannot be priced. */
  readyTime: query<{ sheets: (SheetRow & { missing: MissingRate[] })[]; newest: string | null }>('post-costs')('/time-posting'),
  previewTime: preview<TimePreview>('post-costs')('/time-posting/preview', { input: v.strictObject({ ...posting, asOf }) }),
  postTime: command<{ entries: number; total: number }>('post-costs')('/time-posting', {
    input: v.strictObject({ ...posting, seen }),
  }),
  /** Of hours that nobody entered yet: entered, approved and posted in one act, by whoever may do all three. */
  previewHours: preview<TimePreview>('post-costs')('/hours-posting/preview', { input: v.strictObject({ ...newHours, asOf }) }),
  postHours: command<{ sheet: string; entries: number; total: number }>('post-costs')('/hours-posting', {
    input: v.strictObject({ ...newHours, seen }),
    also: () => 'approve-time',
  }),
  previewTimeCorrection: preview<TimePreview>('correct-costs')('/week-sheets/:sheet/correction/preview', {
    input: v.strictObject({ ...correction, asOf }),
  }),
  correctTime: command<{ sheet: string }>('correct-costs')('/week-sheets/:sheet/correction', {
    input: v.strictObject({ ...correction, seen }),
  }),
  /** Which rung a line of time has its rate from, and what became of the others. */
  timeRate: query<{ rate: number; rung: Rung | 'piece'; looked: LookedAt[] }>('read-books')('/time-rate', {
    query: v.strictObject({ sheet: filled(200), line: filled(200), pay: v.picklist(PAY_CLASSES) }),
  }),
};
