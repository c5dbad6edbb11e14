import type { Reader } from '../db/sql';

/** Why a posting cannot be reversed; null where it can. */
export async function whyNotReversible(
  sql: Reader,
  posting: { id: number; kind: string; job_id: number | null },
): Promise<string | null> {
  const by = await sql.get<{ id: number }>('SELECT id FROM posting WHERE reverses_id = $1', [posting.id]);
  if (by) return `Document ${posting.id} was reversed already, by document ${by.id}`;
  if (posting.kind === 'reversal') return 'A reversal cannot be reversed; post the correct figures again';
  if (posting.kind === 'application')
    return 'A certified application is stated to date: put the difference right in the next application';
  const locked = await sql.get<{ number: string }>(
    'SELECT number FROM job WHERE locked = 1 AND (id = $1 OR id IN (SELECT job_id FROM cost_entry WHERE posting_id = $2))',
    [posting.job_id, posting.id],
  );
  if (locked) return `Job ${locked.number} is locked; nothing posts to it until it is unlocked`;
  if (posting.kind !== 'retention-release') return null;
  const received = await sql.get(
    'SELECT r.id FROM receipt r JOIN retention_release l ON l.id = r.release_id WHERE l.posting_id = $1 GROUP BY l.id HAVING sum(r.amount) <> 0',
    [posting.id],
  );
  return received ? 'Money was received on this release; reverse the receipt first' : null;
}
