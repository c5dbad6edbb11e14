import { canBeRemoved, PART_NAMES, type Narrowed } from '../../core/rights/parts';
import type { Fault } from '../../core/errors/ledrinError';
import type { NarrowingInput } from '../../wire/users';
import type { Reader } from '../db/sql';
import { assertNoFaults } from '../acts/refused';
import type { Command } from '../acts/command';
import { digestOf } from '../versions/digest';
import { assertUnchanged } from '../versions/staleness';
import { NarrowingTable } from './models';

/** What the owner has removed from roles, in the order of the parts. */
export async function narrowing(sql: Reader): Promise<{ seen: string; removed: Narrowed[] }> {
  const rows = await sql.find(NarrowingTable, {}, ['part', 'role']);
  const removed = PART_NAMES.flatMap((part) => rows.filter((it) => it.part === part));
  return { seen: digestOf(removed), removed };
}

/** Takes parts of the work from roles, or gives them back; it holds from the next request on. */
export async function saveNarrowing(command: Command, { seen, removed }: NarrowingInput): Promise<void> {
  const { sql } = command;
  const was = (await narrowing(sql)).removed;
  await assertUnchanged(command, 'What roles may do', { subject: 'roles', now: was, seen });
  const faults = removed.flatMap((it, i): Fault[] => {
    if (!canBeRemoved(it))
      return [{ field: `removed.${i}`, message: `${it.role} does not have ${it.part}; it cannot be removed` }];
    const twice = removed.findIndex((other) => other.part === it.part && other.role === it.role) !== i;
    return twice ? [{ field: `removed.${i}`, message: `${it.part} is removed from ${it.role} twice` }] : [];
  });
  assertNoFaults(faults);
  await sql.remove(NarrowingTable, {});
  await sql.insertAll(NarrowingTable, removed);
  command.note('roles', { was, now: removed });
}
