import { LedrinError } from '../../core/errors/ledrinError';
import { present } from '../../core/errors/known';
import type { Role } from '../../core/rights/rights';
import { passwordFault } from '../../core/users/password';
import { fieldError } from '../acts/refused';
import type { Database } from '../db/database';
import type { Reader } from '../db/sql';
import type { Context } from '../http/context';
import type { Command } from '../acts/command';
import type { Workers } from '../workers/workers';
import { SessionTable, UserTable } from './models';
import { END_OTHER_SESSIONS, USER_COUNT } from './queries';
import { NO_FACTOR, takeCode } from './secondFactor';
import { beginSession, savedToken } from './sessions';

/** Whoever may sign in with this name or address. */
export async function userCalled(sql: Reader, who: string) {
  const all = await sql.find(UserTable, { closed: 0 });
  const wanted = who.trim().toLowerCase();
  return all.find((it) => it.email.toLowerCase() === wanted || it.name.toLowerCase() === wanted) ?? null;
}

/** Finds whose name and password these are; the same is said, and it takes as long, whichever of the two is wrong. */
export async function checkedUser(database: Database, workers: Workers, { who, password }: { who: string; password: string }) {
  const user = await database.read((sql) => userCalled(sql, who));
  if (!(await workers.run('matchesPassword', password, user?.password ?? '')))
    throw new LedrinError('not-allowed', 'Name and password do not match. Type them again, or ask the owner for a new link', [
      { field: 'password', message: 'Name and password do not match' },
    ]);
  return present(user ?? undefined);
}

/**
 * Begins the session of somebody who was checked; where it was closed meanwhile, nothing begins. Gives back whether a code of the
 * second factor is to be typed first.
 */
export async function signIn(command: Command, id: number, context: Context, code = ''): Promise<{ code: boolean }> {
  const { sql } = command;
  const user = await sql.findOne(UserTable, { id, closed: 0 });
  if (!user) throw new LedrinError('not-allowed', 'This account is closed; ask the owner');
  if (user.second_factor !== '') {
    if (code.trim() === '') {
      command.note(`user ${user.name}`, { asked: 'a code of the second factor' }, user.name);
      return { code: true };
    }
    await takeCode(sql, user, code, command.actor.at);
  }
  await beginSession(sql, id, { cookie: context.cookie, at: command.actor.at, before: context.person?.session ?? null });
  command.note(`user ${user.name}`, { from: context.cookie.from }, user.name);
  return { code: false };
}

export async function signOut(command: Command, context: Context): Promise<void> {
  const person = present(context.person ?? undefined);
  await command.sql.remove(SessionTable, { id: person.session });
  context.cookie.clear();
  command.note(`user ${person.name}`);
}

/** Signs in as the sample company's user of a role; only where Ledrin serves the sample to be tried. */
export async function demoSignIn(command: Command, role: Role, context: Context): Promise<void> {
  if (!context.demo) throw new LedrinError('not-allowed', 'Only the demo signs in without a password');
  // Never as somebody who has a password of their own.
  const user = (await command.sql.find(UserTable, { role, closed: 0, password: '' }, ['id']))[0];
  if (!user) throw new LedrinError('not-found', `The demo has no ${role}`);
  await signIn(command, user.id, context);
}

/** The first of all, on the server's own machine: whoever sets Ledrin up owns it. */
export async function makeOwner(
  command: Command,
  { name, email }: { name: string; email: string },
  hash: string,
  context: Context,
): Promise<void> {
  const { sql, actor } = command;
  if (present(await sql.get(USER_COUNT)).count > 0)
    throw new LedrinError('not-allowed', 'There is an owner already; ask the owner for an invitation');
  const id = await sql.insert(UserTable, { name, email, role: 'owner', password: hash, created_at: actor.at });
  command.note(`user ${name}`, { role: 'owner', email }, name);
  await beginSession(sql, id, { cookie: context.cookie, at: actor.at, before: null });
}

/** Refuses where the first owner would be made from elsewhere than the server's own machine. */
export function assertLocal({ cookie, address }: Context): void {
  if (!cookie.local)
    throw new LedrinError(
      'not-allowed',
      `The first owner is set up on the server's own machine, not over the network. There, open ${address}`,
    );
}

/** The hash of a new password that is good enough. */
export async function newPassword(workers: Workers, password: string, own: readonly string[]): Promise<string> {
  const fault = passwordFault(password, own);
  if (fault) throw fieldError('password', fault);
  return workers.run('hashPassword', password);
}

/** Whoever an invitation that has not run out is for. */
export async function invited(sql: Reader, token: string, at: string) {
  const user = await sql.findOne(UserTable, { invitation: savedToken(token), closed: 0 });
  if (!user || user.invited_until < at.slice(0, 10))
    throw new LedrinError('not-found', 'This link was used already, or has run out; ask the owner for a new one');
  return user;
}

/** Takes an invitation: once. Sessions that were begun with an older password end, and so does a second factor: its device may be lost. */
export async function acceptInvitation(command: Command, token: string, hash: string, context: Context): Promise<void> {
  const { sql, actor } = command;
  const user = await invited(sql, token, actor.at);
  await sql.update(UserTable, { id: user.id }, { password: hash, invitation: '', invited_until: '', ...NO_FACTOR });
  await sql.remove(SessionTable, { user_id: user.id });
  await beginSession(sql, user.id, { cookie: context.cookie, at: actor.at, before: context.person?.session ?? null });
  command.note(`user ${user.name}`, {}, user.name);
}

/** Changes one's own password; all other sessions end. */
export async function changePassword(command: Command, hash: string, context: Context): Promise<void> {
  const { id, name, session } = present(context.person ?? undefined);
  await command.sql.update(UserTable, { id }, { password: hash });
  await command.sql.run(END_OTHER_SESSIONS, [id, session]);
  command.note(`user ${name}`);
}
