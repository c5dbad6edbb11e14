import type { Sql } from '../db/sql';

/** Who does it, and when. Given by the caller, so that tests can hold the clock. */
export interface Actor {
  name: string;
  /** ISO 8601 instant. */
  at: string;
}

/** Writes who did what, in the transaction that did it. */
export async function record(sql: Sql, actor: Actor, command: string, subject: string, detail: unknown): Promise<void> {
  await sql.run('INSERT INTO audit (at, actor, command, subject, detail) VALUES ($1, $2, $3, $4, $5)', [
    actor.at,
    actor.name,
    command,
    subject,
    JSON.stringify(detail),
  ]);
}
