import { Router, type Request, type Response } from 'express';
import * as v from 'valibot';
import { LedrinError } from '../../core/errors/ledrinError';
import { hasRight, isTaken, seesAllJobs } from '../../core/rights/rights';
import { parameterNames, WHOLE_PARAMETERS, type Call } from '../../wire/call';
import type { SentAgain } from '../../wire/approvals';
import { text } from '../../wire/fields';
import { askApproval } from '../approvals/approvals';
import { NeedsApproval } from '../approvals/requireApproval';
import type { Database } from '../db/database';
import type { Reader } from '../db/sql';
import { auditName, runCommand, type Asked, type Command } from '../acts/command';
import { JobTable } from '../jobs/models';
import { JOBS_OF_TEAM } from '../users/queries';
import { sessionCookie } from '../users/sessions';
import { type SignedIn } from '../acts/signedIn';
import { timeZoneOf } from '../company/company';
import { actorOf, type Context, type Setting } from '../http/context';
import { bodyLimit, jsonBody, receiveBody } from '../http/body';
import { read } from './door';
import type { AloneHandler, Download, Handled, PreparedHandler, TryingHandler, UploadHandler } from '../http/handlers';
import { sendDownload } from '../http/sendDownload';
import { receiving, type UploadLimits } from '../http/upload';

type Args = Record<string, unknown>;
type Carry = (request: Request, response: Response, context: Context) => Promise<void>;

/** The routes of all calls: the one way in, where rights are checked, inputs read, and commands get their transaction. */
export function serve(setting: Setting, nouns: readonly Handled[]): Router {
  const router = Router();
  const all = nouns.flatMap(({ calls, handlers }) =>
    Object.entries(calls).map(([name, call]) => ({ name, call, handler: handlers[name] })),
  );
  // `/reports/:name` would take `wip.csv` for a name: files come first.
  for (const { name, call, handler } of all.sort(
    (a, b) => Number(b.call.kind === 'download') - Number(a.call.kind === 'download'),
  )) {
    const carry = CARRY[call.kind](name, call, handler);
    const readBody = call.input === null ? null : jsonBody(bodyLimit(call));
    router[METHODS[call.method]](call.path, async (request, response) => {
      const person = await setting.whoIs(setting.database, request, setting.now());
      assertRight(person, name, call, request);
      const database = await databaseOf(setting.database, person);
      const cookie = sessionCookie(request, response, setting.address);
      const timeZone = await setting.database.read(timeZoneOf);
      const context: Context = { ...setting, database, person, cookie, timeZone };
      await assertOwnJob(context, request);
      if (readBody) await receiveBody(readBody, request, response);
      await carry(request, response, context);
    });
  }
  return router;
}

/** Whoever is not signed in is asked to; whoever is, and may not, is told so. */
function assertRight(person: SignedIn | null, name: string, call: Call, request: Request): void {
  const needed = [call.who, ...(call.also ? [call.also(request.params)] : [])];
  const parts = [`export:${name}`, ...(call.part ? [call.part(request.params)] : [])];
  if (needed.every((right) => hasRight(person, right)) && !parts.some((it) => isTaken(person ?? {}, it))) return;
  if (person === null) throw new LedrinError('signed-out', 'You are not signed in, or your session has ended; sign in to go on');
  throw new LedrinError('not-allowed', `As ${person.role} you may not do this; ask the owner if you should`);
}

/** The books as somebody sees them: all of them, or the jobs of the team alone. */
async function databaseOf(database: Database, person: SignedIn | null): Promise<Database> {
  if (person === null) return database;
  if (seesAllJobs(person)) return database.askedBy(person.name);
  const jobs = await database.read((sql) => sql.all(JOBS_OF_TEAM, [person.name]));
  return database.askedBy(person.name).narrowed(jobs.map((it) => it.id));
}

/** A job somebody may not see is not there for them, whatever is asked of it. */
async function assertOwnJob({ database, person }: Context, request: Request): Promise<void> {
  const { job } = request.params;
  if (job === undefined || person === null || seesAllJobs(person)) return;
  const own = await database.read((sql) => sql.findOne(JobTable, { number: String(job) }));
  if (!own) throw new LedrinError('not-found', `There is no job ${String(job).slice(0, 40)} among those of your team`);
}

const METHODS = { GET: 'get', POST: 'post', PUT: 'put', DELETE: 'delete' } as const;

