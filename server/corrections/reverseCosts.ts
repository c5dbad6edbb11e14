import { costJournals } from '../../core/costs/costBatch';
import { correctionDay } from '../../core/ledger/openDay';
import { closedTo } from '../ledger/closing';
import { reversed } from '../../core/costs/reversal';
import { reversalOf, type Reversal } from '../ledger/reversal';
import { savePosting } from '../ledger/savePosting';
import { insertCorrections, liveEntries } from './entries';

/**
 * Takes back what is left of a posting: entries of the same lines with the other sign, each naming the one it reverses, on the day
 * given or each on its own.
 */
export const reverseCosts: Reversal = async (sql, actor, posting, on, reason) => {
  const closed = await closedTo(sql);
  const corrections = (await liveEntries(sql, posting.id)).map((it) => ({
    entry: reversed(it, correctionDay(it, on.each ? null : on.day, closed)),
    reverses: it.id,
    replaces: null,
  }));
  const entries = corrections.map((it) => it.entry);
  const jobIds = [...new Set(entries.map((it) => it.job_id))];
  const journals = costJournals(entries.map(({ postedOn, cost_type, amount }) => ({ postedOn, costType: cost_type, amount })));
  const postingId = await savePosting(sql, actor, reversalOf(posting, on, reason), journals, jobIds);
  await insertCorrections(sql, postingId, corrections);
  return { postingId, entries: entries.length, total: entries.reduce((sum, it) => sum + it.amount, 0) };
};
