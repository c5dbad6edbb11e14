import { ANY_LIVE_ENTRY, REVERSAL_OF, JOBS_OF_POSTING, RECEIVED_ON_POSTING } from './queries';
import type { PostingKind } from '../../core/ledger/posting';
import { reversalRefusal } from '../../core/ledger/reversalRefusals';
import type { Refusal } from '../../core/refusals/refusal';
import type { Reader } from '../db/sql';
import { lockedJob } from './gate';

/** Why a posting cannot be reversed; null where it can. */
export async function whyNotReversible(
  sql: Reader,
  posting: { id: number; kind: PostingKind; job_id: number | null },
): Promise<Refusal | null> {
  const entries = await sql.all(JOBS_OF_POSTING, [posting.id]);
  const jobs = [...entries.map((it) => it.job_id), ...(posting.job_id === null ? [] : [posting.job_id])];
  return reversalRefusal({
    document: posting.id,
    kind: posting.kind,
    reversedBy: (await sql.get(REVERSAL_OF, [posting.id]))?.id ?? null,
    hasLiveEntry: (await sql.get(ANY_LIVE_ENTRY, [posting.id])) !== undefined,
    locked: await lockedJob(sql, jobs),
    isReceivedOn: (await sql.get(RECEIVED_ON_POSTING, [posting.id])) !== undefined,
  });
}
