import { describe, expect, test } from '@jest/globals';
import { moveRefusal, movesFrom } from '../life/life';
import { messageOf, showIn } from '../refusals/messages';
import { lastOwnerRefusal, USER_LIFE, USER_STATES, userState } from './userLife';

describe('what somebody who may come in is', () => {
  test('closed comes before all else, a password before an invitation', () => {
    const of = (closed: boolean, signsIn: boolean, invitedUntil: string | null) => userState({ closed, signsIn, invitedUntil });
    expect([of(true, true, '2031-05-19'), of(false, true, '2031-05-19'), of(false, false, '2031-05-19')]).toEqual([
      'closed',
      'signs in',
      'invited',
    ]);
    // An empty day of an invitation, as the database has it, and none at all are the same.
    expect([of(false, false, ''), of(false, false, null)]).toEqual(['no password', 'no password']);
  });

  test('a new link goes to whoever is not closed', () => {
    expect(USER_STATES.map((state) => movesFrom(USER_LIFE, state).newLink)).toEqual([true, true, true, false]);
    expect(messageOf(moveRefusal(USER_LIFE, 'newLink', 'Ann Ash', 'closed')!, showIn(2))).toBe(
      'Ann Ash is closed; open the account first',
    );
  });
});

describe('the last owner who signs in', () => {
  const owner = { name: 'Ann Ash', role: 'owner' as const };
  const rule = (becomes: { role: 'owner' | 'accountant'; closed: boolean }, others: number) =>
    lastOwnerRefusal(owner, becomes, others)?.rule ?? null;

  test('stays an owner, and open', () => {
    expect(rule({ role: 'accountant', closed: false }, 0)).toBe('last-owner');
    expect(rule({ role: 'owner', closed: true }, 0)).toBe('last-owner');
    expect(rule({ role: 'owner', closed: false }, 0)).toBeNull();
  });

  test('is free to go once there is another, and nobody else is held', () => {
    expect(rule({ role: 'accountant', closed: true }, 1)).toBeNull();
    expect(lastOwnerRefusal({ name: 'Ben', role: 'manager' }, { role: 'manager', closed: true }, 0)).toBeNull();
  });
});
