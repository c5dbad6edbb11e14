import { hasRight, type Person } from '../../core/rights/rights';
import { WAITING, WAITING_NAMES } from '../../core/waiting/waiting';
import { waitingCalls, type WaitingRow } from '../../wire/waiting';
import type { Reader } from '../db/sql';
import { handle } from '../http/handlers';
import { WAITING_ROWS } from './queries';

/** What waits for somebody: of the jobs they see, what they may do. */
export async function waitingFor(sql: Reader, person: Pick<Person, 'role'> | null): Promise<WaitingRow[]> {
  const rows: WaitingRow[] = [];
  for (const kind of WAITING_NAMES.filter((it) => hasRight(person, WAITING[it].who)))
    rows.push(...(await sql.all(WAITING_ROWS[kind])).map((row) => ({ kind, ...row })));
  return rows;
}

export const waitingHandlers = handle(waitingCalls, { waiting: (sql, _args, { person }) => waitingFor(sql, person) });
