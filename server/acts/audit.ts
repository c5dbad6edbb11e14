import type { PlainDate } from '../../core/calendar/plainDate';
import type { Role } from '../../core/rights/rights';
import { AuditTable } from './models';
import type { Sql } from '../db/sql';

/** Who does it, and when. Given by the caller, so that tests can hold the clock. */
export interface Actor {
  name: string;
  /** ISO 8601 instant. */
  at: string;
  /** The company's day then; of whoever has none, the day of the instant in UTC. */
  day?: PlainDate;
  /** What they are in the company; nothing at the command line, which works on the file itself. */
  role?: Role;
}

/** The company's day on which somebody acts. */
export function dayOf({ at, day }: Pick<Actor, 'at' | 'day'>): PlainDate {
  return day ?? at.slice(0, 10);
}

/** Writes who did what, in the transaction that did it. */
export async function record(sql: Sql, actor: Actor, command: string, subject: string, detail: unknown): Promise<void> {
  await sql.insert(AuditTable, { at: actor.at, actor: actor.name, command, subject, detail: JSON.stringify(detail) });
}
