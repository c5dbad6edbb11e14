import type { PlainDate } from '../../core/calendar/plainDate';
import { present } from '../../core/errors/known';
import { LedrinError } from '../../core/errors/ledrinError';
import type { TimeLineInput } from '../../wire/weekSheets';
import { approvePastReversal, newestMonth } from '../approvals/pastReversal';
import type { Reader } from '../db/sql';
import { TimeLineTable } from '../labour/models';
import type { Command } from '../acts/command';
import type { SignedIn } from '../acts/signedIn';
import { assertAsPreviewed } from '../versions/staleness';
import { planPosting, saveTime, shownOfPlan, type PlannedTimePosting, type TimeToPost } from './postTime';
import { checkLines, nextSheet, seenLines, subjectOf } from './saveSheet';

export interface TimeCorrection {
  week: PlainDate;
  /** Whose posted lines of the sheet and week are taken back. */
  employees: readonly string[];
  /** What is right in their place. */
  lines: readonly TimeLineInput[];
  reason: string;
  lateOn: PlainDate | null;
}

/** A correction as a sheet of its own: lines that reverse the posted ones, and the right ones after them. Throws with all faults. */
export async function planCorrection(
  sql: Reader,
  sheet: string,
  { week, employees, lines, lateOn, reason }: TimeCorrection,
  person: SignedIn | null,
): Promise<{ sheet: string; planned: PlannedTimePosting }> {
  const posted = (await seenLines(sql, sheet, week, person)).filter(
    (it) => it.status === 'posted' && it.reverses === null && it.reversedBy === null && employees.includes(it.employee),
  );
  if (posted.length === 0)
    throw new LedrinError(
      'refused',
      `Sheet ${sheet.slice(0, 40)} has no posted time of these people that is not corrected already`,
      [{ field: 'employees', message: 'expected people with posted time on the sheet' }],
    );
  const prices = new Map((await sql.find(TimeLineTable, { id: posted.map((it) => it.id) })).map((it) => [it.id, it]));
  const right = await checkLines(sql, lines, { week, leave: new Set(posted.map((it) => it.id)), person });
  const next = await nextSheet(sql);
  const named = (line: number) => ({ sheet: next, line: String(line) });
  const description = `Corrects sheet ${sheet}: ${reason}`;
  const toPost: TimeToPost[] = [
    ...posted.map((it, i): TimeToPost => {
      const price = present(prices.get(it.id));
      return {
        ...it,
        ...named(i + 1),
        id: null,
        hours: 0 - it.hours,
        units: it.units === null ? null : 0 - it.units,
        description,
        reverses: {
          id: it.id,
          dated: it.dated,
          pay: present(it.pay),
          price: {
            rate: price.rate ?? 0,
            rung: price.rung as never,
            payAmount: 0 - (price.pay_amount ?? 0),
            burden: 0 - (price.burden ?? 0),
          },
        },
      };
    }),
    ...right.map((it, i): TimeToPost => ({
      ...it,
      ...named(posted.length + i + 1),
      id: null,
      reverses: null,
    })),
  ];
  return { sheet: next, planned: await planPosting(sql, toPost, lateOn) };
}

/** Posts a correction as it was previewed; what it reverses in past months is approved where a rule says so. */
export async function correctTime(
  command: Command,
  sheet: string,
  { seen, ...input }: TimeCorrection & { seen: string },
  person: SignedIn | null,
): Promise<{ sheet: string }> {
  const { sql } = command;
  const { sheet: next, planned } = await planCorrection(sql, sheet, input, person);
  assertAsPreviewed(command, 'The time', shownOfPlan(planned), seen);
  const newest = await newestMonth(sql);
  await saveTime(command, planned);
  const jobs = [...new Set(planned.parts.map((it) => it.jobId))];
  await approvePastReversal(
    command,
    { jobId: jobs.length === 1 ? (jobs[0] ?? null) : null, document: `week sheet ${sheet}`, content: [sheet, input] },
    newest,
    planned.parts
      .filter((it) => it.of.reverses !== null)
      .map((it) => ({ on: it.postedOn, amount: it.price.payAmount + it.price.burden })),
  );
  command.note(subjectOf(sheet), { correctedBy: next, reason: input.reason });
  command.note(subjectOf(next), { corrects: sheet, reason: input.reason });
  return { sheet: next };
}