const CARRY: Record<Call['kind'], (name: string, call: Call, handler: unknown) => Carry> = {
  query: (_name, call, handler) => async (request, response, context) => {
    const args = argsOf(call, request);
    const work = handler as ((sql: Reader, args: Args, context: Context) => Promise<unknown>) | TryingHandler<Call>;
    const { database } = context;
    const reply =
      typeof work === 'function'
        ? await database.read((sql) => work(sql, args, context))
        : await work.trying(database, args as never, context);
    response.setHeader('Cache-Control', 'no-store').json(reply);
  },
  preview: (_name, call, handler) => async (request, response, context) => {
    const work = handler as (database: Database, args: Args, context: Context) => Promise<unknown>;
    response.setHeader('Cache-Control', 'no-store').json(await work(context.database, argsOf(call, request), context));
  },
  download: (_name, call, handler) => async (request, response, context) => {
    const work = handler as (database: Database, args: Args, context: Context) => Promise<Download>;
    await sendDownload(response, await work(context.database, argsOf(call, request), context));
  },
  command: (name, call, handler) => async (request, response, context) => {
    const args = argsOf(call, request);
    const asked = askedOf(name, call, request, context, args);
    try {
      const reply = await carryOut(asked, handler as CommandHandler, args, context);
      response.status(call.method === 'POST' ? 201 : 200).json(reply ?? {});
    } catch (error) {
      const reason = request.get(ASKING);
      if (reason === undefined || !(error instanceof NeedsApproval)) throw error;
      response.status(202).json(await asking(asked, error, request, context));
    }
  },
  upload: (name, call, handler) => async (request, response, context) => {
    const args = argsOf(call, request);
    const upload = handler as UploadHandler<Call> | AloneHandler<Call>;
    const limits = upload.limits ?? NO_FILES;
    const reply = await receiving(request, response, limits, (received) => {
      const asked = askedOf(name, call, request, context, { ...args, files: received.files.map((it) => [it.name, it.size]) });
      if ('alone' in upload) return upload.alone(asked, args as never, received, context);
      return runCommand(context.database, asked, (it) => upload.run(it, args as never, received, context));
    });
    response.status(201).json(reply ?? {});
  },
};

/** The header that asks for an approval where one is needed: its value is the reason, percent-encoded. */
const ASKING = 'ledrin-asks-approval';

/** Saves that an approval is asked for, with the request as it came. */
async function asking(
  asked: Asked,
  needed: NeedsApproval,
  request: Request,
  { database }: Context,
): Promise<{ approval: number }> {
  const reason = read(text(400), decoded(request.get(ASKING) ?? ''));
  const sent = {
    method: request.method as SentAgain['method'],
    url: request.originalUrl.replace(/^\/api/, ''),
    body: request.body,
  };
  const ask: Asked = {
    name: 'ask-approval',
    actor: asked.actor,
    // Asked for under one id, it is carried out later under the same.
    requestId: asked.requestId ? `ask/${asked.requestId}` : null,
    input: [asked.input, reason],
  };
  return runCommand(database, ask, async (command) => ({ approval: await askApproval(command, needed, sent, reason) }));
}

function decoded(header: string): string {
  try {
    return decodeURIComponent(header);
  } catch {
    throw new LedrinError('bad-input', 'reason: it cannot be read; type it again', [
      { field: 'reason', message: 'cannot be read' },
    ]);
  }
}

const NO_FILES: UploadLimits = { files: 0, fileSize: 0, total: 0 };
type CommandHandler =
  ((command: Command, args: Args, context: Context) => Promise<unknown>) | AloneHandler<Call> | PreparedHandler<Call, unknown>;

async function carryOut(asked: Asked, handler: CommandHandler, args: Args, context: Context): Promise<unknown> {
  const { database } = context;
  if (typeof handler === 'function') return runCommand(database, asked, (it) => handler(it, args, context));
  if ('alone' in handler) return handler.alone(asked, args as never, null, context);
  const made = await handler.prepare(database, args as never, context);
  return runCommand(database, asked, (it) => handler.run(it, args as never, made, context));
}

function askedOf(name: string, call: Call, request: Request, context: Context, input: unknown): Asked {
  return {
    name: auditName(name),
    actor: actorOf(context),
    // A secret is kept nowhere, not even as what would answer a request that is sent twice.
    requestId: call.secret ? null : requestIdOf(request),
    input,
    comparesVersion: call.input !== null && hasVersion(call.input),
  };
}

/** An input that carries the version or the digest it was opened at must have it compared; runCommand sees to it. */
function hasVersion(schema: v.GenericSchema): boolean {
  const { entries } = schema as { entries?: Record<string, unknown> };
  return entries !== undefined && (Object.hasOwn(entries, 'version') || Object.hasOwn(entries, 'seen'));
}

function requestIdOf(request: Request): string | null {
  const id = request.get('idempotency-key');
  if (id === undefined) return null;
  if (/^[\w-]{8,80}$/.test(id)) return id;
  throw new LedrinError('bad-input', 'Idempotency-Key: expected 8 to 80 letters, digits or hyphens', [
    { field: 'Idempotency-Key', message: 'expected 8 to 80 letters, digits or hyphens' },
  ]);
}

/** The arguments of a call: parameters of its path, its query and its body, each checked. */
function argsOf(call: Call, request: Request): Args {
  const parameters = Object.fromEntries(parameterNames(call.path).map((name) => [name, parameterOf(request, name)]));
  const query = read(call.query ?? v.strictObject({}), request.query) as Args;
  if (call.input === null) return { ...query, ...parameters };
  return { ...query, ...parameters, body: read(call.input, request.body) };
}

function parameterOf(request: Request, name: string): string | number {
  const text = String(request.params[name]);
  if (!(WHOLE_PARAMETERS as readonly string[]).includes(name)) return text;
  if (/^\d{1,15}$/.test(text)) return Number(text);
  throw new LedrinError('not-found', `${name}: expected a whole number, found "${text.slice(0, 40)}"`, [
    { field: name, message: 'expected a whole number' },
  ]);
}
