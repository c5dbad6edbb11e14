import type { Life } from '../life/life';
import { refuse, type Refusal } from '../refusals/refusal';
import type { Role } from '../rights/rights';

/** What somebody who may come in is: asked to choose a password, without one or a link, one who signs in, or closed. */
export const USER_STATES = ['invited', 'no password', 'signs in', 'closed'] as const;
export type UserState = (typeof USER_STATES)[number];

/** `signsIn`: has a password. `invitedUntil`: the last day of an invitation; empty or null for none. */
export function userState(user: { closed: boolean; signsIn: boolean; invitedUntil: string | null }): UserState {
  if (user.closed) return 'closed';
  if (user.signsIn) return 'signs in';
  return user.invitedUntil ? 'invited' : 'no password';
}

/** What depends on the state of a user. An account is closed and opened again at any time, never deleted: the trail names it. */
export const USER_LIFE = {
  newLink: { from: ['invited', 'no password', 'signs in'], to: 'same', only: 'open the account first' },
} as const satisfies Life<UserState, string>;

/** Why an owner stays one who signs in: there is no other. `others`: owners beside them who sign in. */
export function lastOwnerRefusal(
  was: { name: string; role: Role },
  becomes: { role: Role; closed: boolean },
  others: number,
): Refusal | null {
  const stays = becomes.role === 'owner' && !becomes.closed;
  return was.role === 'owner' && !stays && others === 0 ? refuse('last-owner', 'role', { name: was.name }) : null;
}
