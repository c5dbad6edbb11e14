import type { PlainDate } from '../../core/calendar/plainDate';
import { ownTimeRefusal } from '../../core/labour/timeLife';
import { LedrinError } from '../../core/errors/ledrinError';
import type { TimeLineInput } from '../../wire/weekSheets';
import { assertAllowed } from '../acts/refused';
import type { Command } from '../acts/command';
import type { SignedIn } from '../acts/signedIn';
import type { Reader } from '../db/sql';
import { assertAsPreviewed } from '../versions/staleness';
import { notedLines } from './notedLines';
import { planPosting, saveTime, shownOfPlan, type PlannedTimePosting, type TimeToPost } from './postTime';
import { requireOfTime } from './timeApprovals';
import { checkLines, nextSheet, subjectOf } from './saveSheet';

/** Hours of a week that nobody entered yet. */
export interface NewHours {
  week: PlainDate;
  lines: readonly TimeLineInput[];
  lateOn: PlainDate | null;
}

/** Hours as they would be posted on a sheet of their own, entered and approved by whoever posts them. Throws with all faults. */
export async function planHours(
  sql: Reader,
  { week, lines, lateOn }: NewHours,
  person: SignedIn | null,
): Promise<{ sheet: string; planned: PlannedTimePosting }> {
  if (lines.length === 0)
    throw new LedrinError('bad-input', 'There are no hours on it yet', [{ field: 'lines', message: 'expected hours' }]);
  const checked = await checkLines(sql, lines, { week, leave: new Set(), person });
  const sheet = await nextSheet(sql);
  const toPost = checked.map((it, i): TimeToPost => ({ ...it, sheet, line: String(i + 1), id: null, reverses: null }));
  assertAllowed(
    toPost.map((it) => ownTimeRefusal(it, person)),
    { code: 'refused' },
  );
  return { sheet, planned: await planPosting(sql, toPost, lateOn) };
}

/** Enters, approves and posts hours in one act, as they were previewed. Gives back their sheet. */
export async function postHours(
  command: Command,
  { seen, ...hours }: NewHours & { seen: string },
  person: SignedIn | null,
): Promise<{ sheet: string; entries: number; total: number }> {
  const { sheet, planned } = await planHours(command.sql, hours, person);
  assertAsPreviewed(command, 'The time', shownOfPlan(planned), seen);
  await requireOfTime(command, 'approve-time', planned, shownOfPlan(planned));
  const posted = await saveTime(command, planned);
  command.note(subjectOf(sheet), { week: hours.week, now: notedLines(hours.lines), lines: planned.parts.length });
  return { sheet, ...posted };
}
