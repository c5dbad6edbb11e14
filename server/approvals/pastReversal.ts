import { periodOf, type Period, type PlainDate } from '../../core/calendar/plainDate';
import type { Cents } from '../../core/money/cents';
import { displayExact } from '../../core/money/display';
import { loadDigits } from '../company/company';
import type { Reader } from '../db/sql';
import type { Command } from '../acts/command';
import { NEWEST_POSTED_MONTH } from './queries';
import { requireApproval, type Act } from './requireApproval';

/** The month of the newest posting; those before it are past. Null where nothing is posted. */
export async function newestMonth(sql: Reader): Promise<Period | null> {
  return (await sql.get(NEWEST_POSTED_MONTH, []))?.month ?? null;
}

/**
 * Has a correction approved as far as it lies in past months, also where it was just posted: refused, it is undone with its
 * transaction. `newest` is the newest month before it; `reversed` what is taken back, each on its accounting date.
 */
export async function approvePastReversal(
  command: Command,
  act: Pick<Act, 'jobId' | 'document' | 'content'>,
  newest: Period | null,
  reversed: readonly { on: PlainDate; amount: Cents }[],
): Promise<void> {
  const past = reversed.filter((it) => newest !== null && periodOf(it.on) < newest);
  const amount = past.reduce((sum, it) => sum + Math.abs(it.amount), 0);
  const digits = await loadDigits(command.sql);
  await requireApproval(command, {
    kind: 'past-reversal',
    ...act,
    amount,
    facts: [
      ['Document', act.document],
      ['Months', [...new Set(past.map((it) => periodOf(it.on)))].sort().join(', ')],
      ['Reversed in them', displayExact(amount, digits)],
    ],
  });
}
