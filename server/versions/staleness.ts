import { LedrinError } from '../../core/errors/ledrinError';
import type { Sql } from '../db/sql';
import { digestOf } from './digest';

interface Saved {
  version: number;
  savedBy: string;
  /** When, as an ISO timestamp. */
  savedAt: string;
}

/**
 * Throws conflict where somebody saved `what` since `version` of it was opened: who, when, and what to do so that
 * nothing typed is lost.
 */
export function refuseSavedSince(what: string, { version, savedBy, savedAt }: Saved, opened: number, toDo: string): void {
  if (version === opened) return;
  throw new LedrinError(
    'conflict',
    `${savedBy} saved ${what} at ${savedAt.slice(11, 16)} on ${savedAt.slice(0, 10)}, after you opened it; ${toDo}`,
    [{ field: 'version', message: `it is at version ${version} now` }],
  );
}

/**
 * Throws conflict where `now` is not what was `seen` of it: somebody changed it in between. Who and when, as far as the
 * record of `subject` (a job, an item) tells.
 */
export async function refuseChangedSince(
  sql: Sql,
  what: string,
  { subject, now, seen }: { subject: string; now: unknown; seen: string },
): Promise<void> {
  if (digestOf(now) === seen) return;
  const last = await sql.get<{ actor: string; at: string }>(
    'SELECT actor, at FROM audit WHERE subject = $1 ORDER BY id DESC LIMIT 1',
    [subject],
  );
  throw new LedrinError(
    'conflict',
    `${what} changed after you opened it${last ? `; ${last.actor} saved here last, at ${last.at.slice(11, 16)} on ${last.at.slice(0, 10)}` : ''}; ${OPEN_BESIDE}`,
    [{ field: 'seen', message: 'it is another by now' }],
  );
}

/** The conflict where what was previewed is not what would be done any more. */
export function otherThanShown(what: string): LedrinError {
  return new LedrinError(
    'conflict',
    `${what} is not what was shown any more; somebody changed something since. Look at it again`,
    [{ field: 'seen', message: 'it is another by now' }],
  );
}

/** What to do where the product does not merge the two by itself. */
export const OPEN_BESIDE = 'open it again beside this window, and save what you still need';
