import type { Request } from 'express';
import { isPeriod, isPlainDate, lastDay, type PlainDate } from '../../core/calendar/plainDate';
import { LedrinError } from '../../core/errors/ledrinError';
import type { Actor } from '../ledger/post';
import type { Database } from '../db/database';
import type { Stores } from '../attachments/contents';
import type { Outbox } from '../stand-ins/outbox';

/** What every route works with. */
export interface Context {
  database: Database;
  /** The clock; tests hold it. */
  now: () => Date;
  /** Folder of the sample company's book. */
  sampleBook: string;
  /** Where messages to clients go. */
  outbox: Outbox;
  /** Folder of the attachments attached to jobs, each under its hash. */
  files: string;
}

/** The folders beside the database. */
export function storesOf({ files, outbox }: Context): Stores {
  return { files, outbox: outbox.folder };
}

/** Until there is sign-in, everybody is the accounts office. */
export function actorOf({ now }: Context): Actor {
  return { name: 'Accounts office', at: now().toISOString() };
}

/** The date of a request: a month means its last day. */
export function asOfOf(value: unknown): PlainDate {
  if (typeof value === 'string' && isPeriod(value)) return lastDay(value);
  if (typeof value === 'string' && isPlainDate(value)) return value;
  throw new LedrinError('bad-input', 'asOf: expected a month such as 2031-04, or a date such as 2031-04-30', [
    { field: 'asOf', message: 'expected a month or a date' },
  ]);
}

/** A whole number in an address. */
export function numberParam(request: Request, name: string): number {
  const text = String(request.params[name]);
  if (!/^\d{1,15}$/.test(text))
    throw new LedrinError('not-found', `${name}: expected a whole number, found "${text.slice(0, 40)}"`, [
      { field: name, message: 'expected a whole number' },
    ]);
  return Number(text);
}

export function textParam(request: Request, name: string): string {
  return String(request.params[name]);
}

/** The address this request came to, for links that are to lead back here. */
export function originOf(request: Request): string {
  return `${request.protocol}://${request.get('host') ?? 'localhost'}`;
}
