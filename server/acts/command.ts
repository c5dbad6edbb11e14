import { HANDLED_REQUEST, FORGET_REQUESTS } from './queries';
import { HandledRequestTable } from './models';
import { createHash } from 'node:crypto';
import { LedrinError } from '../../core/errors/ledrinError';
import type { Database } from '../db/database';
import type { Reader, Sql } from '../db/sql';
import { record, type Actor } from './audit';

/** What a command works with: one write transaction, and who it is done for. */
export interface Command {
  sql: Sql;
  actor: Actor;
  /** What the audit trail says of it: a job, a document, an item; and the details worth keeping. By somebody else than the actor where `by` is given. */
  note(subject: string, detail?: unknown, by?: string): void;
  /** Says that what the page was shown was compared with what is saved now, or that there was nothing to compare. */
  compared(): void;
}

/** A command as it was asked for. */
export interface Asked {
  /** Its name in the audit trail, such as `certify-application`. */
  name: string;
  actor: Actor;
  /** Made by whoever asks: the same id is carried out once, however often it is sent. Null: not protected. */
  requestId?: string | null;
  /** What was asked for; an id that comes again with another is refused. */
  input?: unknown;
  /** The input carries the version it was opened at; a command that does not compare it is a fault of ours. */
  comparesVersion?: boolean;
}

/** How a command is called in the audit trail: `postCosts` is post-costs. */
export function auditName(call: string): string {
  return call.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`);
}

/** How long a reply is remembered: longer than any page stays open. */
const REMEMBERED_DAYS = 30;

/**
 * The one way anything is changed: opens the transaction, answers a request it has handled before with the same reply, and
 * writes the audit record. All of it is saved, or none.
 */
export async function runCommand<Reply>(
  database: Database,
  { name, actor, requestId = null, input = null, comparesVersion = false }: Asked,
  work: (command: Command) => Promise<Reply>,
): Promise<Reply> {
  return database.write(async (sql) => {
    const digest = requestId === null ? '' : digestOfRequest(name, input);
    // Ids are made by whoever asks: those of two people are never the same.
    const id = requestId === null ? null : `${actor.name}/${requestId}`;
    if (id !== null) {
      const reply = await handledReply(sql, id, digest);
      if (reply !== null) return JSON.parse(reply) as Reply;
    }
    let compared = false;
    const notes: { subject: string; detail: unknown; by: string }[] = [];
    const reply = await work({
      sql,
      actor,
      note: (subject, detail = {}, by = actor.name) => void notes.push({ subject, detail, by }),
      compared: () => void (compared = true),
    });
    if (comparesVersion && !compared) throw new Error(`${name} did not compare the version it was sent`);
    for (const { subject, detail, by } of notes.length > 0 ? notes : [{ subject: name, detail: {}, by: actor.name }])
      await record(sql, { ...actor, name: by }, name, subject, detail);
    if (id !== null) await rememberReply(sql, id, name, digest, reply, actor.at);
    return reply;
  });
}

function digestOfRequest(name: string, input: unknown): string {
  return createHash('sha256')
    .update(`${name}\n${JSON.stringify(input)}`)
    .digest('hex');
}

async function handledReply(sql: Reader, id: string, digest: string): Promise<string | null> {
  const row = await sql.get(HANDLED_REQUEST, [id]);
  if (!row) return null;
  if (row.digest !== digest)
    throw new LedrinError(
      'conflict',
      `This was already saved at ${row.at.slice(11, 16)}, as it was entered then; the changes made since were not. Reload the page to see what was saved`,
      [{ field: 'requestId', message: 'this request id was used for something else' }],
    );
  return row.reply;
}

async function rememberReply(sql: Sql, id: string, name: string, digest: string, reply: unknown, at: string): Promise<void> {
  const oldest = new Date(Date.parse(at) - REMEMBERED_DAYS * 86_400_000).toISOString();
  await sql.run(FORGET_REQUESTS, [oldest]);
  await sql.insert(HandledRequestTable, { id, command: name, digest, reply: JSON.stringify(reply ?? null), at });
}
