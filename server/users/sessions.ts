import type { SignedIn } from '../acts/signedIn';
import type { SessionCookie } from '../http/context';
import { createHash, randomBytes } from 'node:crypto';
import { parse } from 'cookie';
import type { Request, Response } from 'express';
import { present } from '../../core/errors/known';
import type { Role } from '../../core/rights/rights';
import type { Part } from '../../core/rights/parts';
import type { Database } from '../db/database';
import type { Sql } from '../db/sql';
import { KnownDeviceTable, SessionTable } from './models';
import { FORGET_SESSIONS, SESSION_OF_TOKEN, STAYS_SIGNED_IN } from './queries';

const COOKIE = 'ledrin';
/** Of a browser somebody signed in from. */
const DEVICE = 'ledrin-device';
const DEVICE_DAYS = 365;
const HOUR = 3_600_000;
/** A session ends when it was not used for so long, in hours, and after so long in any case. */
const UNUSED = 12;
const LONGEST = 7 * 24;
/** That of a phone of the site, where the company does not say otherwise, in days: used or not. */
const SITE_DAYS = 30;
/** How exactly it is noted when it was last used, in milliseconds: not every request writes. */
const NOTED = 5 * 60_000;

/** A new secret for a cookie or a link, and what is saved of it: its SHA-256, which opens nothing. */
export function newToken(): { token: string; saved: string } {
  const token = randomBytes(32).toString('base64url');
  return { token, saved: savedToken(token) };
}

export function savedToken(token: string): string {
  return createHash('sha256').update(token).digest('hex');
}

/** Who asks, by the cookie; null where nobody is signed in, or the session has run out. */
export async function whoIs(database: Database, request: Request, now: Date): Promise<SignedIn | null> {
  const token = sessionOf(request);
  if (!token) return null;
  const row = await database.read((sql) => sql.get(SESSION_OF_TOKEN, [savedToken(token)]));
  if (!row) return null;
  const age = (since: string) => now.getTime() - Date.parse(since);
  const seenAt = lastSeen(database, row.session, row.seenAt);
  const ends = sessionHours(row);
  if (age(seenAt) > ends.unused * HOUR || age(row.beganAt) > ends.longest * HOUR) return null;
  if (age(seenAt) > NOTED) noteSeen(database, row.session, now.toISOString());
  const { id, name, email, role, session } = row;
  const narrowed = (row.narrowed?.split(' ') ?? []) as Part[];
  return { id, name, email, role, session, allJobs: row.allJobs === 1, secondFactor: row.secondFactor === 1, narrowed };
}

/** After how many hours a session ends: unused, and in any case. A phone on site is taken out of the pocket when there is work to note. */
function sessionHours({ role, siteDays }: { role: Role; siteDays: number | null }): { unused: number; longest: number } {
  const days = (siteDays ?? SITE_DAYS) * 24;
  return role === 'site' ? { unused: days, longest: days } : { unused: UNUSED, longest: LONGEST };
}

/** When sessions were last used, as far as this server has seen it: what could not be written, for a full disk, is known all the same. */
const seenHere = new WeakMap<Database, Map<number, string>>();

function lastSeen(database: Database, session: number, saved: string): string {
  const here = seenHere.get(database)?.get(session);
  return here !== undefined && here > saved ? here : saved;
}

/** Nobody who reads waits for it, and nobody is refused where it cannot be written. */
function noteSeen(database: Database, session: number, at: string): void {
  const seen = seenHere.get(database) ?? new Map<number, string>();
  seenHere.set(database, seen.set(session, at));
  database.write((sql) => sql.update(SessionTable, { id: session }, { seen_at: at })).catch(() => undefined);
}

const LOOPBACK = ['127.0.0.1', '::1', '::ffff:127.0.0.1'];

export function sessionCookie(request: Request, response: Response, address: string): SessionCookie {
  const options = {
    httpOnly: true,
    sameSite: 'lax' as const,
    path: '/',
    secure: address.startsWith('https:'),
  };
  return {
    set: (token, hours) => void response.cookie(COOKIE, token, { ...options, maxAge: hours * HOUR }),
    clear: () => void response.clearCookie(COOKIE, options),
    know: (token) => void response.cookie(DEVICE, token, { ...options, maxAge: DEVICE_DAYS * 24 * HOUR }),
    device: deviceOf(request),
    from: `${(request.get('user-agent') ?? 'unknown program').slice(0, 200)}, ${request.ip ?? 'unknown address'}`,
    // What a web server hands on is none of it, also where nobody said that one stands before us.
    local: LOOPBACK.includes(request.ip ?? '') && request.get('x-forwarded-for') === undefined,
  };
}

/** The cookie of a session, good or not; null where there is none. */
export function sessionOf(request: Request): string | null {
  return parse(request.get('cookie') ?? '')[COOKIE] ?? null;
}

/** The cookie by which a browser is known again; null where it has none. */
export function deviceOf(request: Request): string | null {
  return parse(request.get('cookie') ?? '')[DEVICE] ?? null;
}

/** Begins a session; an older one of the same browser ends, so that none is taken over. Old ones are forgotten. */
export async function beginSession(
  sql: Sql,
  userId: number,
  { cookie, at, before }: { cookie: SessionCookie; at: string; before: number | null },
): Promise<void> {
  if (before !== null) await sql.remove(SessionTable, { id: before });
  const since = (hours: number) => new Date(Date.parse(at) - hours * HOUR).toISOString();
  await sql.run(FORGET_SESSIONS, [since(LONGEST), since(UNUSED), at]);
  const { token, saved } = newToken();
  await sql.insert(SessionTable, { token: saved, user_id: userId, began_at: at, seen_at: at, from_where: cookie.from });
  cookie.set(token, sessionHours(present(await sql.get(STAYS_SIGNED_IN, [userId]))).longest);
  const { device } = cookie;
  if (device === null || !(await sql.findOne(KnownDeviceTable, { token: savedToken(device), user_id: userId }))) {
    const known = newToken();
    await sql.insert(KnownDeviceTable, { token: known.saved, user_id: userId, since: at });
    cookie.know(known.token);
  }
}
