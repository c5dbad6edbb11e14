import { LedrinError } from '../../core/errors/ledrinError';

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

/** What to do where the product does not merge the two by itself. */
export const OPEN_BESIDE = 'open it again beside this window, and save what you still need';
