import { LAST_CHANGED } from './queries';
import { LedrinError } from '../../core/errors/ledrinError';
import type { Command } from '../acts/command';
import { digestOf } from './digest';

/** A document as it is saved: which version, by whom, when. */
export interface Saved {
  version: number;
  savedBy: string;
  /** An ISO timestamp. */
  savedAt: string;
}

/** What to do where the product does not merge the two by itself. */
const OPEN_AGAIN = 'reload to see the saved version, then re-enter your changes';

/**
 * Throws conflict where somebody saved `what` since `opened`, the version it was opened at: who, when, and what to do so that
 * nothing typed is lost. `saved` null is a new one.
 */
export function assertVersion(command: Command, what: string, saved: Saved | null, opened: number, toDo = OPEN_AGAIN): void {
  command.compared();
  if (saved === null || saved.version === opened) return;
  throw new LedrinError(
    'conflict',
    `${saved.savedBy} saved ${what} at ${momentOf(saved.savedAt)}, after you opened it; ${toDo}`,
    [{ field: 'version', message: `it is at version ${saved.version} now` }],
  );
}

/**
 * Throws conflict where `now` is not what was `seen` of it: somebody changed it in between. Who and when, as far as the
 * audit trail of `subject` (a job, an item) says.
 */
export async function assertUnchanged(
  command: Command,
  what: string,
  { subject, now, seen }: { subject: string; now: unknown; seen: string },
): Promise<void> {
  command.compared();
  if (digestOf(now) === seen) return;
  const last = await command.sql.get(LAST_CHANGED, [subject]);
  const by = last ? `; ${last.actor} saved here last, at ${momentOf(last.at)}` : '';
  throw new LedrinError('conflict', `${what} changed after you opened it${by}; ${OPEN_AGAIN}`, [
    { field: 'seen', message: 'it has changed since' },
  ]);
}

/** Throws conflict where what would be done now is not what the preview showed. */
export function assertAsPreviewed(command: Command, what: string, now: unknown, seen: string): void {
  command.compared();
  if (digestOf(now) === seen) return;
  throw new LedrinError('conflict', `${what} has changed since it was previewed. Preview it again`, [
    { field: 'seen', message: 'it has changed since' },
  ]);
}

function momentOf(at: string): string {
  return `${at.slice(11, 16)} on ${at.slice(0, 10)}`;
}
