import { shape, t } from '../db/fields';
import { POSTINGS, type PostingKind } from '../../core/ledger/posting';
import { messageOf, showIn } from '../../core/refusals/messages';
import type { Reader } from '../db/sql';
import { lockedJob } from './lockedJob';

/** Why a posting cannot be reversed; null where it can. */
export async function whyNotReversible(
  sql: Reader,
  posting: { id: number; kind: PostingKind; job_id: number | null },
): Promise<string | null> {
  const by = await sql.get(shape({ id: t.whole }), 'SELECT id FROM posting WHERE reverses_id = $1', [posting.id]);
  if (by) return `Document ${posting.id} was reversed already, by document ${by.id}`;
  const { irreversible } = POSTINGS[posting.kind];
  if (irreversible !== null) return irreversible;
  const entries = await sql.all(shape({ job_id: t.whole }), 'SELECT DISTINCT job_id FROM cost_entry WHERE posting_id = $1', [
    posting.id,
  ]);
  const jobs = [...entries.map((it) => it.job_id), ...(posting.job_id === null ? [] : [posting.job_id])];
  const locked = await lockedJob(sql, jobs);
  if (locked) return messageOf(locked, showIn(0));
  if (posting.kind !== 'retention-release') return null;
  const received = await sql.get(
    shape({ id: t.whole }),
    'SELECT i.id FROM receipt r JOIN invoice i ON i.id = r.invoice_id WHERE i.posting_id = $1 GROUP BY i.id HAVING sum(r.amount) <> 0',
    [posting.id],
  );
  return received ? 'Money was received on this release; reverse the receipt first' : null;
}
