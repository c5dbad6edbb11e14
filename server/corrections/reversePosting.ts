import { PostingTable } from '../ledger/models';
import { LedrinError } from '../../core/errors/ledrinError';
import { firstOpenDay } from '../../core/ledger/openDay';
import { closedTo } from '../ledger/closing';
import { postingOfKind, type PostingOfKind } from '../../core/ledger/posting';
import type { ReversalInput } from '../../wire/corrections';
import type { Posted } from '../../wire/ledger';
import { postingJournals } from '../ledger/postingViews';
import { reverseReceipt, reverseRelease } from '../billing/reversals';
import { assertAllowed, fieldError } from '../acts/refused';
import { reverseCosts } from './reverseCosts';
import { approvePastReversal, newestMonth } from '../approvals/pastReversal';
import type { Command } from '../acts/command';
import type { Reversal } from '../ledger/reversal';
import { whyNotReversible } from '../ledger/whyNotReversible';

/** Corrects a posting by another that names it and takes all of it back: on the day given, or each entry on its own. */
export async function reversePosting(command: Command, postingId: number, input: ReversalInput): Promise<Posted> {
  const { sql, actor } = command;
  const posting = await sql.findOne(PostingTable, { id: postingId });
  if (!posting) throw new LedrinError('not-found', `There is no document ${postingId}`);
  assertAllowed([await whyNotReversible(sql, posting)], { code: 'refused' });
  const { writes } = postingOfKind(posting.kind);
  if (writes === null || writes === 'credit') throw new Error(`${posting.kind} has no reversal`);
  const on = { day: input.on ?? firstOpenDay(posting.posted_on, await closedTo(sql)), each: input.on === null };
  if (on.day < posting.posted_on)
    throw fieldError('on', `The reversal, ${on.day}, is before the posting it reverses, ${posting.posted_on}`);
  const newest = await newestMonth(sql);
  const posted = await REVERSALS[writes](sql, actor, posting, on, input.reason);
  const reversed = (await postingJournals(sql, posted.postingId)).map(({ dated, lines }) => ({
    on: dated,
    amount: lines.reduce((sum, it) => sum + it.debit, 0),
  }));
  await approvePastReversal(command, { jobId: posting.job_id, document: String(postingId), content: input }, newest, reversed);
  command.note(`posting ${postingId}`, { ...input, by: posted.postingId });
  return posted;
}

/** How a posting is taken back, by what it writes; certified applications, which are invoices too, have a way of their own. */
const REVERSALS: Record<Exclude<PostingOfKind['writes'], null | 'credit'>, Reversal> = {
  entries: reverseCosts,
  receipt: reverseReceipt,
  invoice: reverseRelease,
};
