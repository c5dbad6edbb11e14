import { MASTERS, isMasterKind, type MasterKind } from '../../core/masters/masters';
import { LedrinError } from '../../core/errors/ledrinError';
import type { MasterInput, MasterRow } from '../../wire/masters';
import { ClientTable, CostCodeTable, VendorTable } from '../company/models';
import { fieldError } from '../company/saveCompany';
import type { Reader } from '../db/sql';
import type { Command } from '../ledger/command';
import { digestOf } from '../versions/digest';
import { assertUnchanged } from '../versions/staleness';
import { USES } from './queries';

/** A row of whatever kind, as it is entered. */
export interface SavedMaster extends MasterInput {
  id: number;
}

export function kindOf(text: string): MasterKind {
  if (!isMasterKind(text)) throw new LedrinError('not-found', `There is no list of ${text}`);
  return text;
}

const NONE = { kind: '', contact: '', email: '', phone: '', address: '', termsDays: null, unit: '' } as const;

/** All of a kind, by code. */
export async function savedMasters(sql: Reader, kind: MasterKind): Promise<SavedMaster[]> {
  if (kind === 'cost-codes')
    return (await sql.find(CostCodeTable, {}, ['code'])).map(({ id, code, description, unit, closed }) => ({
      ...{ ...NONE, id, code, name: description, unit, closed: closed === 1 },
    }));
  const rows = kind === 'clients' ? await sql.find(ClientTable, {}, ['code']) : await sql.find(VendorTable, {}, ['code']);
  return rows.map(({ terms_days: termsDays, closed, ...row }) => ({ ...NONE, ...row, termsDays, closed: closed === 1 }));
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
  await assertCodeFree(command.sql, kind, input.code, null);
  await write(command, kind, input, null);
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
  await assertCodeFree(command.sql, kind, input.code, id);
  await write(command, kind, input, id);
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
  await command.sql.remove(tableOf(kind), { id });
  command.note(`${MASTERS[kind].one} ${code}`, { was });
}

async function assertCodeFree(sql: Reader, kind: MasterKind, code: string, own: number | null): Promise<void> {
  const taken = (await savedMasters(sql, kind)).find((it) => it.id !== own && it.code.toLowerCase() === code.toLowerCase());
  if (taken)
    throw fieldError('code', `There is a ${MASTERS[kind].one} ${taken.code} already; choose another code, or merge the two`);
}

function tableOf(kind: MasterKind) {
  return kind === 'clients' ? ClientTable : kind === 'vendors' ? VendorTable : CostCodeTable;
}

async function write({ sql }: Command, kind: MasterKind, it: MasterInput, id: number | null): Promise<void> {
  const closed = it.closed ? 1 : 0;
  if (kind === 'cost-codes') {
    const row = { code: it.code, description: it.name, unit: it.unit, closed };
    if (id === null) await sql.insert(CostCodeTable, row);
    else await sql.update(CostCodeTable, { id }, row);
    return;
  }
  const party = { code: it.code, name: it.name, contact: it.contact, email: it.email, phone: it.phone, address: it.address };
  const row = { ...party, terms_days: it.termsDays, closed };
  if (kind === 'clients') {
    if (id === null) await sql.insert(ClientTable, row);
    else await sql.update(ClientTable, { id }, row);
  } else if (id === null) await sql.insert(VendorTable, { ...row, kind: it.kind });
  else await sql.update(VendorTable, { id }, { ...row, kind: it.kind });
}
