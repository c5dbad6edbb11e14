import type { PlainDate } from '../../core/calendar/plainDate';
import { LedrinError } from '../../core/errors/ledrinError';
import { weekBy } from '../../core/labour/overtime';
import { ownTimeRefusal, TIME_LIFE, timeState } from '../../core/labour/timeLife';
import { assertAllowed, assertMove } from '../acts/refused';
import { TimeLineTable } from '../labour/models';
import { loadTerms } from '../labour/terms';
import type { Command } from '../acts/command';
import type { SignedIn } from '../acts/signedIn';
import { assertUnchangedSheet, seenLines, subjectOf } from './saveSheet';
import { isRuled } from '../approvals/requireApproval';
import { planPosting, shownOfPlan, type TimeToPost } from './postTime';
import { requireOfTime } from './timeApprovals';
import { lineNumbers, notedLines } from './notedLines';
import { linesOfSheet, shownLine, type LoadedLine } from './sheetViews';

interface Chosen {
  seen: string;
  lines: readonly number[];
}

/** The chosen lines of a sheet, all of one week that somebody sees and as they were shown. */
async function chosenLines(
  command: Command,
  sheet: string,
  { seen, lines: ids }: Chosen,
  person: SignedIn | null,
): Promise<LoadedLine[]> {
  const { sql } = command;
  const all = await linesOfSheet(sql, sheet);
  const first = all.find((it) => ids.includes(it.id));
  const week: PlainDate = first ? weekBy((await loadTerms(sql)).rules, first.dated) : '';
  const there = first ? await seenLines(sql, sheet, week, person) : all;
  await assertUnchangedSheet(command, sheet, there, seen);
  const chosen = there.filter((it) => ids.includes(it.id));
  if (chosen.length < ids.length || ids.length === 0)
    throw new LedrinError('bad-input', 'Choose lines of this sheet', [
      { field: 'lines', message: 'expected lines of the sheet' },
    ]);
  return chosen;
}

/** Approves lines: they can be posted then, and are changed no more unless they are returned. */
export async function approveTime(command: Command, sheet: string, input: Chosen, person: SignedIn | null): Promise<void> {
  const lines = await chosenLines(command, sheet, input, person);
  for (const it of lines) {
    assertMove(TIME_LIFE, 'approve', `Line ${it.line}`, timeState(it));
    assertAllowed([ownTimeRefusal(it, person)], { code: 'refused' });
  }
  if (await isRuled(command.sql, 'approve-time')) {
    const toPost = lines.map((it): TimeToPost => ({ ...it, reverses: null }));
    const planned = await planPosting(command.sql, toPost, null, true);
    await requireOfTime(command, 'approve-time', planned, [sheet, shownOfPlan(planned)]);
  }
  await command.sql.update(TimeLineTable, { id: lines.map((it) => it.id) }, { status: 'approved' });
  command.note(subjectOf(sheet), { lines: lineNumbers(lines), now: notedLines(lines.map(shownLine)) });
}

/** Returns lines to whoever entered them, with a reason; the others stay as they are. */
export async function returnTime(
  command: Command,
  sheet: string,
  { reason, ...input }: Chosen & { reason: string },
  person: SignedIn | null,
): Promise<void> {
  const lines = await chosenLines(command, sheet, input, person);
  for (const it of lines) assertMove(TIME_LIFE, 'return', `Line ${it.line}`, timeState(it));
  await command.sql.update(TimeLineTable, { id: lines.map((it) => it.id) }, { status: 'submitted', returned: reason });
  command.note(subjectOf(sheet), { lines: lineNumbers(lines), reason });
}
