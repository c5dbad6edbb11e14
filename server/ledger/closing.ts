import type { PlainDate } from '../../core/calendar/plainDate';
import { closedDayRefusal, closingRefusals } from '../../core/ledger/openDay';
import type { Closing, ClosingInput } from '../../wire/ledger';
import type { Reader } from '../db/sql';
import { assertAllowed } from '../acts/refused';
import { dayOf } from '../acts/audit';
import type { Command } from '../acts/command';
import { ClosingTable } from './models';
import { NEWEST_POSTING } from './queries';

/** The last day up to which the books are closed; null where none is. */
export async function closedTo(sql: Reader): Promise<PlainDate | null> {
  return (await closing(sql))?.closedTo ?? null;
}

/** What was said last of how far the books are closed; null where nothing ever was. */
export async function closing(sql: Reader): Promise<Closing | null> {
  const last = (await sql.find(ClosingTable, {}, ['id'])).at(-1);
  return last ? { closedTo: last.closed_to, by: last.actor, at: last.recorded_at, reason: last.reason } : null;
}

/** Closes the books up to a day, or opens them again from an earlier one on, with a reason. */
export async function closeBooks(command: Command, { to, reason }: ClosingInput): Promise<void> {
  const { sql, actor } = command;
  const was = await closedTo(sql);
  // Books may lie ahead of today, as a sample does: what is posted may be closed.
  const { newest } = (await sql.get(NEWEST_POSTING)) ?? { newest: null };
  const today = dayOf(actor);
  assertAllowed(closingRefusals({ to, reason }, { closedTo: was, today: newest !== null && newest > today ? newest : today }));
  await sql.insert(ClosingTable, { closed_to: to, reason, actor: actor.name, recorded_at: actor.at });
  command.note('books', { was, closedTo: to, reason });
}

/** Throws bad input where the books are closed on one of the days. `at`: the field of the input that says so. */
export async function assertOpenDays(sql: Reader, days: readonly PlainDate[], at = 'dated'): Promise<void> {
  const last = await closedTo(sql);
  const refused = days.map((on) => closedDayRefusal(on, last, at)).find((it) => it !== null);
  if (refused) assertAllowed([refused]);
}
