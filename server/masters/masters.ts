import { MASTERS, isMasterKind, masterFaults, type MasterKind } from '../../core/masters/masters';
import { LedrinError } from '../../core/errors/ledrinError';
import type { MasterInput, MasterRow } from '../../wire/masters';
import type { Reader, Sql } from '../db/sql';
import { assertNoFaults, fieldError } from '../acts/refused';
import type { Command } from '../acts/command';
import { digestOf } from '../versions/digest';
import { assertUnchanged } from '../versions/staleness';
import { USES } from './queries';
import { STORES, type SavedMaster } from './stores';

export function kindOf(text: string): MasterKind {
  if (!isMasterKind(text)) throw new LedrinError('not-found', `There is no list of ${text}`);
  return text;
}

/** All of a kind, by code. */
export function savedMasters(sql: Reader, kind: MasterKind): Promise<SavedMaster[]> {
  return STORES[kind].all(sql);
}

export async function masterOf(sql: Reader, kind: MasterKind, code: string): Promise<SavedMaster> {
  const found = (await savedMasters(sql, kind)).find((it) => it.code === code);
  if (!found) throw new LedrinError('not-found', `There is no ${MASTERS[kind].one} ${code}`);
  return found;
}

/** What uses each of a kind, in words, by id. */
export async function usesOf(sql: Reader, kind: MasterKind): Promise<Map<number, string[]>> {
  const all = new Map<number, string[]>();
  for (const { words, query } of USES[kind])
    for (const { id, uses } of await sql.all(query))
      all.set(id, [...(all.get(id) ?? []), `${uses.toLocaleString('en')} ${words[uses === 1 ? 0 : 1]}`]);
  return all;
}

export async function masterList(sql: Reader, of: string): Promise<MasterRow[]> {
  const kind = kindOf(of);
  const used = await usesOf(sql, kind);
  return (await savedMasters(sql, kind)).map(({ id, ...row }) => ({ ...row, usedBy: used.get(id) ?? [], seen: digestOf(row) }));
}

/** Adds one. Its code is free, whatever letters' case. */
export async function addMaster(command: Command, of: string, input: MasterInput): Promise<void> {
  const kind = kindOf(of);
  assertNoFaults(masterFaults(kind, input));
  await assertCodeFree(command.sql, kind, input.code, null);
  await STORES[kind].write(command.sql, input, null);
  command.note(`${MASTERS[kind].one} ${input.code}`, input);
}

/** Changes one, its code included: what refers to it follows. */
export async function saveMaster(
  command: Command,
  of: string,
  code: string,
  { seen, ...input }: MasterInput & { seen: string },
): Promise<void> {
  const kind = kindOf(of);
  const { id, ...was } = await masterOf(command.sql, kind, code);
  const subject = `${MASTERS[kind].one} ${code}`;
  await assertUnchanged(command, `The ${subject}`, { subject, now: was, seen });
  assertNoFaults(masterFaults(kind, input));
  await assertCodeFree(command.sql, kind, input.code, id);
  await STORES[kind].write(command.sql, input, id);
  if (MASTERS[kind].coded === 'name' && input.code !== code)
    await repoint(command.sql, kind, { id, code }, { id, code: input.code });
  command.note(`${MASTERS[kind].one} ${input.code}`, { was, now: input });
}

/** Deletes one that nothing uses. */
export async function deleteMaster(command: Command, of: string, code: string): Promise<void> {
  const kind = kindOf(of);
  const { id, ...was } = await masterOf(command.sql, kind, code);
  const used = (await usesOf(command.sql, kind)).get(id);
  if (used)
    throw new LedrinError(
      'refused',
      `The ${MASTERS[kind].one} ${code} is used by ${used.join(', ')}; close it, or merge it into another`,
    );
  await STORES[kind].remove(command.sql, id);
  command.note(`${MASTERS[kind].one} ${code}`, { was });
}

/** What refers to one refers to another from now on: by its id, to people by their names. */
export async function repoint(
  sql: Sql,
  kind: MasterKind,
  from: Pick<SavedMaster, 'id' | 'code'>,
  into: Pick<SavedMaster, 'id' | 'code'>,
): Promise<void> {
  const by = MASTERS[kind].coded === 'name' ? 'code' : 'id';
  for (const use of USES[kind]) await sql.run(use.repoint, [from[by], into[by]]);
}

async function assertCodeFree(sql: Reader, kind: MasterKind, code: string, own: number | null): Promise<void> {
  const sameCode = (await savedMasters(sql, kind)).find((it) => it.id !== own && it.code.toLowerCase() === code.toLowerCase());
  if (sameCode)
    throw fieldError(
      'code',
      `There is a ${MASTERS[kind].one} ${sameCode.code} already; choose another ${MASTERS[kind].coded}, or merge the two`,
    );
}
