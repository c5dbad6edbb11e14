import type { Stores } from '../attachments/contents';
import type { Database } from '../db/database';
import type { Actor } from '../ledger/audit';
import type { Outbox } from '../stand-ins/outbox';
import type { Workers } from '../workers/workers';

/** What every way in works with. */
export interface Context {
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
  /** The address the product is reached at, for links; such as `http://localhost:4310`. */
  address: string;
}

/** The folders beside the database. */
export function storesOf({ files, outbox }: Pick<Context, 'files' | 'outbox'>): Stores {
  return { files, outbox: outbox.folder };
}

/** Until there is sign-in, everybody is the accounts office. */
export function actorOf({ now }: Pick<Context, 'now'>): Actor {
  return { name: 'Accounts office', at: now().toISOString() };
}

/** The server's own day. */
export function todayOf({ now }: Pick<Context, 'now'>): string {
  return now().toISOString().slice(0, 10);
}
