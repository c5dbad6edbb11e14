import { expect } from '@jest/globals';
import { LedrinError } from '../../core/errors/ledrinError';
import type { Command } from '../acts/command';
import type { Database } from '../db/database';
import type { Actor } from '../acts/audit';

/** What a view says of one act: why it cannot be done, or null where it offers it; and the act itself, as a page would ask for it. */
export interface Offer {
  what: string;
  why: string | null;
  act: (command: Command) => Promise<unknown>;
}

class Undone extends Error {}

/** What an act answers, in a transaction that is undone: null where it is accepted, else the message. */
async function answerOf(database: Database, actor: Actor, act: Offer['act']): Promise<string | null> {
  let answer: string | null = null;
  try {
    await database.write(async (sql) => {
      try {
        await act({ sql, actor, note: () => {}, compared: () => {} });
      } catch (error) {
        if (!(error instanceof LedrinError)) throw error;
        answer = error.message;
      }
      throw new Undone();
    });
  } catch (error) {
    if (!(error instanceof Undone)) throw error;
  }
  return answer;
}

/** What is offered is accepted, and what is not is refused with the reason that is shown. */
export async function tryOffers(database: Database, actor: Actor, offers: readonly Offer[]): Promise<void> {
  const said: [string, string | null][] = [];
  for (const { what, act } of offers) said.push([what, await answerOf(database, actor, act)]);
  expect(said).toEqual(offers.map(({ what, why }) => [what, why]));
}
