import { createHash } from 'node:crypto';

/**
 * A short digest of something as it was read. A page sends it back with what is to be done with it, so that nothing is
 * done over what somebody else has changed since.
 */
export function digestOf(value: unknown): string {
  return createHash('sha256').update(JSON.stringify(value)).digest('hex').slice(0, 24);
}
