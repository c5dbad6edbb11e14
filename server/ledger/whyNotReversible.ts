import { ANY_LIVE_ENTRY, REVERSAL_OF, JOBS_OF_POSTING, RECEIVED_ON_POSTING } from './queries';
import { postingOfKind, type PostingKind } from '../../core/ledger/posting';
import { messageOf, showIn } from '../../core/refusals/messages';
import type { Reader } from '../db/sql';
import { lockedJob } from './gate';

/** Why a posting cannot be reversed; null where it can. */
export async function whyNotReversible(
  sql: Reader,
  posting: { id: number; kind: PostingKind; job_id: number | null },
): Promise<string | null> {
  const by = await sql.get(REVERSAL_OF, [posting.id]);
  if (by) return `Document ${posting.id} was reversed already, by document ${by.id}`;
  const { irreversible, writes } = postingOfKind(posting.kind);
  if (irreversible !== null) return irreversible;
  const entries = await sql.all(JOBS_OF_POSTING, [posting.id]);
  const jobs = [...entries.map((it) => it.job_id), ...(posting.job_id === null ? [] : [posting.job_id])];
  if (writes === 'entries' && !(await sql.get(ANY_LIVE_ENTRY, [posting.id])))
    return `Every line of document ${posting.id} was reversed or moved already`;
  const locked = await lockedJob(sql, jobs);
  if (locked) return messageOf(locked, showIn(0));
  if (writes !== 'invoice') return null;
  const received = await sql.get(RECEIVED_ON_POSTING, [posting.id]);
  return received ? 'Money was received on this release; reverse the receipt first' : null;
}
