import { dayIn } from '../../core/calendar/dayIn';
import type { PlainDate } from '../../core/calendar/plainDate';
import type { Request } from 'express';
import type { Stores } from '../db/stores';
import type { Database } from '../db/database';
import type { Actor } from '../acts/audit';
import type { Outbox } from '../stand-ins/outbox';
import type { SignedIn } from '../acts/signedIn';
import type { Watch } from '../db/watch';
import type { Workers } from '../workers/workers';

/** What every way in works with, whoever asks. */
export interface Setting {
  database: Database;
  /** The clock; tests hold it. */
  now: () => Date;
  /** Folder of the sample company's book. */
  sampleBook: string;
  /** Where messages to clients go. */
  outbox: Outbox;
  /** Address of the company's mail server, `smtp://…`; null where none is set up: messages then wait in the outbox. */
  mailServer: string | null;
  /** Folder of the attachments of jobs, each under its hash. */
  files: string;
  /** Does what would hold up everybody else: documents, sheets, books. */
  workers: Workers;
  /** Says what is wrong with the machine: its disk, its copies. */
  watch: Pick<Watch, 'troubles'>;
  /** The address the product is reached at, for links; such as `http://localhost:4310`. */
  address: string;
  /** Serves the sample company to be tried: each role has a user who signs in without a password. */
  demo: boolean;
  /** Who sends a request; null where nobody is signed in. */
  whoIs: (database: Database, request: Request, now: Date) => Promise<SignedIn | null>;
}

/** The same, for one request. Its database shows whoever asks the jobs they may see, and no others. */
export interface Context extends Setting {
  person: SignedIn | null;
  cookie: SessionCookie;
  /** The company's time zone; empty: the server's own. */
  timeZone: string;
}

/** The folders beside the database. */
export function storesOf({ files, outbox }: Pick<Context, 'files' | 'outbox'>): Stores {
  return { files, outbox: outbox.folder };
}

/** Whoever asks, as the audit trail names them: a client answers without signing in. */
export function actorOf(context: Pick<Context, 'now' | 'person' | 'timeZone'>): Actor {
  const { person } = context;
  const when = { at: context.now().toISOString(), day: todayOf(context) };
  return person ? { name: person.name, ...when, role: person.role } : { name: 'nobody signed in', ...when };
}

/** The company's own day. */
export function todayOf({ now, timeZone }: Pick<Context, 'now' | 'timeZone'>): PlainDate {
  return dayIn(now(), timeZone);
}

/** Sets and takes away the cookie of a reply. */
export interface SessionCookie {
  /** A session that lasts so many hours. */
  set(token: string, hours: number): void;
  clear(): void;
  /** The browser is one somebody signed in from. */
  know(token: string): void;
  /** What the browser said of itself by such a cookie; null where it has none. */
  device: string | null;
  /** The program and address a session begins from, for whoever looks through the list of them. */
  from: string;
  /** Asked from the server's own machine. */
  local: boolean;
}
