import type { Role } from '../../core/rights/rights';
import { AuditTable } from './models';
import type { Sql } from '../db/sql';

/** Who does it, and when. Given by the caller, so that tests can hold the clock. */
export interface Actor {
  name: string;
  /** ISO 8601 instant. */
  at: string;
  /** What they are in the company; nothing at the command line, which works on the file itself. */
  role?: Role;
}

/** Writes who did what, in the transaction that did it. */
export async function record(sql: Sql, actor: Actor, command: string, subject: string, detail: unknown): Promise<void> {
  await sql.insert(AuditTable, { at: actor.at, actor: actor.name, command, subject, detail: JSON.stringify(detail) });
}
