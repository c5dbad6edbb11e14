import { addDays } from '../../core/calendar/plainDate';
import { LedrinError, type Fault } from '../../core/errors/ledrinError';
import { present } from '../../core/errors/known';
import { movesFrom } from '../../core/life/life';
import { lastOwnerRefusal, USER_LIFE, userState } from '../../core/users/userLife';
import { digestOf } from '../versions/digest';
import { assertUnchanged } from '../versions/staleness';
import type { SessionRow, UserInput, UserRow } from '../../wire/users';
import { ApprovalTable } from '../approvals/models';
import { PersonTable } from '../company/models';
import type { Reader, Sql } from '../db/sql';
import type { Context } from '../http/context';
import { assertMove, assertNoFaults, faultsOf } from '../acts/refused';
import type { Command } from '../acts/command';
import { EmployeeTable } from '../labour/models';
import { repoint } from '../masters/masters';
import { SessionTable, UserTable } from './models';
import { OTHER_OWNERS, USER_LIST } from './queries';
import { newToken } from './sessions';
import { type SignedIn } from '../acts/signedIn';

/** How many days an invitation may be used. */
const INVITED_DAYS = 7;

export async function userList(sql: Reader): Promise<UserRow[]> {
  return (await sql.all(USER_LIST)).map(({ allJobs, closed, signsIn, invitedUntil, ...row }) => {
    const facts = { name: row.name, email: row.email, role: row.role, allJobs: allJobs === 1, closed: closed === 1 };
    const state = userState({ closed: closed === 1, signsIn: signsIn === 1, invitedUntil });
    const can = movesFrom(USER_LIFE, state);
    return { ...row, ...facts, seen: digestOf(facts), state, can, invitedUntil: invitedUntil || null };
  });
}

async function userById(sql: Reader, id: number) {
  const user = await sql.findOne(UserTable, { id });
  if (!user) throw new LedrinError('not-found', 'There is no such user; reload the page');
  return user;
}

/** Names and addresses stand once: people sign in with either. */
async function takenFaults(sql: Reader, input: UserInput, own: number | null): Promise<Fault[]> {
  const others = (await sql.find(UserTable, {})).filter((it) => it.id !== own);
  const isUsed = (text: string) =>
    others.some((it) => [it.name, it.email].some((one) => one.toLowerCase() === text.toLowerCase()));
  return [
    ...(isUsed(input.name) ? [{ field: 'name', message: `There is a user ${input.name} already; choose another name` }] : []),
    ...(isUsed(input.email) ? [{ field: 'email', message: `There is a user with ${input.email} already` }] : []),
  ];
}

/** Invites somebody. Gives back the link, which is to be handed on; only what it hashes to is saved. */
export async function inviteUser(command: Command, input: UserInput, { address }: Context): Promise<{ link: string }> {
  const { sql, actor } = command;
  assertNoFaults(await takenFaults(sql, input, null));
  const { token, saved } = newToken();
  await sql.insert(UserTable, {
    name: input.name,
    email: input.email,
    role: input.role,
    all_jobs: input.allJobs ? 1 : 0,
    invitation: saved,
    invited_until: untilOf(actor.at),
    created_at: actor.at,
  });
  command.note(`user ${input.name}`, input);
  return { link: linkOf(address, token) };
}

/** A new link for somebody; the one before it opens nothing any more. */
export async function inviteAgain(command: Command, id: number, { address }: Context): Promise<{ link: string }> {
  const { sql, actor } = command;
  const user = await userById(sql, id);
  const facts = { closed: user.closed === 1, signsIn: user.password !== '', invitedUntil: user.invited_until };
  assertMove(USER_LIFE, 'newLink', user.name, userState(facts));
  const { token, saved } = newToken();
  await sql.update(UserTable, { id }, { invitation: saved, invited_until: untilOf(actor.at) });
  command.note(`user ${user.name}`);
  return { link: linkOf(address, token) };
}

const untilOf = (at: string) => addDays(at.slice(0, 10), INVITED_DAYS);
const linkOf = (address: string, token: string) => `${address}/invitation/${token}`;

/** Changes what somebody is; it holds from the next request on. Whoever is closed is signed out everywhere. */
export async function saveUser(
  command: Command,
  id: number,
  { seen, ...input }: UserInput & { closed: boolean; seen: string },
): Promise<void> {
  const { sql } = command;
  const was = await userById(sql, id);
  const before = { name: was.name, email: was.email, role: was.role, allJobs: was.all_jobs === 1, closed: was.closed === 1 };
  await assertUnchanged(command, was.name, { subject: `user ${was.name}`, now: before, seen });
  const faults = await takenFaults(sql, input, id);
  const lastOwner = lastOwnerRefusal(was, input, present(await sql.get(OTHER_OWNERS, [id])).count);
  if (lastOwner) faults.push(...faultsOf([lastOwner], 0));
  assertNoFaults(faults);
  await sql.update(
    UserTable,
    { id },
    { name: input.name, email: input.email, role: input.role, all_jobs: input.allJobs ? 1 : 0, closed: input.closed ? 1 : 0 },
  );
  if (input.name !== was.name) await renamed(sql, was.name, input.name);
  if (input.closed) {
    await sql.remove(SessionTable, { user_id: id });
    await sql.update(UserTable, { id }, { invitation: '', invited_until: '' });
  }
  command.note(`user ${input.name}`, {
    was: before,
    now: input,
  });
}

/**
 * Whoever is called otherwise stays who they are: on their jobs, as an employee, among the people, in what they asked to have approved.
 * What was done keeps the name it was done under.
 */
async function renamed(sql: Sql, from: string, to: string): Promise<void> {
  await repoint(sql, 'people', { id: 0, code: from }, { id: 0, code: to });
  if (!(await sql.findOne(PersonTable, { name: to }))) await sql.update(PersonTable, { name: from }, { name: to });
  await sql.update(EmployeeTable, { name: from }, { name: to });
  for (const column of ['asked_by', 'decided_by', 'decided_for'] as const)
    await sql.update(ApprovalTable, { [column]: from }, { [column]: to });
}

/** One's own sessions, the newest first. */
export async function ownSessions(sql: Reader, person: SignedIn): Promise<SessionRow[]> {
  const rows = await sql.find(SessionTable, { user_id: person.id }, ['began_at']);
  return rows
    .reverse()
    .map((it) => ({ id: it.id, beganAt: it.began_at, seenAt: it.seen_at, from: it.from_where, own: it.id === person.session }));
}

/** Ends all sessions of somebody: signed in again, they are there as before. */
export async function endUserSessions({ sql, note }: Command, id: number): Promise<void> {
  const user = await sql.findOne(UserTable, { id });
  if (!user) throw new LedrinError('not-found', 'There is no such user; reload the page');
  await sql.remove(SessionTable, { user_id: id });
  note(user.name, { sessions: 'ended' });
}

/** Ends one of one's own sessions. */
export async function endSession(command: Command, id: number, person: SignedIn): Promise<void> {
  const session = await command.sql.findOne(SessionTable, { id, user_id: person.id });
  if (!session) throw new LedrinError('not-found', 'This session has ended already');
  await command.sql.remove(SessionTable, { id });
  command.note(`user ${person.name}`, { from: session.from_where });
}
