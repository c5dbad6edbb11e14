import type { ArgsOf, Call, Calls, OutputOf } from '../../wire/call';
import type { Database } from '../db/database';
import type { Reader } from '../db/sql';
import type { Asked, Command } from '../acts/command';
import type { Context } from './context';
import type { Received, UploadLimits } from './upload';

/** A file to be sent: its bytes, or where they lie. A temporary folder goes when the last byte is out, or the client is gone. */
export interface Download {
  /** Media type. */
  type: string;
  name: string;
  /** Shown in a page of its own, not taken to disk. */
  inline?: boolean;
  headers?: Readonly<Record<string, string>>;
  content: Buffer | string | { path: string; temporaryFolder?: string };
}

/** A query that shows what a command would do, and so opens the database by itself. */
export interface TryingHandler<C extends Call> {
  trying: (database: Database, args: ArgsOf<C>, context: Context) => Promise<OutputOf<C>>;
}

/** A command that takes files. */
export interface UploadHandler<C extends Call> {
  limits: UploadLimits;
  run: (command: Command, args: ArgsOf<C>, received: Received, context: Context) => Promise<OutputOf<C> | void>;
}

/** A command that a thread of its own carries out, with its own connection: nobody waits for it but whoever posts. */
export interface AloneHandler<C extends Call> {
  limits: UploadLimits | null;
  alone: (asked: Asked, args: ArgsOf<C>, received: Received | null, context: Context) => Promise<OutputOf<C>>;
}

/** A command with something to be made before its transaction is opened, such as a document. */
export interface PreparedHandler<C extends Call, Prepared = never> {
  prepare: (database: Database, args: ArgsOf<C>, context: Context) => Promise<Prepared>;
  run: (command: Command, args: ArgsOf<C>, prepared: Prepared, context: Context) => Promise<OutputOf<C> | void>;
}
/** So that `run` is typed by what its own `prepare` gives. */
export function prepared<C extends Call, Prepared>(handler: PreparedHandler<C, Prepared>): PreparedHandler<C> {
  return handler as unknown as PreparedHandler<C>;
}

/** What carries out one call: a query on a snapshot, a command in its transaction, the others as they need. */
type HandlerOf<C extends Call> = C['kind'] extends 'query'
  ? ((sql: Reader, args: ArgsOf<C>, context: Context) => Promise<OutputOf<C>>) | TryingHandler<C>
  : C['kind'] extends 'preview'
    ? (database: Database, args: ArgsOf<C>, context: Context) => Promise<OutputOf<C>>
    : C['kind'] extends 'download'
      ? (database: Database, args: ArgsOf<C>, context: Context) => Promise<Download>
      : C['kind'] extends 'upload'
        ? UploadHandler<C> | AloneHandler<C>
        : | ((command: Command, args: ArgsOf<C>, context: Context) => Promise<OutputOf<C> | void>)
          | AloneHandler<C>
          | PreparedHandler<C>;

export type Handlers<C extends Calls> = { readonly [Name in keyof C]: HandlerOf<C[Name]> };

/** The calls of a noun with what carries them out; one that is missing does not compile. */
export interface Handled {
  calls: Calls;
  handlers: Readonly<Record<string, unknown>>;
}
export function handle<C extends Calls>(calls: C, handlers: Handlers<C>): Handled {
  return { calls, handlers };
}
